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
import org.junit.jupiter.api.Tag;
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

    /** Two notes of one key that touch keep their lengths, whichever track has the first. */
    @Test
    void notesThatTouchOnTwoTracksKeepTheirLengths() {
        MidiTrack first = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .add(480, ShortMessage.noteOff(0, 60, 30))
                .build();
        MidiTrack second = new MidiTrack.Builder()
                .add(480, ShortMessage.noteOn(0, 60, 90))
                .add(960, ShortMessage.noteOff(0, 60, 40))
                .build();
        for (List<MidiTrack> order : List.of(List.of(first, second), List.of(second, first))) {
            Sorting sorted = Sorting.of(new MidiFile(1, 480, order), Sorting.How.by(Sorting.By.KEY));
            MidiTrack pile = sorted.piles().get(0).track();
            assertThat(java.util.stream.IntStream.range(0, pile.size())
                            .filter(pile::isChannelMessage)
                            .mapToObj(i -> pile.tick(i) + " " + ShortMessage.startsNote(pile.message(i)) + " "
                                    + ShortMessage.data2(pile.message(i))))
                    .containsExactly("0 true 80", "480 false 30", "480 true 90", "960 false 40");
        }
    }

    /** Notes of one key, none of which touch on a track. */
    private static MidiTrack player(Random random) {
        MidiTrack.Builder track = new MidiTrack.Builder();
        for (long tick = random.nextInt(4); tick < 60; tick += random.nextInt(4)) {
            track.add(tick, ShortMessage.noteOn(0, 60, 1 + random.nextInt(127)));
            tick += 1 + random.nextInt(8);
            track.add(tick, ShortMessage.noteOff(0, 60, 64));
        }
        return track.build(100);
    }

    private static String sounding(List<MidiTrack> tracks) {
        StringBuilder sounding = new StringBuilder();
        for (long tick = 0; tick < 100; tick++) {
            int held = 0;
            for (MidiTrack track : tracks) {
                boolean on = false;
                for (int i = 0; i < track.size() && track.tick(i) <= tick; i++) {
                    on = ShortMessage.isNote(track.message(i)) ? ShortMessage.startsNote(track.message(i)) : on;
                }
                held += on ? 1 : 0;
            }
            sounding.append(held > 0 ? '#' : '.');
        }
        return sounding.toString();
    }

    /** A key that several tracks hold is struck again by each, and sounds until all of them have released it. */
    @Property(tries = 300)
    void ofTracksThatOverlapEveryNoteIsStruckAndNothingSoundsLongerOrShorter(@ForAll long seed) {
        Random random = new Random(seed);
        List<MidiTrack> tracks = List.of(player(random), player(random), player(random));
        MidiTrack pile = Sorting.of(new MidiFile(1, 480, tracks), Sorting.How.by(Sorting.By.KEY))
                .piles()
                .get(0)
                .track();
        assertThat(notes(pile))
                .containsExactlyInAnyOrderElementsOf(
                        tracks.stream().flatMap(track -> notes(track).stream()).toList());
        assertThat(sounding(List.of(pile))).isEqualTo(sounding(tracks));
        boolean on = false;
        for (int i = 0; i < pile.size(); i++) {
            if (ShortMessage.isNote(pile.message(i))) {
                assertThat(ShortMessage.startsNote(pile.message(i))).isNotEqualTo(on);
                on = !on;
            }
        }
        assertThat(on).isFalse();
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

    private static MidiFile withTexts() {
        MidiTrack song = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Song")
                .meta(0, MidiTrack.META_TEMPO, new byte[] {7, 0, 0})
                .meta(0, MidiTrack.META_KEY, new byte[] {2, 0})
                .text(0, 0x05, "la")
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .exclusive(5, 0xF0, new byte[] {0x7D, (byte) 0xF7})
                .add(10, ShortMessage.noteOff(0, 60, 64))
                .add(10, ShortMessage.noteOn(0, 62, 80))
                .meta(12, 0x7F, new byte[] {1, 2})
                .build(40);
        MidiTrack texts = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Words")
                .text(3, MidiTrack.META_TEXT, "slowly")
                .text(4, MidiTrack.META_CUE, "curtain")
                .build();
        return new MidiFile(1, 480, List.of(song, texts));
    }

    @Test
    void whatIsNoChannelMessageStaysWithItsTrackOrByItself() {
        MidiFile byTrack =
                Sorting.of(withTexts(), Sorting.How.by(Sorting.By.TRACK)).file(withTexts());
        assertThat(byTrack.tracks())
                .extracting(track -> track.name().orElse(""))
                .containsExactly("", "Song", "Words, other events");
        MidiTrack conductor = byTrack.tracks().get(0);
        assertThat(List.of(conductor.metaType(0), conductor.metaType(1), conductor.metaType(2)))
                .containsExactly(MidiTrack.META_TEMPO, MidiTrack.META_KEY, MidiTrack.META_CUE);
        MidiTrack song = byTrack.tracks().get(1);
        assertThat(song.text(1)).isEqualTo("la");
        assertThat(song.status(3)).isEqualTo(0xF0);
        MidiFile byKey = Sorting.of(withTexts(), Sorting.How.by(Sorting.By.KEY)).file(withTexts());
        assertThat(byKey.tracks())
                .extracting(track -> track.name().orElse(""))
                .containsExactly("", "C4 60", "D4 62", "Song, other events", "Words, other events");
        assertThat(byKey.tracks().get(3).size()).isEqualTo(4);
    }

    @Test
    void aNoteWithoutAnOffLastsToTheEndOfItsTrack() {
        MidiTrack shorter =
                new MidiTrack.Builder().add(0, ShortMessage.noteOn(0, 60, 80)).build(30);
        MidiTrack longer = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 62, 90))
                .add(50, ShortMessage.controller(0, 64, 0))
                .build(99);
        MidiFile file = new MidiFile(1, 480, List.of(shorter, longer));
        for (Sorting.By by : Sorting.By.values()) {
            Map<Long, Integer> offs = new java.util.TreeMap<>();
            for (Sorting.Pile pile : Sorting.of(file, Sorting.How.by(by)).piles()) {
                for (int i = 0; i < pile.track().size(); i++) {
                    if (pile.track().isChannelMessage(i)
                            && ShortMessage.endsNote(pile.track().message(i))) {
                        offs.merge(pile.track().tick(i), 1, Integer::sum);
                    }
                }
            }
            assertThat(offs).as(by.word()).isEqualTo(Map.of(30L, 1, 99L, 1));
        }
    }

    @Tag("slow")
    @Test
    void asManyTracksAsAFileCanHaveAreSorted() {
        List<MidiTrack> many = new ArrayList<>();
        for (int i = 0; i < 65_534; i++) {
            many.add(new MidiTrack.Builder()
                    .add(0, ShortMessage.noteOn(i % 16, 60, 80))
                    .add(1, ShortMessage.controller(i % 16, 64, 5))
                    .add(2, ShortMessage.noteOff(i % 16, 60, 64))
                    .build());
        }
        MidiFile file = new MidiFile(1, 480, many);
        MidiFile sorted = Sorting.of(file, Sorting.How.by(Sorting.By.TRACK)).file(file);
        assertThat(sorted.tracks()).hasSize(65_535);
        assertThat(sorted.tracks().get(65_534).size()).isEqualTo(4);
        MidiFile byKey = Sorting.of(file, Sorting.How.by(Sorting.By.KEY)).file(file);
        assertThat(byKey.tracks()).hasSize(2);
    }

    /** One chord of thousands of notes, and notes that are never let go. */
    @Test
    void handsAreToldApartWhateverIsHeld() {
        MidiTrack.Builder chord = new MidiTrack.Builder();
        MidiTrack.Builder held = new MidiTrack.Builder();
        for (int i = 0; i < 5_000; i++) {
            chord.add(0, ShortMessage.noteOn(i % 16, i / 16 % 128, 80));
            held.add(i * 40L, ShortMessage.noteOn(i % 16, i * 7 / 16 % 128, 80));
        }
        for (MidiTrack track : List.of(chord.build(), held.build())) {
            List<Sorting.Pile> piles =
                    Sorting.of(track, Sorting.How.by(Sorting.By.HAND)).piles();
            assertThat(piles.stream().mapToInt(Sorting.Pile::notes).sum()).isEqualTo(5_000);
        }
    }
}
