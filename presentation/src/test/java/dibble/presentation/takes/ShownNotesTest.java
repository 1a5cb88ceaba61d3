package dibble.presentation.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.presentation.TimeScale;
import dibble.recording.EventStore;
import dibble.recording.NoteSpans;
import dibble.recording.Regions;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.time.TempoMap;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** Notes lie on their bars, whatever the tempo has become since. */
class ShownNotesTest {
    private static final long BAR = 4L * TempoMap.PPQ;

    private TempoMap tempo = TempoMap.of(120);
    private final ShownNotes notes = new ShownNotes(() -> tempo);

    private double barsIn(NoteSpans spans, int note) {
        TimeScale scale = TimeScale.upTo(TimeUnit.SECONDS.toNanos(20), tempo, 1600);
        return scale.xOfNanos(spans.start(note)) / scale.xOfTick(BAR);
    }

    private static Track track() {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (int bar = 0; bar < 4; bar++) {
            clip.add(bar * BAR, ShortMessage.noteOn(0, 60 + bar, 80));
            clip.add(bar * BAR + 100, ShortMessage.noteOff(0, 60 + bar, 64));
        }
        return Track.of("celesta", "Celesta", new Track.OfPart(new PartRef("sorrel", "celesta")))
                .withRegions(Regions.own(clip.build()));
    }

    private static Take take() {
        EventStore log = new EventStore();
        for (int bar = 0; bar < 4; bar++) {
            // Two seconds a bar, as it was recorded.
            long at = TimeUnit.SECONDS.toNanos(2L * bar);
            log.add(at, 0, ShortMessage.noteOn(0, 60 + bar, 80));
            log.add(at + 1000, 0, ShortMessage.noteOff(0, 60 + bar, 64));
        }
        return new Take(
                "take-1",
                "Take 1",
                List.of("larkspur"),
                log,
                List.of(),
                TempoMap.of(120),
                TimeUnit.SECONDS.toNanos(8),
                0);
    }

    @Test
    void printedNotesStayOnTheirBarsAfterATempoChange() {
        Track track = track();
        for (TempoMap other : List.of(TempoMap.of(120), TempoMap.of(60), TempoMap.of(93.7))) {
            tempo = other;
            for (int bar = 0; bar < 4; bar++) {
                assertThat(barsIn(notes.of(track).orElseThrow(), bar)).isCloseTo(bar, within(0.01));
            }
        }
    }

    @Test
    void soDoesWhatWasPlayed() {
        Take take = take();
        for (TempoMap other : List.of(TempoMap.of(120), TempoMap.of(60), TempoMap.of(93.7))) {
            tempo = other;
            for (int bar = 0; bar < 4; bar++) {
                assertThat(barsIn(notes.of(take, "larkspur").orElseThrow(), bar))
                        .isCloseTo(bar, within(0.01));
            }
        }
        assertThat(notes.of(take, "nobody")).isEmpty();
    }
}
