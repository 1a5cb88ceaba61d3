package dibble.desktop.notes;

import dibble.desktop.ui.Palette;
import dibble.midi.MidiTrack;
import dibble.recording.ValueLane;
import dibble.routing.ControlKind;
import javafx.geometry.VPos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/** The values of a controller, wheel, pressure or program over time, as steps. */
final class LaneArea extends Pane {
    static final double HEIGHT = 46;
    private static final double AIR = 5;
    private static final Font FONT = Font.font("Dibble Sans", 12);

    private final Canvas canvas = new Canvas();
    private final NotesDrawing board;
    private final ValueLane lane;

    LaneArea(NotesDrawing board, ValueLane lane, String name) {
        this.board = board;
        this.lane = lane;
        setMinSize(0, HEIGHT);
        setPrefHeight(HEIGHT);
        setMaxHeight(HEIGHT);
        setAccessibleText(name);
        getChildren().add(canvas);
    }

    private double y(int value) {
        return AIR + (HEIGHT - 2 * AIR) * (1 - value / (double) lane.kind().most());
    }

    /** Returns true if a value stands until the next: others are single events. */
    private boolean stands() {
        return lane.kind() != ControlKind.KEY_PRESSURE && lane.kind() != ControlKind.PROGRAM_CHANGE;
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
        g.fillRect(0, Math.round(y(lane.rest())), getWidth(), 1);
        g.setFont(FONT);
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.CENTER);
        for (VisibleTrack one : board.shown()) {
            g.setFill(one.colour());
            g.setStroke(one.colour());
            g.setLineWidth(2);
            if (stands()) {
                steps(g, one.sheet().hand().whole());
            } else {
                events(g, one.sheet().hand().whole());
            }
        }
    }

    private void steps(GraphicsContext g, MidiTrack clip) {
        double lastX = 0;
        double lastY = y(lane.rest());
        int column = Integer.MIN_VALUE;
        ValueLane.Reader reader = lane.reader();
        for (int i = 0; i < clip.size(); i++) {
            int value = clip.isChannelMessage(i) ? reader.value(clip.message(i)) : ValueLane.NOTHING;
            if (value == ValueLane.NOTHING) {
                continue;
            }
            double x = board.scale().xOfTick(clip.tick(i));
            double y = y(value);
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
        ValueLane.Reader reader = lane.reader();
        for (int i = 0; i < clip.size(); i++) {
            int value = clip.isChannelMessage(i) ? reader.value(clip.message(i)) : ValueLane.NOTHING;
            boolean seen = value != ValueLane.NOTHING
                    && clip.tick(i) >= board.scale().from()
                    && clip.tick(i) <= board.scale().to();
            if (!seen) {
                continue;
            }
            double x = board.scale().xOfTick(clip.tick(i));
            if (lane.kind() == ControlKind.PROGRAM_CHANGE) {
                g.fillRect(x, AIR, 2, HEIGHT - 2 * AIR);
                g.fillText(String.valueOf(value + 1), x + 6, HEIGHT / 2);
            } else {
                double y = y(value);
                g.fillRect(x, y, 2, HEIGHT - AIR - y);
            }
        }
    }
}
