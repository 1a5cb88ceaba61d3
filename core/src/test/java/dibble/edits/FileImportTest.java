package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.recording.TrackExport;
import dibble.recording.TrackVoice;
import dibble.routing.Routing;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.Marker;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Files out and in again: the same notes. */
class FileImportTest {
    private final Session demo = LamplightersRound.session();

    private Session recorded() {
        Random random = new Random(4);
        EventStore log = new EventStore();
        for (int i = 0; i < 300; i++) {
            int key = 40 + random.nextInt(40);
            log.add(i * 40_000_000L, 0, ShortMessage.noteOn(0, key, 1 + random.nextInt(127)));
            log.add(i * 40_000_000L + 30_000_000L, 0, ShortMessage.noteOff(0, key, 64));
        }
        Routing routing = demo.routing(Performance.NEW);
        Take take = new Take(
                "take-1",
                "Take 1",
                List.of("larkspur"),
                log,
                List.of(new Take.Mark(0, 0, routing)),
                demo.tempo(),
                12_000_000_000L,
                0);
        Session with = TrackEdits.addTrack(demo, "all", "All of Larkspur", new Track.OfSource("larkspur"));
        return TakeEdits.keep(with, Performance.NEW.withArmed("all", true), take);
    }

    private static List<String> notes(MidiTrack track) {
        List<String> notes = new ArrayList<>();
        for (int i = 0; i < track.size(); i++) {
            if (track.isChannelMessage(i) && ShortMessage.isNote(track.message(i))) {
                notes.add(track.tick(i) + " " + track.message(i));
            }
        }
        return notes;
    }

    @Test
    void whatIsExportedComesBackWithTheSameNotes() throws Exception {
        Session session = recorded();
        Routing routing = session.routing(Performance.NEW);
        MidiFile file = MidiFileReader.read(MidiFileWriter.write(
                TrackExport.type1("n", session.tempo(), session.markers(), session.tracks(), routing)));
        List<MidiTrack> parts = file.tracks().subList(1, file.tracks().size());
        List<String> names = List.of(
                "All of Larkspur, Celesta",
                "All of Larkspur, Upright bass",
                "All of Larkspur, Glass bowls",
                "Celesta",
                "Upright bass",
                "Glass bowls");
        assertThat(parts).extracting(track -> track.name().orElse("")).containsExactlyElementsOf(names);
        List<TrackVoice> voices = session.tracks().stream()
                .flatMap(track -> TrackVoice.of(track).stream())
                .toList();
        for (int i = 0; i < voices.size(); i++) {
            assertThat(notes(parts.get(i))).isEqualTo(notes(voices.get(i).clip()));
        }
        // One source's track has the same notes as the tracks of the parts that it played.
        assertThat(parts.subList(0, 3))
                .extracting(FileImportTest::notes)
                .containsExactlyElementsOf(
                        parts.subList(3, 6).stream().map(FileImportTest::notes).toList());
        MidiTrack celesta = parts.get(3);
        assertThat(celesta.isMeta(1, MidiTrack.META_INSTRUMENT)).isTrue();
        assertThat(celesta.text(1)).isEqualTo("Sorrel / Celesta");
        assertThat(celesta.text(2)).isEqualTo("stand-in:sorrel");
        assertThat(ShortMessage.data1(celesta.message(3))).isEqualTo(8);
        // A single track, and a file for each, have the same notes too.
        MidiFile one = TrackExport.type0("n", session.tempo(), session.markers(), session.tracks(), routing);
        assertThat(one.tracks()).hasSize(1);
        assertThat(notes(one.tracks().get(0)))
                .hasSameSizeAs(
                        parts.stream().flatMap(track -> notes(track).stream()).toList());
        Map<String, MidiFile> files =
                TrackExport.files("n", session.tempo(), session.markers(), session.tracks(), routing);
        assertThat(files.keySet())
                .containsExactlyElementsOf(
                        names.stream().map(name -> name.replace(",", "")).toList());
    }

    @Test
    void theNamesOfPlacesComeWithTheFile() {
        MidiTrack track = new MidiTrack.Builder()
                .text(0, MidiTrack.META_MARKER, "Verse")
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .text(480, MidiTrack.META_MARKER, "Refrain")
                .add(480, ShortMessage.noteOff(0, 60, 64))
                .build();
        FileImport read = FileImport.of(demo, new MidiFile(0, 240, List.of(track)), "Old tape");
        Session with = read.into(demo, Performance.NEW, FileImport.Tempo.OF_THE_SESSION);
        assertThat(with.markers()).containsExactly(new Marker(0, "Verse"), new Marker(1920, "Refrain"));
        FileImport again = FileImport.of(with, new MidiFile(0, 240, List.of(track)), "Old tape");
        assertThat(again.into(with, Performance.NEW, FileImport.Tempo.OF_THE_SESSION)
                        .markers())
                .hasSize(2);
    }

    @Test
    void aFilesChannelsAreLanesThatRunThroughZones() {
        MidiTrack first = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Tune")
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .add(480, ShortMessage.noteOff(0, 60, 64))
                .build();
        MidiTrack second = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Bass")
                .meta(0, MidiTrack.META_TEMPO, new byte[] {7, (byte) 0xA1, 0x20})
                .add(240, ShortMessage.noteOn(0, 40, 80))
                .add(480, ShortMessage.noteOff(0, 40, 64))
                .build();
        FileImport read = FileImport.of(demo, new MidiFile(1, 480, List.of(first, second)), "Old tape");
        assertThat(read.source().lanes())
                .containsExactly(new SequencerLane("Tune, channel 1", 1), new SequencerLane("Bass, channel 1", 2));
        assertThat(read.take().log().stamp(1)).isEqualTo(250_000_000L);
        assertThat(ShortMessage.channel(read.take().log().message(1))).isEqualTo(1);
        assertThat(read.shared()).isZero();
        PartRef upright = new PartRef("sorrel", "upright");
        Session in = read.into(demo, Performance.NEW, FileImport.Tempo.OF_THE_FILE);
        assertThat(in.tempo().bpm(0)).isEqualTo(120);
        assertThat(in.takes()).hasSize(1);
        Zone zone = Zone.of("bass", "", "old-tape", Range.ALL, upright)
                .with()
                .channels(dibble.midi.ChannelSet.of(2))
                .build();
        Session routed = TakeEdits.routeAgain(ZoneEdits.addZone(in, zone, null), Performance.NEW, "take-1");
        assertThat(routed.trackOf(upright).orElseThrow().noteCount()).isEqualTo(1);
    }

    @Test
    void tracksOfType2FollowEachOtherAndOneTrackIsTakenApart() {
        MidiTrack piece = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(3, 60, 80))
                .add(480, ShortMessage.noteOff(3, 60, 64))
                .build();
        FileImport two = FileImport.of(demo, new MidiFile(2, 480, List.of(piece, piece)), "Pieces");
        assertThat(two.take().log().stamp(2)).isEqualTo(500_000_000L);
        MidiTrack mixed = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(3, 60, 80))
                .add(0, ShortMessage.noteOn(9, 36, 80))
                .build();
        FileImport zero = FileImport.of(demo, new MidiFile(0, 480, List.of(mixed)), "Mixed");
        assertThat(zero.source().lanes()).extracting(SequencerLane::channel).containsExactly(4, 10);
        // An unended note ends at the end of the file.
        Session in = zero.into(demo, Performance.NEW, FileImport.Tempo.OF_THE_FILE);
        assertThat(in.takes().get(0).log().size()).isEqualTo(4);
        assertThat(in.tempo()).as("a file without tempo changes nothing").isEqualTo(demo.tempo());
        assertThat(zero.hasTempo()).isFalse();
    }

    @Test
    void notesLieOnTheBarsOfTheFileWhateverTheTempoOfTheSession() {
        MidiTrack conductor = new MidiTrack.Builder()
                .meta(0, MidiTrack.META_TEMPO, new byte[] {0x0F, 0x42, 0x40})
                .build();
        MidiTrack.Builder notes = new MidiTrack.Builder().text(0, MidiTrack.META_TRACK_NAME, "Bells");
        for (int bar = 0; bar < 8; bar++) {
            notes.add(bar * 4 * 480L, ShortMessage.noteOn(0, 60 + bar, 80));
            notes.add(bar * 4 * 480L + 240, ShortMessage.noteOff(0, 60 + bar, 64));
        }
        MidiFile file = new MidiFile(1, 480, List.of(conductor, notes.build()));
        // It has a take already, and so keeps its own tempo.
        Session session = TakeEdits.keep(
                        demo,
                        Performance.NEW,
                        FileImport.of(demo, file, "First").take())
                .withTempo(dibble.time.TempoMap.of(173));
        FileImport in = FileImport.of(session, file, "Bells");
        Session with = in.into(session, Performance.NEW, FileImport.Tempo.OF_THE_SESSION);
        assertThat(with.tempo().bpm(0)).isEqualTo(173);
        Take take = with.takes().get(1);
        assertThat(take.tempo().bpm(0)).isEqualTo(60);
        for (int bar = 0; bar < 8; bar++) {
            assertThat(take.tick(take.log().stamp(bar * 2))).isEqualTo(bar * 3840L);
        }
    }
}
