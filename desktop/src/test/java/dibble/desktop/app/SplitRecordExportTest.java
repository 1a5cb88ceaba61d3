package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.session.Session;
import dibble.studio.Transport;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A user's whole way: split a keyboard, transpose the lower half, play both, record, export. */
class SplitRecordExportTest extends WindowTest {
    @TempDir
    private Path folder;

    @Override
    Session session() {
        Session demo = LamplightersRound.session();
        return Session.empty("New session")
                .withSources(demo.sources().subList(0, 2))
                .withInstruments(demo.instruments().subList(0, 1));
    }

    @Test
    void eachHalfIsRecordedOnItsOwnTrackAndExportedAsTheJdkReadsIt() throws Exception {
        // The first part takes the whole keyboard at once; the second asks.
        dragPart("sorrel-celesta", "larkspur", 60);
        until(() -> desk().session().zones().size() == 1);
        dragPart("sorrel-upright", "larkspur", 60);
        until(() -> lookup("#drop-question").query().isVisible());
        playKey("larkspur", 54);
        until(() -> ((TextField) lookup("#split-at").query()).getText().equals("F♯3 54"));
        clickOn("#beside-below");
        until(() -> desk().session().zones().size() == 2);
        Zone upper = zone("Celesta");
        Zone lower = zone("Upright bass");
        assertThat(upper.keys()).isEqualTo(new Range(54, 100));
        assertThat(lower.keys()).isEqualTo(new Range(28, 53));

        // The new zone is selected: its inspector transposes it.
        clickOn("#transpose-down-12");
        until(() -> zone("Upright bass").transpose() == -12);

        clickOn("#record");
        until(() -> workbench.studio().recording() != null);
        port.messages.clear();
        playKey("larkspur", 40);
        playKey("larkspur", 72);
        playKey("larkspur", 53);
        playKey("larkspur", 54);
        clickOn("#play");
        until(() -> desk().session().takes().size() == 1);
        assertThat(port.notes()).containsExactly("2:28", "1:72", "2:41", "1:54");

        List<Track> tracks = desk().session().tracks();
        assertThat(tracks).extracting(Track::name).containsExactly("Celesta", "Upright bass");
        assertThat(notes(tracks.get(0))).containsExactly(72, 54);
        assertThat(notes(tracks.get(1))).containsExactly(28, 41);

        Path file = folder.resolve("tracks.mid");
        press(KeyCode.CONTROL, KeyCode.E).release(KeyCode.E, KeyCode.CONTROL);
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        clickOn("#ask-field");
        onFx(() -> ((TextField) lookup("#ask-field").query()).setText(file.toString()));
        type(KeyCode.ENTER);
        until(() -> Files.exists(file));

        Sequence sequence = MidiSystem.getSequence(file.toFile());
        assertThat(read(sequence, 1)).containsExactly("Celesta", "1:72", "1:54");
        assertThat(read(sequence, 2)).containsExactly("Upright bass", "2:28", "2:41");
        assertThat(sequence.getTracks()).hasSize(3);
        assertThat(new File(folder.toString()).list()).containsExactly("tracks.mid");

        // Playback goes to the parts, as what was played live did.
        port.messages.clear();
        clickOn("#play");
        until(() -> port.notes().size() == 4);
        until(() -> workbench.studio().transport() == Transport.STOPPED);
        assertThat(port.notes()).containsExactly("2:28", "1:72", "2:41", "1:54");
        assertThat(workbench.studio().soundingCount()).isZero();

        // One step takes the recording back, another one brings it again.
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(desk().session().takes()).isEmpty();
        push(KeyCode.CONTROL, KeyCode.Y);
        assertThat(desk().session().takes()).hasSize(1);
    }

    private Zone zone(String name) {
        return desk().session().zones().stream()
                .filter(zone -> zone.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private static List<Integer> notes(Track track) {
        List<Integer> notes = new ArrayList<>();
        for (int i = 0; i < track.sounding().size(); i++) {
            if (ShortMessage.startsNote(track.sounding().message(i))) {
                notes.add(ShortMessage.data1(track.sounding().message(i)));
            }
        }
        return notes;
    }

    /** A track's name and its note-ons. */
    private static List<String> read(Sequence sequence, int number) {
        List<String> found = new ArrayList<>();
        javax.sound.midi.Track track = sequence.getTracks()[number];
        for (int i = 0; i < track.size(); i++) {
            MidiEvent event = track.get(i);
            if (event.getMessage() instanceof MetaMessage meta && meta.getType() == 3) {
                found.add(new String(meta.getData(), java.nio.charset.StandardCharsets.UTF_8));
            } else if (event.getMessage() instanceof javax.sound.midi.ShortMessage message
                    && message.getCommand() == ShortMessage.NOTE_ON
                    && message.getData2() > 0) {
                found.add(message.getChannel() + 1 + ":" + message.getData1());
            }
        }
        return found;
    }
}
