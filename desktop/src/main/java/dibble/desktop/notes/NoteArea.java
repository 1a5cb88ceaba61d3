package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Palette;
import dibble.desktop.ui.Pointer;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.notes.DraggedNotes;
import dibble.presentation.notes.KeyRows;
import dibble.presentation.notes.NoteSelection;
import dibble.presentation.notes.NotesPresenter;
import dibble.presentation.notes.TrackNotes;
import dibble.recording.ClipIndex;
import dibble.session.Gesture;
import java.util.BitSet;
import java.util.Map;
import java.util.function.BiConsumer;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;

/** The notes on their rows, with mouse gestures: select, move, change the length, draw. */
final class NoteArea extends Pane {
    /** The distance from the end of a note in which a drag changes its length. */
    private static final double END = 6;

    /** The distance of a pointer before a drag begins. */
    private static final double SHAKE = 3;

    private enum Doing {
        NOTHING,
        PRESSING,
        MOVING,
        LENGTHENING,
        BANDING
    }

    private final ViewContext desk;
    private final NotesDrawing board;
    private final Runnable stale;
    private final BiConsumer<VisibleTrack, Integer> sound;
    private final Canvas canvas = new Canvas();
    private final Rectangle band = new Rectangle();
    private Doing doing = Doing.NOTHING;
    private DraggedNotes held = DraggedNotes.NOTHING;
    private NotesDrawing.Hit grabbed;
    private boolean onlyIfStill;
    private double pressX;
    private double pressY;
    private int sounding = KeyRows.NONE;

    /**
     * @param stale has it drawn again
     * @param sound sounds a key on the part of a track; {@link KeyRows#NONE} ends it
     */
    NoteArea(ViewContext desk, NotesDrawing board, Runnable stale, BiConsumer<VisibleTrack, Integer> sound) {
        this.desk = desk;
        this.board = board;
        this.stale = stale;
        this.sound = sound;
        setId("note-area");
        setAccessibleRole(AccessibleRole.NODE);
        setFocusTraversable(true);
        setMinSize(0, 0);
        getStyleClass().add("note-area");
        band.setManaged(false);
        band.setVisible(false);
        band.getStyleClass().add("note-band");
        getChildren().addAll(canvas, band);
        desk.pointer().edits(this, new Drag());
        setOnMousePressed(this::pressOther);
        setOnMouseMoved(event -> setCursor(board.at() == null ? null : cursor(event)));
        // The arrow keys would move the focus, so keys of this area come first.
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (desk.commands().take(event, this)) {
                event.consume();
            }
        });
        focusedProperty().subscribe(focused -> stale.run());
    }

    private Cursor cursor(MouseEvent event) {
        return board.hit(event.getX(), event.getY())
                .map(hit -> isAtEnd(hit, event.getX()) ? Cursor.H_RESIZE : Cursor.HAND)
                .orElse(Cursor.DEFAULT);
    }

    private boolean isAtEnd(NotesDrawing.Hit hit, double x) {
        double end = board.scale().xOfTick(hit.end());
        double wide = end - board.scale().xOfTick(hit.start());
        return x >= end - Math.min(END, wide / 3);
    }

    /** A secondary button selects the note under it for its menu. */
    private void pressOther(MouseEvent event) {
        if (event.getButton() != MouseButton.PRIMARY) {
            requestFocus();
            if (isEditable()) {
                board.hit(event.getX(), event.getY())
                        .filter(it -> !isSelected(it))
                        .ifPresent(this::selectOnly);
            }
        }
    }

    private boolean isEditable() {
        return board.at() != null
                && desk.document().session() == board.presenter().kept();
    }

    private final class Drag implements Pointer.Handler {
        @Override
        public boolean press(MouseEvent event) {
            requestFocus();
            if (!isEditable()) {
                return false;
            }
            pressX = event.getX();
            pressY = event.getY();
            grabbed = board.hit(pressX, pressY).orElse(null);
            if (grabbed == null) {
                pressEmpty(event);
            } else {
                pressNote(event);
            }
            stale.run();
            return doing != Doing.NOTHING;
        }

        @Override
        public void drag(MouseEvent event, Gesture gesture) {
            NoteArea.this.drag(event);
        }

        @Override
        public void release(MouseEvent event, Gesture gesture) {
            gesture.leave();
            NoteArea.this.release(event);
        }

        @Override
        public void cancel() {
            doing = Doing.NOTHING;
            held = DraggedNotes.NOTHING;
            soundKey(KeyRows.NONE);
            band.setVisible(false);
            stale.run();
        }

        /** A drag refers to notes by their numbers. */
        @Override
        public boolean followsEdits() {
            return false;
        }
    }

    private void pressEmpty(MouseEvent event) {
        if (event.getClickCount() == 2 && board.at().hasRowAt(pressY)) {
            doing = Doing.NOTHING;
            NotesPresenter notes = board.presenter();
            long tick = board.scale().tickAt(pressX);
            long start = notes.snaps() && !event.isAltDown() ? notes.grid().before(tick) : tick;
            notes.draw(board.at().keyAt(pressY), start, start + notes.grid().step());
            return;
        }
        doing = Doing.BANDING;
        if (!event.isShiftDown() && !event.isShortcutDown()) {
            board.presenter().selected().clear();
        }
    }

    private void pressNote(MouseEvent event) {
        doing = Doing.PRESSING;
        onlyIfStill = false;
        NoteSelection selected = board.presenter().selected();
        if (event.isShortcutDown()) {
            selected.set(id(grabbed), grabbed.note(), !isSelected(grabbed));
        } else if (event.isShiftDown() && !selected.isEmpty()) {
            long[] span = board.presenter().select().span().orElseThrow();
            board.presenter()
                    .select()
                    .within(Math.min(span[0], grabbed.start()), Math.max(span[1], grabbed.end()), 0, 127, true);
        } else if (isSelected(grabbed)) {
            onlyIfStill = true;
        } else {
            selectOnly(grabbed);
        }
        soundKey(grabbed.key());
    }

    private static String id(NotesDrawing.Hit hit) {
        return hit.shown().track().id();
    }

    private boolean isSelected(NotesDrawing.Hit hit) {
        return board.presenter().selected().has(id(hit), hit.note());
    }

    private void selectOnly(NotesDrawing.Hit hit) {
        board.presenter().selected().clear();
        board.presenter().selected().set(id(hit), hit.note(), true);
        stale.run();
    }

    private void drag(MouseEvent event) {
        boolean still = Math.abs(event.getX() - pressX) < SHAKE && Math.abs(event.getY() - pressY) < SHAKE;
        if (doing == Doing.PRESSING && !still) {
            doing = isAtEnd(grabbed, pressX) ? Doing.LENGTHENING : Doing.MOVING;
            if (!isSelected(grabbed)) {
                board.presenter().selected().set(id(grabbed), grabbed.note(), true);
            }
        }
        long later = board.scale().tickAt(event.getX()) - board.scale().tickAt(pressX);
        switch (doing) {
            case MOVING -> {
                long to = board.presenter().snapped(Math.max(0, grabbed.start() + later), event.isAltDown());
                int key = board.at().keyAt(event.getY());
                held = new DraggedNotes(later == 0 ? 0 : to - grabbed.start(), key - grabbed.key(), 0);
                soundKey(key);
            }
            case LENGTHENING -> {
                long to = board.presenter().snapped(grabbed.end() + later, event.isAltDown());
                held = new DraggedNotes(0, 0, Math.max(grabbed.start() + 1, to) - grabbed.end());
            }
            case BANDING -> showBand(event);
            default -> {
                return;
            }
        }
        stale.run();
    }

    private void showBand(MouseEvent event) {
        band.setVisible(true);
        band.setX(Math.min(pressX, event.getX()));
        band.setY(Math.min(pressY, event.getY()));
        band.setWidth(Math.abs(event.getX() - pressX));
        band.setHeight(Math.abs(event.getY() - pressY));
    }

    private void release(MouseEvent event) {
        Doing done = doing;
        DraggedNotes was = held;
        doing = Doing.NOTHING;
        held = DraggedNotes.NOTHING;
        soundKey(KeyRows.NONE);
        NotesPresenter notes = board.presenter();
        switch (done) {
            case PRESSING -> {
                if (onlyIfStill) {
                    selectOnly(grabbed);
                }
            }
            case MOVING -> {
                if (event.isShortcutDown()) {
                    notes.copyBy(was.ticks(), was.semitones());
                } else {
                    notes.drag(was.ticks(), was.semitones());
                }
            }
            case LENGTHENING -> notes.lengthen(was.longer());
            case BANDING -> selectBand(event);
            default -> {
                // Nothing was begun.
            }
        }
        stale.run();
    }

    private void selectBand(MouseEvent event) {
        if (band.isVisible()) {
            board.presenter()
                    .select()
                    .within(
                            board.scale().tickAt(band.getX()),
                            board.scale().tickAt(band.getX() + band.getWidth()),
                            board.at().keyAt(band.getY() + band.getHeight()),
                            board.at().keyAt(band.getY()),
                            event.isShiftDown() || event.isShortcutDown());
        }
        band.setVisible(false);
    }

    /** A pressed or dragged note sounds on its part, at each change of its key. */
    private void soundKey(int key) {
        if (key != sounding && grabbed != null) {
            sounding = key;
            sound.accept(grabbed.shown(), key);
        }
    }

    /**
     * Draws everything.
     *
     * @param faint the notes of other tracks, with their colors
     * @param before the notes before the previewed change, dashed where they were selected
     */
    void draw(Palette palette, Map<TrackNotes, Color> faint, Map<TrackNotes, BitSet> before, boolean ghost) {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        NotePainter painter = new NotePainter(canvas.getGraphicsContext2D(), board.at(), palette, getWidth());
        painter.ground(board.presenter().grid());
        faint.forEach((sheet, colour) -> painter.faint(sheet.index(), sheet.longest(), colour));
        if (ghost) {
            for (VisibleTrack one : board.shown()) {
                ClipIndex played = one.sheet().played();
                if (played != one.sheet().index()) {
                    painter.outlines(played, one.sheet().longestPlayed(), null, false);
                }
            }
        }
        before.forEach((sheet, which) -> painter.outlines(sheet.index(), sheet.longest(), which, true));
        if (held != DraggedNotes.NOTHING) {
            board.shown()
                    .forEach(one ->
                            painter.outlines(one.sheet().index(), one.sheet().longest(), one.selected(), true));
        }
        board.shown().forEach(one -> painter.notes(one, held));
        setAccessibleText(say(
                "note-area.notes",
                board.presenter().noteCount(),
                board.presenter().selected().count()));
    }
}
