package dibble.disk;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dibble.edits.TakeEdits;
import dibble.files.SessionContent;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.Region;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Session;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Sessions of all earlier versions open with what they have, and can be saved as they are. */
class EarlierSessionsTest {
    private static final int VERSIONS = 17;

    @TempDir
    private Path folder;

    private Path file(String name) throws IOException {
        Path file = folder.resolve(name.replace('/', '-') + ".dibble");
        try (InputStream in = getClass().getResourceAsStream(name + ".dibble")) {
            Files.copy(in, file);
        }
        return file;
    }

    /** The demo session as each version of the format wrote it, the latest last; one more for each change of the schema. */
    static IntStream versions() {
        return IntStream.rangeClosed(1, VERSIONS);
    }

    private static List<String> notes(MidiTrack track) {
        return IntStream.range(0, track.size())
                .filter(i -> ShortMessage.startsNote(track.message(i)))
                .mapToObj(i -> track.tick(i) + " " + ShortMessage.data1(track.message(i)) + " "
                        + ShortMessage.data2(track.message(i)))
                .sorted()
                .toList();
    }

    @ParameterizedTest
    @MethodSource("versions")
    void everyVersionOpensWithAllThatIsInItAndSoundsAsItsTracksDo(int version) throws IOException {
        Path file = file("earlier/%02d".formatted(version));
        SessionContent opened = SessionFile.read(file);
        Session session = opened.session();
        try (ZipFile zip = new ZipFile(file.toFile())) {
            JsonNode json = new ObjectMapper().readTree(zip.getInputStream(zip.getEntry("session.json")));
            assertThat(session.name()).isEqualTo(json.get("name").asText());
            assertThat(session.sources()).hasSize(json.path("sources").size());
            assertThat(session.instruments()).hasSize(json.path("instruments").size());
            assertThat(session.zones()).hasSize(json.path("zones").size());
            assertThat(session.controls()).hasSize(json.path("controls").size());
            assertThat(session.scenes()).hasSize(json.path("scenes").size());
            assertThat(session.takes()).hasSize(json.path("takes").size()).isNotEmpty();
            assertThat(session.tracks()).hasSize(json.path("tracks").size()).isNotEmpty();
            for (Track track : session.tracks()) {
                List<String> inFile = MidiFileReader.read(
                                zip.getInputStream(zip.getEntry("tracks/" + track.id() + ".mid"))
                                        .readAllBytes())
                        .tracks()
                        .stream()
                        .flatMap(it -> notes(it).stream())
                        .sorted()
                        .toList();
                assertThat(notes(track.sounding())).as(track.name()).isEqualTo(inFile);
            }
        }
        assertThat(session.tracks().stream().mapToInt(Track::noteCount).sum()).isPositive();
        Path saved = folder.resolve("again.dibble");
        SessionFile.write(saved, session, opened.performance());
        SessionContent again = SessionFile.read(saved);
        assertThat(clips(again.session())).isEqualTo(clips(session));
        assertThat(again.session().zones()).isEqualTo(session.zones());
        assertThat(again.session().controls()).isEqualTo(session.controls());
    }

    @Test
    void thereIsNoneAfterTheLast() {
        assertThat(getClass().getResource("earlier/%02d.dibble".formatted(VERSIONS + 1)))
                .isNull();
    }

    private static Map<String, MidiTrack> clips(Session session) {
        return session.tracks().stream().collect(Collectors.toMap(Track::id, Track::sounding));
    }

    @ParameterizedTest
    @ValueSource(strings = {"earlier-round", "earlier-punched"})
    void theyOpenWithTakesTracksAndSoundAndAreSavedWithThem(String name) throws IOException {
        SessionContent opened = SessionFile.read(file(name));
        Session session = opened.session();
        assertThat(session.takes()).isNotEmpty().allSatisfy(take -> {
            assertThat(take.noteCount()).isPositive();
            assertThat(take.tempo()).isEqualTo(session.tempo());
        });
        assertThat(session.tracks().stream().mapToInt(Track::noteCount).sum()).isPositive();
        assertThat(session.instruments().get(0).parts()).allMatch(part -> part.program() != null);
        Path saved = folder.resolve("saved.dibble");
        SessionFile.write(saved, session, opened.performance());
        Session again = SessionFile.read(saved).session();
        assertThat(clips(again)).isEqualTo(clips(session));
        assertThat(again.tracks().stream().map(track -> track.regions().toString()))
                .containsExactlyElementsOf(session.tracks().stream()
                        .map(track -> track.regions().toString())
                        .toList());
    }

    @Test
    void notesAndLengthsAreThoseThatWereWritten() throws IOException {
        Session punched = SessionFile.read(file("earlier-punched")).session();
        assertThat(punched.tracks())
                .extracting(Track::name)
                .containsExactly("Celesta", "Celesta, Right hand", "Celesta, Left hand", "Upright bass");
        assertThat(punched.tracks()).extracting(Track::noteCount).containsExactly(47, 23, 24, 37);
        // It was written as 12 x 250 ms; the tempo that comes later in the piece does not make it longer.
        assertThat(punched.takes())
                .extracting(Take::length)
                .containsExactly(16_000_000_000L, 2_000_000_000L, 3_000_000_000L);
        Track celesta = punched.tracks().get(0);
        assertThat(celesta.regions().all()).extracting(Region::take).containsExactly(null, "take-3", null);
        // Printing the last one again leaves what is before and behind it.
        Session again = TakeEdits.choose(punched, "take-3");
        MidiTrack before = celesta.sounding();
        MidiTrack after = again.tracks().get(0).sounding();
        long from = punched.takes().get(2).startTick();
        for (int i = 0; i < before.size() && before.tick(i) < from; i++) {
            assertThat(after.tick(i)).isEqualTo(before.tick(i));
            assertThat(after.message(i)).isEqualTo(before.message(i));
        }
        assertThat(after.endTick()).isEqualTo(before.endTick());
        assertThat(List.copyOf(again.takes())).isEqualTo(punched.takes());
    }
}
