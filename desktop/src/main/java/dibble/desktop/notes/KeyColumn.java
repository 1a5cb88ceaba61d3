package dibble.desktop.notes;

import dibble.desktop.ui.Palette;
import dibble.desktop.ui.Pointer;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Part;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.presentation.notes.Geometry;
import dibble.presentation.notes.KeyRows;
import dibble.session.Gesture;
import dibble.session.SessionFormatter;
import java.util.List;
import java.util.function.IntConsumer;
import javafx.geometry.VPos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/** The keys at the left of their rows, with the names that the sound gives them; a press sounds one. */
final class KeyColumn extends Pane {
    private static final double KEYS = 72;

    /** The width to the left of the names. */
    private static final double TOOLS = 132;

    private static final Font FONT = Font.font("Dibble Sans", 12);

    private final Canvas canvas = new Canvas();
    private final NotesDrawing board;

    /** The state at the last drawing: names take long to draw. */
    private List<Object> drawn;

    /** @param press is given a key, or {@link KeyRows#NONE} when it is let go */
    KeyColumn(ViewContext desk, NotesDrawing board, IntConsumer press) {
        this.board = board;
        setId("note-keys");
        setMinSize(0, 0);
        getChildren().add(canvas);
        desk.pointer().plays(this, new Pointer.Handler() {
            @Override
            public boolean press(MouseEvent event) {
                if (board.at() != null) {
                    press.accept(board.at().keyAt(event.getY()));
                }
                return board.at() != null;
            }

            @Override
            public void drag(MouseEvent event, Gesture gesture) {
                // The key that was pressed sounds on.
            }

            @Override
            public void release(MouseEvent event, Gesture gesture) {
                cancel();
            }

            @Override
            public void cancel() {
                press.accept(KeyRows.NONE);
            }
        });
    }

    /** @param parts of the tracks that are shown: the first that has a name for a key gives it */
    void draw(Palette palette, List<Part> parts, MiddleC middleC) {
        Geometry now = board.at();
        List<Object> next =
                List.of(palette, parts, middleC, now.rows(), now.rowHeight(), now.scrolled(), getWidth(), getHeight());
        if (next.equals(drawn)) {
            return;
        }
        drawn = next;
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        GraphicsContext g = canvas.getGraphicsContext2D();
        Geometry at = board.at();
        double left = getWidth() - KEYS;
        g.setFill(palette.get("sheet"));
        g.fillRect(0, 0, getWidth(), getHeight());
        g.setFont(FONT);
        g.setTextAlign(TextAlignment.RIGHT);
        g.setTextBaseline(VPos.CENTER);
        for (int row = at.firstRow(); row <= at.lastRow(); row++) {
            int key = at.rows().keys()[row];
            double top = at.top(row);
            // Keys keep their colors at night.
            g.setFill(
                    NoteNames.isBlack(key)
                            ? palette.get("live")
                            : palette.isDark() ? Palette.ON_DARK : palette.get("raised"));
            g.fillRect(left, top, KEYS, at.rowHeight());
            g.setFill(palette.get("strong-rule"));
            g.fillRect(left, Math.round(top + at.rowHeight()) - 1, KEYS, 1);
            g.setFill(palette.get(key % 12 == 0 ? "ink" : "soft"));
            g.fillText(name(key, parts, middleC), left - 8, top + at.rowHeight() / 2, left - TOOLS);
        }
        g.setFill(palette.get("strong-rule"));
        g.fillRect(getWidth() - 1, 0, 1, getHeight());
    }

    /** {@code D2 Open drum}, or {@code D2} alone. */
    private static String name(int key, List<Part> parts, MiddleC middleC) {
        String note = NoteNames.name(key, middleC);
        for (Part part : parts) {
            String own = part.keyswitches().get(key);
            String name = own == null ? SessionFormatter.nameOf(key, part) : own;
            if (name != null) {
                return name + "  " + note;
            }
        }
        return note;
    }
}
