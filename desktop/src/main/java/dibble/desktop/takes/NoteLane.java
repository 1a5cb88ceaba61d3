package dibble.desktop.takes;

import dibble.recording.NoteSpans;
import java.util.List;
import java.util.function.LongPredicate;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;

/** The notes of one track or source on the time scale, as thin strokes. */
final class NoteLane extends Pane {
    private final Canvas canvas = new Canvas();
    private final double inset;
    private Runnable paint = () -> {};

    NoteLane(double inset) {
        this.inset = inset;
        getChildren().add(canvas);
        getStyleClass().add("note-lane");
        setMinWidth(0);
    }

    /**
     * Some of the notes of a track or source, in nanoseconds of the scale.
     *
     * @param shown which of them are drawn, by where they begin
     */
    record Notes(NoteSpans spans, LongPredicate shown) {
        static Notes all(NoteSpans spans) {
            return new Notes(spans, start -> true);
        }
    }

    /**
     * Draws notes.
     *
     * @param begins where the filled bed begins, in nanoseconds
     * @param now the end of notes that still sound, and of the filled bed, in nanoseconds; the bed is left out where
     *     {@code bed} is null
     */
    void draw(List<Notes> notes, long begins, TimeScale scale, long now, Color colour, Color bed, Color lines) {
        paint = () -> paint(notes, begins, scale, now, colour, bed, lines);
        paint.run();
    }

    @Override
    protected void layoutChildren() {
        if (canvas.getWidth() != getWidth() || canvas.getHeight() != getHeight()) {
            paint.run();
        }
    }

    private void paint(
            List<Notes> notes, long begins, TimeScale scale, long now, Color colour, Color bed, Color lines) {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        GraphicsContext g = canvas.getGraphicsContext2D();
        double height = getHeight();
        g.clearRect(0, 0, getWidth(), height);
        if (bed != null && now > 0) {
            g.setFill(bed);
            double from = scale.xOfNanos(begins);
            g.fillRoundRect(from, 3, Math.max(3, scale.xOfNanos(now) - from), height - 6, 6, 6);
            g.setFill(colour);
            g.fillRect(from, 3, 3, height - 6);
        }
        g.setFill(lines);
        int step = scale.barStep();
        for (long bar = 1; bar <= scale.bars(); bar += step) {
            g.fillRect(Math.round(scale.xOfTick(scale.tempo().barStart(bar))), 0, 1, height);
        }
        int low = 127;
        int high = 0;
        for (Notes some : notes) {
            for (int i = 0; i < some.spans.size(); i++) {
                low = Math.min(low, some.spans.note(i));
                high = Math.max(high, some.spans.note(i));
            }
        }
        g.setFill(colour);
        for (Notes some : notes) {
            paint(g, some, low, high, scale, now);
        }
    }

    private void paint(GraphicsContext g, Notes notes, int low, int high, TimeScale scale, long now) {
        double room = getHeight() - 2 * inset;
        double thick = Math.max(1.5, Math.min(3, room / 12));
        int range = Math.max(12, high - low);
        NoteSpans spans = notes.spans;
        for (int i = 0; i < spans.size(); i++) {
            long start = spans.start(i);
            if (notes.shown.test(start)) {
                double x = scale.xOfNanos(start);
                long over = spans.end(i) == NoteSpans.OPEN ? now : spans.end(i);
                double end = scale.xOfNanos(Math.max(start, over));
                double y = inset + room * (1 - (spans.note(i) - low + (range - (high - low)) / 2.0) / range);
                g.fillRect(x, y - thick / 2, Math.max(2, end - x - 1), thick);
            }
        }
    }
}
