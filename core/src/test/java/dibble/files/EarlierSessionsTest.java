package dibble.files;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.edits.TakeEdits;
import dibble.midi.MidiTrack;
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
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Sessions that the version before regions wrote open with what they have, and can be saved as they are. */
class EarlierSessionsTest {
    @TempDir
    private Path folder;

    private Path file(String name) throws IOException {
        Path file = folder.resolve(name + ".dibble");
        try (InputStream in = getClass().getResourceAsStream(name + ".dibble")) {
            Files.copy(in, file);
        }
        return file;
    }

    private static Map<String, MidiTrack> clips(Session session) {
        return session.tracks().stream().collect(Collectors.toMap(Track::id, Track::clip));
    }

    @ParameterizedTest
    @ValueSource(strings = {"earlier-round", "earlier-punched"})
    void theyOpenWithTakesTracksAndSoundAndAreSavedWithThem(String name) throws IOException {
        SessionFile.Opened opened = SessionFile.read(file(name));
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
        MidiTrack before = celesta.clip();
        MidiTrack after = again.tracks().get(0).clip();
        long from = punched.takes().get(2).startTick();
        for (int i = 0; i < before.size() && before.tick(i) < from; i++) {
            assertThat(after.tick(i)).isEqualTo(before.tick(i));
            assertThat(after.message(i)).isEqualTo(before.message(i));
        }
        assertThat(after.endTick()).isEqualTo(before.endTick());
        assertThat(List.copyOf(again.takes())).isEqualTo(punched.takes());
    }
}
