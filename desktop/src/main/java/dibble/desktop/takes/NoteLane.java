package dibble.desktop.takes;

import dibble.presentation.TimeScale;
import dibble.presentation.takes.NoteStrokes;
import dibble.recording.NoteSpans;
import dibble.system.AsyncValue;
import dibble.system.Workers;
import java.util.List;
import java.util.function.LongPredicate;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;

/** The notes of one track or source on the time scale, as thin strokes. Where there are very many they come later. */
final class NoteLane extends Pane {
    /** As many notes as are laid out within a frame. */
    private static final int AT_ONCE = 10_000;

    /** Notes that are not seen are gone through so much quicker. */
    private static final double AWAY = 20;

    private final Canvas canvas = new Canvas();
    private final double inset;
    private Picture shown;
    private double laidWidth;
    private double laidHeight;
    private List<NoteStrokes> strokes = List.of();
    private AsyncValue<List<NoteStrokes>> coming;

    NoteLane(double inset) {
        this.inset = inset;
        getChildren().add(canvas);
        getStyleClass().add("note-lane");
        setMinWidth(0);
    }

    /**
     * Some of the notes of a track or source, in nanoseconds of the scale.
     *
     * @param size how many there are: what fills while it is played gets more
     * @param from only those that begin at or after this, in nanoseconds
     * @param before of the others only those that begin before this
     */
    record Notes(NoteSpans spans, int size, long before, long from) {
        static Notes all(NoteSpans spans) {
            return new Notes(spans, spans.size(), Long.MAX_VALUE, Long.MAX_VALUE);
        }

        /** Returns the approximate number of visible notes; the others take almost no time. */
        private double seen(TimeScale scale) {
            if (size == 0) {
                return 0;
            }
            double length = Math.max(1, scale.tempo().ticks(spans.start(size - 1)));
            return size * Math.min(1, scale.ticks() / length) + size / AWAY;
        }

        private LongPredicate shown() {
            return start -> start < before || start >= from;
        }
    }

    /**
     * The drawing.
     *
     * @param begins the start of the filled background, in nanoseconds
     * @param now the end of sounding notes and of the filled background, in nanoseconds
     * @param bed the color of the background, or null for none
     */
    record Picture(List<Notes> notes, long begins, TimeScale scale, long now, Color colour, Color bed, Color lines) {}

    /** Shows notes; redrawn only after a change. */
    void show(Picture next) {
        if (!next.equals(shown) || laidWidth != getWidth() || laidHeight != getHeight()) {
            shown = next;
            layOut();
        }
    }

    @Override
    protected void layoutChildren() {
        if (shown != null && (laidWidth != getWidth() || laidHeight != getHeight())) {
            layOut();
        }
    }

    private void layOut() {
        laidWidth = getWidth();
        laidHeight = getHeight();
        Picture picture = shown;
        double height = laidHeight;
        double size = picture.notes.stream()
                .mapToDouble(some -> some.seen(picture.scale))
                .sum();
        if (size <= AT_ONCE) {
            coming = null;
            strokes = strokes(picture, height);
            paint();
        } else {
            coming = AsyncValue.compute(Workers.shared().computing(), () -> strokes(picture, height));
        }
    }

    private List<NoteStrokes> strokes(Picture picture, double height) {
        int[] keys = {127, 0};
        for (Notes some : picture.notes) {
            keys = NoteStrokes.keys(some.spans, keys);
        }
        int[] all = keys;
        return picture.notes.stream()
                .map(some -> NoteStrokes.of(some.spans, some.shown(), all, picture.scale, picture.now, height, inset))
                .toList();
    }

    /** Returns true if notes are still to come. */
    boolean isWorking() {
        return coming != null;
    }

    /** Draws new notes. */
    void follow() {
        if (coming != null && coming.isDone()) {
            strokes = coming.value().orElse(List.of());
            coming = null;
            paint();
        }
    }

    private void paint() {
        canvas.setWidth(laidWidth);
        canvas.setHeight(laidHeight);
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, laidWidth, laidHeight);
        TimeScale scale = shown.scale;
        if (shown.bed != null && shown.now > 0) {
            g.setFill(shown.bed);
            double from = scale.xOfNanos(shown.begins);
            g.fillRoundRect(from, 3, Math.max(3, scale.xOfNanos(shown.now) - from), laidHeight - 6, 6, 6);
            g.setFill(shown.colour);
            g.fillRect(from, 3, 3, laidHeight - 6);
        }
        g.setFill(shown.lines);
        scale.eachBar(bar -> g.fillRect(Math.round(scale.xOfTick(scale.tempo().barStart(bar))), 0, 1, laidHeight));
        g.setFill(shown.colour);
        double thick = Math.max(1.5, Math.min(3, (laidHeight - 2 * inset) / 12));
        for (NoteStrokes some : strokes) {
            for (int i = 0; i < some.size(); i++) {
                g.fillRect(some.left(i), some.middle(i) - thick / 2, some.right(i) - some.left(i), thick);
            }
        }
    }
}
