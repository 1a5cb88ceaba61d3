package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Palette;
import dibble.desktop.ui.Pointer;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.notes.TrackNotes;
import dibble.recording.ClipIndex;
import dibble.session.Gesture;
import java.util.BitSet;
import java.util.HashMap;
import java.util.Map;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;

/**
 * A stem for each note, as high as its velocity. Dragging a stem changes all selected ones; drawing a line across stems
 * sets them.
 */
final class VelocityArea extends Pane {
    private static final double NEAR = 5;
    private static final double AIR = 6;
    private static final int STILL = 0;

    private final Canvas canvas = new Canvas();
    private final NotesDrawing board;
    private final Runnable stale;

    /** By the ids of tracks, what velocities are while a hand has them; 0 where they are as they were. */
    private final Map<String, int[]> held = new HashMap<>();

    private VisibleTrack grabbed;
    private int grabbedNote;
    private boolean drawsLine;
    private double pressX;
    private double pressY;
    private double nowX;
    private double nowY;

    VelocityArea(ViewContext desk, NotesDrawing board, Runnable stale) {
        this.board = board;
        this.stale = stale;
        setId("velocity-area");
        setAccessibleText(say("velocity-area.velocities"));
        setMinSize(0, 0);
        getChildren().add(canvas);
        desk.pointer().edits(this, new Drag());
    }

    private double y(int velocity) {
        return AIR + (getHeight() - AIR) * (1 - velocity / 127.0);
    }

    private int velocityAt(double y) {
        return (int) Math.max(1, Math.min(127, Math.round((1 - (y - AIR) / (getHeight() - AIR)) * 127)));
    }

    private final class Drag implements Pointer.Handler {
        @Override
        public boolean press(MouseEvent event) {
            if (board.at() == null || board.presenter().isPreviewing()) {
                return false;
            }
            grab(event);
            follow(event);
            return true;
        }

        @Override
        public void drag(MouseEvent event, Gesture gesture) {
            follow(event);
        }

        @Override
        public void release(MouseEvent event, Gesture gesture) {
            gesture.leave();
            keep();
        }

        @Override
        public void cancel() {
            drawsLine = false;
            held.clear();
            stale.run();
        }

        /** Velocities are held by the numbers of notes. */
        @Override
        public boolean followsEdits() {
            return false;
        }
    }

    private void grab(MouseEvent event) {
        pressX = event.getX();
        pressY = event.getY();
        grabbed = null;
        double nearest = NEAR;
        for (VisibleTrack one : board.shown()) {
            ClipIndex index = one.sheet().index();
            for (int note = TrackNotes.firstFrom(index, board.scale().tickAt(pressX - NEAR));
                    note < index.noteCount();
                    note++) {
                double x = board.scale().xOfTick(index.start(note)) + 1;
                if (x > pressX + NEAR) {
                    break;
                }
                // Of stems that stand together a selected one is meant, else the one whose tip is near.
                double far = Math.abs(x - pressX)
                        + (one.selected().get(note) ? 0 : 1)
                        + Math.abs(y(index.velocity(note)) - pressY) / getHeight();
                if (far < nearest && pressY >= y(index.velocity(note)) - NEAR) {
                    nearest = far;
                    grabbed = one;
                    grabbedNote = note;
                }
            }
        }
        drawsLine = grabbed == null;
    }

    private void follow(MouseEvent event) {
        nowX = event.getX();
        nowY = event.getY();
        held.clear();
        if (drawsLine) {
            holdLine();
        } else if (grabbed != null) {
            holdStems(velocityAt(event.getY()) - velocityAt(pressY));
        }
        stale.run();
    }

    private void holdStems(int by) {
        if (by == STILL) {
            return;
        }
        boolean all = grabbed.selected().get(grabbedNote);
        for (VisibleTrack one : board.shown()) {
            BitSet which = all ? one.selected() : new BitSet();
            if (!all && one == grabbed) {
                which.set(grabbedNote);
            }
            int[] velocities = new int[one.sheet().index().noteCount()];
            for (int note = which.nextSetBit(0); note >= 0; note = which.nextSetBit(note + 1)) {
                velocities[note] = Math.max(1, Math.min(127, one.sheet().index().velocity(note) + by));
            }
            held.put(one.track().id(), velocities);
        }
    }

    private void holdLine() {
        double from = Math.min(pressX, nowX);
        double to = Math.max(pressX, nowX);
        boolean onlySelected = !board.presenter().selected().isEmpty();
        for (VisibleTrack one : board.shown()) {
            ClipIndex index = one.sheet().index();
            int[] velocities = new int[index.noteCount()];
            for (int note = TrackNotes.firstFrom(index, board.scale().tickAt(from)); note < index.noteCount(); note++) {
                double x = board.scale().xOfTick(index.start(note));
                if (x > to) {
                    break;
                }
                if (!onlySelected || one.selected().get(note)) {
                    double share = to - from < 1 ? 1 : (x - pressX) / (nowX - pressX);
                    velocities[note] = velocityAt(pressY + (nowY - pressY) * share);
                }
            }
            held.put(one.track().id(), velocities);
        }
    }

    private void keep() {
        drawsLine = false;
        if (!held.isEmpty()) {
            Map<String, int[]> drawn = Map.copyOf(held);
            held.clear();
            board.presenter().setVelocities(drawn);
        }
        stale.run();
    }

    void draw(Palette palette) {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        GraphicsContext g = canvas.getGraphicsContext2D();
        NotePainter painter = new NotePainter(g, board.at(), palette, getWidth());
        g.setFill(palette.get("sheet"));
        g.fillRect(0, 0, getWidth(), getHeight());
        painter.lines(board.presenter().grid(), getHeight());
        for (VisibleTrack one : board.shown()) {
            stems(g, one, false, palette);
        }
        for (VisibleTrack one : board.shown()) {
            stems(g, one, true, palette);
        }
        if (drawsLine) {
            g.setStroke(palette.get("leaf"));
            g.setLineWidth(2);
            g.strokeLine(pressX, pressY, nowX, nowY);
        }
    }

    private void stems(GraphicsContext g, VisibleTrack one, boolean selected, Palette palette) {
        ClipIndex index = one.sheet().index();
        int[] now = held.get(one.track().id());
        g.setFill(selected ? palette.get("ink") : one.colour());
        // Of stems on one pixel the highest is seen.
        double last = -1;
        double highest = getHeight() + 1;
        for (int note = TrackNotes.firstFrom(index, board.scale().from()); note < index.noteCount(); note++) {
            double x = Math.round(board.scale().xOfTick(index.start(note)));
            if (x > getWidth()) {
                break;
            }
            if (one.selected().get(note) == selected && !one.sheet().muted().get(note)) {
                int velocity = now == null || now[note] == 0 ? index.velocity(note) : now[note];
                double top = y(velocity);
                if (x != last || top < highest) {
                    g.fillRect(x, top, 3, getHeight() - top);
                    highest = top;
                    last = x;
                }
            }
        }
    }
}
