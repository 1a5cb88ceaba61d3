package dibble.desktop.notes;

import dibble.desktop.ui.Palette;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import javafx.geometry.VPos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/** What a controller, wheel, pressure or program does over time, as it is sent: in steps. */
final class LaneArea extends Pane {
    static final double HEIGHT = 46;
    private static final double AIR = 5;
    private static final Font FONT = Font.font("Dibble Sans", 12);

    private final Canvas canvas = new Canvas();
    private final Board board;
    private final LaneKind kind;

    LaneArea(Board board, LaneKind kind) {
        this.board = board;
        this.kind = kind;
        setMinSize(0, HEIGHT);
        setPrefHeight(HEIGHT);
        setMaxHeight(HEIGHT);
        setAccessibleText(kind.name());
        getChildren().add(canvas);
    }

    private double y(double height) {
        return AIR + (HEIGHT - 2 * AIR) * (1 - height);
    }

    void draw(Palette palette) {
        canvas.setWidth(getWidth());
        canvas.setHeight(HEIGHT);
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.setFill(palette.get("sheet"));
        g.fillRect(0, 0, getWidth(), HEIGHT);
        new NotePainter(g, board.at(), palette, getWidth())
                .lines(board.presenter().grid(), HEIGHT);
        g.setFill(palette.get("rule"));
        g.fillRect(0, Math.round(y(kind.rest())), getWidth(), 1);
        g.setFont(FONT);
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.CENTER);
        for (Shown one : board.shown()) {
            g.setFill(one.colour());
            g.setStroke(one.colour());
            g.setLineWidth(2);
            if (kind.stands()) {
                steps(g, one.sheet().hand().whole());
            } else {
                events(g, one.sheet().hand().whole());
            }
        }
    }

    private void steps(GraphicsContext g, MidiTrack clip) {
        double lastX = 0;
        double lastY = y(kind.rest());
        int column = Integer.MIN_VALUE;
        for (int i = 0; i < clip.size(); i++) {
            if (!clip.isChannelMessage(i) || !kind.has(clip.message(i))) {
                continue;
            }
            double x = board.scale().xOfTick(clip.tick(i));
            double y = y(kind.height(clip.message(i)));
            if (x > getWidth()) {
                break;
            }
            // Of what falls onto one pixel the last stands.
            if (x >= 0 && ((int) x != column || y != lastY)) {
                g.strokeLine(Math.max(0, lastX), lastY, x, lastY);
                g.strokeLine(x, lastY, x, y);
                column = (int) x;
            }
            lastX = x;
            lastY = y;
        }
        g.strokeLine(Math.max(0, lastX), lastY, getWidth(), lastY);
    }

    private void events(GraphicsContext g, MidiTrack clip) {
        for (int i = 0; i < clip.size(); i++) {
            boolean seen = clip.isChannelMessage(i)
                    && kind.has(clip.message(i))
                    && clip.tick(i) >= board.scale().from()
                    && clip.tick(i) <= board.scale().to();
            if (!seen) {
                continue;
            }
            double x = board.scale().xOfTick(clip.tick(i));
            if (kind.kind() == ShortMessage.PROGRAM_CHANGE) {
                g.fillRect(x, AIR, 2, HEIGHT - 2 * AIR);
                g.fillText(String.valueOf(ShortMessage.data1(clip.message(i)) + 1), x + 6, HEIGHT / 2);
            } else {
                double y = y(kind.height(clip.message(i)));
                g.fillRect(x, y, 2, HEIGHT - AIR - y);
            }
        }
    }
}
