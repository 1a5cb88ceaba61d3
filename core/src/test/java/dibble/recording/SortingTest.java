package dibble.recording;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.midi.GeneralMidi;
import dibble.midi.MiddleC;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Recorded notes sorted into tracks: nothing is lost, nothing is doubled. */
class SortingTest {
    private static MidiTrack random(Random random) {
        MidiTrack.Builder track = new MidiTrack.Builder();
        for (int i = 0; i < 300; i++) {
            int channel = random.nextInt(4);
            int key = 50 + random.nextInt(20);
            track.add(
                    i * 10L,
                    switch (random.nextInt(6)) {
                        case 0 -> ShortMessage.controller(channel, 64, random.nextInt(128));
                        case 1 -> ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, random.nextInt(128));
                        case 2, 3 -> ShortMessage.noteOff(channel, key, 64);
                        default -> ShortMessage.noteOn(channel, key, 1 + random.nextInt(127));
                    });
        }
        return track.build(4000);
    }

    private static List<String> notes(MidiTrack track) {
        List<String> notes = new ArrayList<>();
        for (int i = 0; i < track.size(); i++) {
            if (track.isChannelMessage(i) && ShortMessage.startsNote(track.message(i))) {
                notes.add(track.tick(i) + " " + track.message(i));
            }
        }
        return notes;
    }

    @Property(tries = 60)
    void everyNoteIsOnOneTrackAndEveryTrackHasThePedalsOfItsChannels(@ForAll long seed) {
        MidiTrack track = random(new Random(seed));
        for (Sorting.By by : Sorting.By.values()) {
            Sorting sorting = Sorting.of(track, Sorting.How.by(by));
            List<String> all = new ArrayList<>();
            for (Sorting.Pile pile : sorting.piles()) {
                all.addAll(notes(pile.track()));
                assertThat(pile.track().endTick()).isEqualTo(track.endTick());
                boolean[] has = new boolean[16];
                for (int i = 0; i < pile.track().size(); i++) {
                    has[ShortMessage.channel(pile.track().message(i))] |=
                            ShortMessage.startsNote(pile.track().message(i));
                }
                for (int channel = 0; channel < 16; channel++) {
                    int c = channel;
                    if (has[channel]) {
                        assertThat(withoutKeys(pile.track(), c)).isEqualTo(withoutKeys(track, c));
                    }
                }
            }
            assertThat(all).as(by.word()).containsExactlyInAnyOrderElementsOf(notes(track));
        }
    }

    private static List<String> withoutKeys(MidiTrack track, int channel) {
        List<String> events = new ArrayList<>();
        for (int i = 0; i < track.size(); i++) {
            if (ShortMessage.channel(track.message(i)) == channel && !ShortMessage.isNote(track.message(i))) {
                events.add(track.tick(i) + " " + track.message(i));
            }
        }
        return events;
    }

    private static MidiTrack played(int... keys) {
        MidiTrack.Builder track = new MidiTrack.Builder();
        for (int i = 0; i < keys.length; i++) {
            track.add(i * 100L, ShortMessage.noteOn(9, keys[i], 80))
                    .add(i * 100L + 50, ShortMessage.noteOff(9, keys[i], 64));
        }
        return track.build();
    }

    @Test
    void pilesAreNamed() {
        MidiTrack drums = played(36, 38, 36, 42);
        assertThat(Sorting.of(drums, new Sorting.How(Sorting.By.KEY, List.of(), GeneralMidi.percussion(), MiddleC.C4))
                        .piles())
                .extracting(Sorting.Pile::name, Sorting.Pile::notes)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("Bass drum 1 36", 2),
                        org.assertj.core.groups.Tuple.tuple("Acoustic snare 38", 1),
                        org.assertj.core.groups.Tuple.tuple("Closed hi-hat 42", 1));
        assertThat(Sorting.of(drums, new Sorting.How(Sorting.By.RANGE, List.of(38, 40), Map.of(), MiddleC.C4))
                        .piles())
                .extracting(Sorting.Pile::name)
                .containsExactly("C-1–C♯2", "D2–D♯2", "E2–G9");
        assertThat(Sorting.of(drums, Sorting.How.by(Sorting.By.CHANNEL_AND_KEY))
                        .piles()
                        .get(0)
                        .name())
                .isEqualTo("Channel 10, C2 36");
        assertThatThrownBy(() -> new Sorting.How(Sorting.By.RANGE, List.of(40, 40), Map.of(), MiddleC.C4))
                .hasMessageContaining("expected 1 to 127, each higher");
    }

    @Test
    void onePlayerWithAChannelForEachNoteIsNotTakenApartUnwarned() {
        MidiTrack.Builder rotating = new MidiTrack.Builder();
        for (int i = 0; i < 40; i++) {
            rotating.add(i * 100L, ShortMessage.noteOn(1 + i % 8, 60 + i % 12, 80))
                    .add(i * 100L + 90, ShortMessage.noteOff(1 + i % 8, 60 + i % 12, 64));
        }
        assertThat(Sorting.of(rotating.build(), Sorting.How.by(Sorting.By.CHANNEL))
                        .warning())
                .isNotEmpty();
        assertThat(Sorting.of(rotating.build(), Sorting.How.by(Sorting.By.KEY)).warning())
                .isEmpty();
        assertThat(Sorting.of(played(60, 62, 64), Sorting.How.by(Sorting.By.CHANNEL))
                        .warning())
                .isEmpty();
    }

    @Test
    void aFileKeepsItsTempoAndItsTracksNames() {
        MidiTrack tempo = new MidiTrack.Builder()
                .meta(0, MidiTrack.META_TEMPO, new byte[] {7, (byte) 0xA1, 0x20})
                .text(480, MidiTrack.META_MARKER, "B")
                .build();
        MidiTrack one = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Pads")
                .add(0, ShortMessage.noteOn(9, 36, 80))
                .add(10, ShortMessage.noteOff(9, 36, 64))
                .build();
        MidiFile file = new MidiFile(1, 480, List.of(tempo, one));
        MidiFile sorted = Sorting.of(file, Sorting.How.by(Sorting.By.TRACK)).file(file);
        assertThat(sorted.tracks()).hasSize(2);
        assertThat(sorted.tracks().get(0).size()).isEqualTo(2);
        assertThat(sorted.tracks().get(1).name()).contains("Pads");
        assertThat(sorted.division()).isEqualTo(480);
    }

    @Test
    void aNoteThatTheNextOneOfAnotherPileEndsHasItsOff() {
        MidiTrack track = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 48, 80))
                .add(0, ShortMessage.noteOn(0, 72, 80))
                .add(960, ShortMessage.noteOff(0, 48, 64))
                .add(1000, ShortMessage.noteOn(0, 72, 90))
                .add(2000, ShortMessage.noteOff(0, 72, 64))
                .build();
        for (Sorting.By by : List.of(Sorting.By.HAND, Sorting.By.KEY, Sorting.By.RANGE)) {
            for (Sorting.Pile pile : Sorting.of(track, Sorting.How.by(by)).piles()) {
                ClipIndex notes = ClipIndex.of(pile.track());
                for (int note = 0; note < notes.noteCount(); note++) {
                    boolean last = note == notes.noteCount() - 1;
                    assertThat(notes.off(note) != ClipIndex.NONE || !last).isTrue();
                }
            }
        }
    }
}
