package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.disk.FileStamp;
import dibble.edits.TrackEdits;
import dibble.edits.ZoneEdits;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.journals.SessionJournal;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Kept;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.Transport;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.event.ActionEvent;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Everybody recorded at once, sorted, routed again, brought back after a crash: as hands do it. */
class TakesJourneyTest extends WindowTest {
    @TempDir
    private Path folder;

    /** Four sources, seven zones that are played, an eighth that is not, and one that leads to no part. */
    @Override
    Session session() {
        Session demo = LamplightersRound.session();
        return demo.withScenes(List.of())
                .withControls(List.of())
                .withSceneSwitch(null)
                .withSources(demo.sources().subList(0, 4))
                .withZones(List.of(
                        zone("bass", "larkspur", 28, 53, "sorrel", "upright"),
                        zone("bells", "larkspur", 54, 96, "sorrel", "celesta"),
                        zone("shine", "larkspur", 80, 96, "sorrel", "bowls"),
                        zone("wood", "tansy", 54, 68, "sorrel", "marimba"),
                        zone("thumbs", "tansy", 69, 84, "sorrel", "kalimba"),
                        zone("hands", "sedge", 53, 68, "sorrel", "hands"),
                        zone("feet", "fern", 36, 52, "yarrow", "winds"),
                        zone("strings", "larkspur", 97, 100, "yarrow", "harp"),
                        Zone.of("bare", "Bare", "tansy", new Range(53, 53), new ZoneTarget.ToChannel("yarrow", 9))));
    }

    private static Zone zone(String id, String source, int low, int high, String instrument, String part) {
        return Zone.of(id, id, source, new Range(low, high), new PartRef(instrument, part));
    }

    private void fire(String button) {
        until(() -> lookup(button).tryQuery().filter(Node::isVisible).isPresent());
        interact(() -> lookup(button).queryAs(ButtonBase.class).fire());
    }

    private void fill(String field, String text) {
        interact(() -> {
            TextField there = lookup(field).query();
            there.setText(text);
            there.fireEvent(new ActionEvent());
        });
    }

    private void play(String source, int... keys) {
        Source player = desk().session().source(source).orElseThrow();
        for (int key : keys) {
            onFx(() -> desk().press(player, key, 80));
            onFx(() -> desk().release(player, key));
        }
    }

    private static List<Integer> notes(MidiTrack clip) {
        List<Integer> notes = new ArrayList<>();
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isChannelMessage(i) && ShortMessage.startsNote(clip.message(i))) {
                notes.add(ShortMessage.data1(clip.message(i)));
            }
        }
        return notes;
    }

    private Map<String, List<Integer>> recorded() {
        return desk().session().tracks().stream()
                .collect(Collectors.toMap(track -> plain(track.name()), track -> notes(track.sounding())));
    }

    private String said(String track) {
        return lookup("#track-" + track).lookup(".label").queryAllAs(Label.class).stream()
                .map(label -> plain(label.getText()))
                .filter(text -> text.contains("nothing yet"))
                .findFirst()
                .orElse("");
    }

    private void untilStopped() {
        until(() -> workbench.studio().transport() == Transport.STOPPED
                && !desk().session().takes().isEmpty());
    }

    @Test
    void fourSourcesWithSevenZonesAreRecordedAtOnceEachSoundOnItsTrack() throws Exception {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        until(() -> text("#record-plan").startsWith("4 sources → 8 tracks"));
        choose("#count-in", "Count-in: 2 bars");
        fill("#tempo", "160");
        until(() -> desk().session().tempo().bpm(0) == 160);
        push(KeyCode.CONTROL, KeyCode.R);
        until(() -> workbench.studio().recording() != null);
        assertThat(workbench.studio().countsIn()).isPositive();
        // Somebody warms up: it is not in the take.
        play("larkspur", 30);
        until(() -> workbench.studio().countsIn() == 0);
        play("larkspur", 40, 41, 60, 85);
        play("tansy", 55, 70, 53, 71);
        play("sedge", 53, 54);
        play("fern", 40);
        until(() -> said("harp").contains("nothing yet"));
        fire("#play");
        untilStopped();
        Map<String, List<Integer>> tracks = recorded();
        assertThat(tracks.get("Upright bass")).containsExactly(40, 41);
        assertThat(tracks.get("Celesta")).containsExactly(60, 85);
        assertThat(tracks.get("Glass bowls")).containsExactly(85);
        assertThat(tracks.get("Marimba")).containsExactly(55);
        assertThat(tracks.get("Kalimba")).containsExactly(70, 71);
        assertThat(tracks.get("Hand drums")).containsExactly(53, 54);
        assertThat(tracks.get("Low winds")).containsExactly(40);
        assertThat(tracks.get("Harp")).isEmpty();
        assertThat(tracks.get("Everything else")).containsExactly(53);
        for (Track track : desk().session().tracks()) {
            until(() -> drawnNotes(track) == track.noteCount());
        }

        Path file = folder.resolve("round.mid");
        push(KeyCode.CONTROL, KeyCode.E);
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        fill("#ask-field", file.toString());
        until(() -> Files.exists(file));
        MidiFile read = MidiFileReader.read(file);
        for (MidiTrack track : read.tracks().subList(1, read.tracks().size())) {
            assertThat(notes(track)).isEqualTo(tracks.get(plain(track.name().orElseThrow())));
        }
        assertThat(read.tracks()).hasSize(9);

        // In again: a source whose lanes have the same notes at the same times.
        interact(() -> desk().ask().leave());
        push(KeyCode.CONTROL, KeyCode.I);
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        fill("#ask-field", file.toString());
        until(() -> desk().session().source("round").isPresent());
        assertThat(desk().session().source("round").orElseThrow().lanes()).hasSize(8);
        Take in = desk().session().takes().get(1);
        List<String> wanted = desk().session().tracks().stream()
                .flatMap(track -> timed(track.sounding()).stream())
                .sorted()
                .toList();
        List<String> got = new ArrayList<>();
        for (int i = 0; i < in.log().size(); i++) {
            if (ShortMessage.isNote(in.log().message(i))) {
                got.add(desk().session().tempo().ticks(in.log().stamp(i)) + " "
                        + ShortMessage.data1(in.log().message(i)) + " "
                        + ShortMessage.startsNote(in.log().message(i)));
            }
        }
        assertThat(got.stream().sorted()).containsExactlyElementsOf(wanted);
    }

    private static List<String> timed(MidiTrack clip) {
        List<String> notes = new ArrayList<>();
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isChannelMessage(i) && ShortMessage.isNote(clip.message(i))) {
                notes.add(clip.tick(i) + " " + ShortMessage.data1(clip.message(i)) + " "
                        + ShortMessage.startsNote(clip.message(i)));
            }
        }
        return notes;
    }

    private void record(Runnable playing) {
        push(KeyCode.CONTROL, KeyCode.R);
        until(() -> workbench.studio().recording() != null);
        playing.run();
        fire("#play");
        untilStopped();
    }

    @Test
    void aTakeWithTheWrongSplitIsRoutedAgain() {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        record(() -> play("larkspur", 50, 56, 60));
        assertThat(recorded().get("Celesta")).containsExactly(56, 60);
        interact(() -> desk().document()
                .edit(
                        "split",
                        session -> ZoneEdits.changeZone(
                                ZoneEdits.changeZone(session, "bells", zone -> zone.withKeys(new Range(58, 96))),
                                "bass",
                                zone -> zone.withKeys(new Range(28, 57)))));
        fire("#route-again-open");
        until(() -> lookup("#route-again").query().isVisible());
        assertThat(lookup("#route-again").lookup(".label").queryAllAs(Label.class))
                .anyMatch(label -> plain(label.getText()).contains("2 tracks would change"));
        fire("#route-again-do");
        until(() -> recorded().get("Celesta").equals(List.of(60)));
        assertThat(recorded().get("Upright bass")).containsExactly(50, 56);
        fire("#print-as-heard");
        until(() -> recorded().get("Celesta").equals(List.of(56, 60)));
        interact(() -> desk().document().undo());
        assertThat(recorded().get("Celesta")).containsExactly(60);
    }

    @Test
    void recordWhileItPlaysBeginsWhereItIsAndLeavesWhatIsBefore() {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        // A long take: there is something to play along with.
        AtomicLong first = new AtomicLong();
        record(() -> {
            play("larkspur", 60);
            first.set(workbench.studio().position());
            until(() -> workbench.studio().position() > first.get() + 1_500_000_000L);
            play("larkspur", 62);
        });
        fire("#play");
        until(() -> workbench.studio().transport() == Transport.PLAYING
                && workbench.studio().position() > first.get() + 500_000_000L);
        push(KeyCode.CONTROL, KeyCode.R);
        until(() -> workbench.studio().recording() != null);
        assertThat(workbench.studio().recording().from()).isGreaterThan(first.get() + 500_000_000L);
        play("larkspur", 64);
        fire("#play");
        until(() -> desk().session().takes().size() == 2);
        assertThat(recorded().get("Celesta")).containsExactly(60, 64);
        interact(() -> desk().document().undo());
        assertThat(recorded().get("Celesta")).containsExactly(60, 62);
    }

    @Test
    void whatWasEditedByHandIsNamedBeforeATakeOverwritesIt() {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        record(() -> play("larkspur", 50, 60));
        MidiTrack other = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 61, 80))
                .add(100, ShortMessage.noteOff(0, 61, 64))
                .build();
        interact(() -> desk().document().edit("notes", session -> {
            Track celesta = session.trackOf(new PartRef("sorrel", "celesta")).orElseThrow();
            Region region = celesta.regions().all().get(0).ofPrint(other).asEdited();
            return TrackEdits.replaceTracks(session, List.of(celesta.withRegions(new Regions(List.of(region)))));
        }));
        fire("#print-as-heard");
        until(() -> lookup("#route-again").query().isVisible());
        assertThat(text("#route-again .missing")).isEqualTo("This replaces hand edits on Celesta. You can undo it.");
        push(KeyCode.ESCAPE);
        until(() -> !lookup("#route-again").query().isVisible());
        assertThat(recorded().get("Celesta")).containsExactly(61);
        fire("#print-as-heard");
        fire("#route-again-do");
        until(() -> recorded().get("Celesta").equals(List.of(60)));
        // Nothing is lost now, so that nothing is asked.
        fire("#print-as-heard");
        assertThat(lookup("#route-again").query().isVisible()).isFalse();
    }

    @Test
    void drumsAreSortedIntoATrackEachAfterALookAtIt() {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        record(() -> play("sedge", 53, 55, 53, 57));
        interact(() -> lookup("#more-hand-drums")
                .queryAs(MenuButton.class)
                .getItems()
                .filtered(item -> "track-sort".equals(item.getId()))
                .get(0)
                .fire());
        until(() -> text("#sort-do").equals("Sort into 3 tracks"));
        fire("#sort-do");
        until(() -> desk().session().tracks().size() >= 11);
        assertThat(desk().session().tracks().stream()
                        .filter(track -> track.input() instanceof Track.Nothing)
                        .map(track -> track.noteCount()))
                .containsExactly(2, 1, 1);
        assertThat(desk().performance().muted()).containsExactly("hand-drums");
        // They sound where the drums do.
        port.messages.clear();
        fire("#play");
        until(() -> port.notes().size() == 4);
        until(() -> workbench.studio().transport() == Transport.STOPPED);
        interact(() -> desk().document().undo());
        assertThat(desk().session().tracks()).noneMatch(track -> track.input() instanceof Track.Nothing);
    }

    @Test
    void whatARunThatWasEndedInTheMiddleLeftIsOfferedAndComesBack() throws Exception {
        Path other = folder.resolve("unfinished");
        try (SessionJournal journal = new SessionJournal(folder)) {
            EventStore log = new EventStore();
            log.add(0, 0, ShortMessage.noteOn(0, 60, 80));
            log.add(10, 0, ShortMessage.noteOn(0, 40, 80));
            journal.changed(Kept.of(session().withName("Left behind"), Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            journal.takes().begin(session().tempo(), 0);
            journal.takes()
                    .follow(
                            log,
                            List.of("larkspur"),
                            List.of(new Take.Mark(0, 0, session().routing(Performance.NEW))));
            journal.sync();
            copy(other, userFolder.resolve("unfinished"));
        }
        interact(() -> window.recovery().offer());
        until(() -> text("#ask-text").contains("a recording in progress"));
        clickOn(labelled("Recover"));
        until(() -> desk().session().name().equals("Left behind"));
        assertThat(recorded().get("Celesta")).containsExactly(60);
        assertThat(recorded().get("Upright bass")).containsExactly(40);
        assertThat(desk().document().isChanged()).isTrue();
        onFx(() -> window.recovery().offer());
        until(() -> lookup("#ask-told").tryQuery().isPresent());
    }

    private static void copy(Path from, Path to) throws Exception {
        try (Stream<Path> files = Files.walk(from)) {
            for (Path path : (Iterable<Path>) files::iterator) {
                Path target = to.resolve(from.relativize(path).toString());
                if (Files.isDirectory(path)) {
                    Files.createDirectories(target);
                } else {
                    Files.copy(path, target);
                }
            }
        }
    }
}
