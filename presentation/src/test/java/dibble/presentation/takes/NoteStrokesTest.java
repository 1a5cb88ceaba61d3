package dibble.presentation.takes;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ShortMessage;
import dibble.presentation.TimeScale;
import dibble.recording.EventStore;
import dibble.recording.NoteSpans;
import dibble.time.TempoMap;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

class NoteStrokesTest {
    private static final double WIDTH = 800;
    private static final double HEIGHT = 46;

    private static NoteSpans notes(int count, long each) {
        EventStore log = new EventStore();
        Random random = new Random(5);
        for (int i = 0; i < count; i++) {
            int key = 30 + random.nextInt(60);
            log.add(i * each, 0, ShortMessage.noteOn(0, key, 80));
            log.add(i * each + each / 2, 0, ShortMessage.noteOff(0, key, 64));
        }
        NoteSpans spans = new NoteSpans(log, -1);
        spans.update();
        return spans;
    }

    private static NoteStrokes strokes(NoteSpans spans, TimeScale scale) {
        return NoteStrokes.of(spans, start -> true, NoteStrokes.keys(spans, new int[] {127, 0}), scale, 0, HEIGHT, 9);
    }

    private static Set<String> pixels(NoteStrokes strokes) {
        Set<String> pixels = new HashSet<>();
        for (int i = 0; i < strokes.size(); i++) {
            for (int x = (int) Math.ceil(strokes.left(i)); x <= strokes.right(i); x++) {
                pixels.add(x + " " + Math.round(strokes.middle(i)));
            }
        }
        return pixels;
    }

    @Test
    void fewNotesAreAllThere() {
        NoteSpans spans = notes(20, TimeUnit.SECONDS.toNanos(1));
        TimeScale scale = TimeScale.upTo(TimeUnit.SECONDS.toNanos(20), TempoMap.of(120), WIDTH);
        NoteStrokes strokes = strokes(spans, scale);
        assertThat(strokes.size()).isEqualTo(20);
        assertThat(strokes.left(3)).isEqualTo(scale.xOfNanos(spans.start(3)));
    }

    @Test
    void ofVeryManyNotesThereAreNoMoreStrokesThanPixelsAndTheSamePixelsAreCovered() {
        int count = 200_000;
        NoteSpans spans = notes(count, TimeUnit.MILLISECONDS.toNanos(30));
        TimeScale scale = TimeScale.upTo(count * TimeUnit.MILLISECONDS.toNanos(30), TempoMap.of(120), WIDTH);
        NoteStrokes strokes = strokes(spans, scale);
        assertThat(strokes.size()).isLessThan((int) (WIDTH * HEIGHT)).isGreaterThan(1000);
        // Every note would have covered the pixel where it begins.
        Set<String> covered = pixels(strokes);
        int[] keys = NoteStrokes.keys(spans, new int[] {127, 0});
        for (int i = 0; i < spans.size(); i += 997) {
            double room = HEIGHT - 18;
            double y = 9 + room * (1 - (spans.note(i) - keys[0]) / (double) (keys[1] - keys[0]));
            int x = (int) Math.ceil(scale.xOfNanos(spans.start(i)));
            assertThat(covered.contains(x + " " + Math.round(y)) || covered.contains(x + 1 + " " + Math.round(y)))
                    .as("note " + i)
                    .isTrue();
        }
    }
}
