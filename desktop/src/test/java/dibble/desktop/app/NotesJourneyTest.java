package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import dibble.recording.PrintMode;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.session.Session;
import dibble.studio.Transport;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.event.ActionEvent;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What was recorded is tightened up, cleaned out, moved and repeated: as hands do it. */
class NotesJourneyTest extends WindowTest {
    private static final long BEAT = 960;
    private static final long BAR = 4 * BEAT;
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");
    private static final PartRef MARIMBA = new PartRef("sorrel", "marimba");
    private static final PartRef HANDS = new PartRef("sorrel", "hands");

    @TempDir
    private Path folder;

    /** Four bars of a melody that drags, with the pedal down in the second bar; and pads. */
    @Override
    Session session() {
        MidiTrack.Builder melody = new MidiTrack.Builder();
        for (int beat = 0; beat < 16; beat++) {
            long at = beat * BEAT + 30 + beat % 3 * 20;
            int key = 60 + beat % 4 * 2;
            melody.add(at, ShortMessage.noteOn(0, key, 60 + beat));
            if (beat == 4) {
                melody.add(at + 5, ShortMessage.controller(0, 64, 127));
            }
            melody.add(at + 500, ShortMessage.noteOff(0, key, 64));
            if (beat == 7) {
                melody.add(at + 700, ShortMessage.controller(0, 64, 0));
            }
        }
        MidiTrack.Builder pads = new MidiTrack.Builder();
        for (int hit = 0; hit < 12; hit++) {
            int key = 53 + hit % 3;
            pads.add(hit * BEAT, ShortMessage.noteOn(9, key, 90));
            pads.add(hit * BEAT + 100, ShortMessage.noteOff(9, key, 64));
        }
        Session demo = LamplightersRound.session();
        return demo.withTracks(List.of(
                track("celesta", "Celesta", CELESTA, melody.build(4 * BAR)),
                track("hands", "Hand drums", HANDS, pads.build(4 * BAR))));
    }

    private static Track track(String id, String name, PartRef part, MidiTrack clip) {
        return Track.of(id, name, part)
                .withRegions(new Regions(List.of(new Region(null, 0, 4 * BAR, PrintMode.REPLACE_ALL, false, clip))));
    }

    private Track track(String id) {
        return desk().session().tracks().stream()
                .filter(track -> track.id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    private ClipIndex index(String id) {
        return ClipIndex.of(track(id).sounding());
    }

    private List<Long> starts(String id) {
        ClipIndex index = index(id);
        return IntStream.range(0, index.noteCount()).mapToObj(index::start).toList();
    }

    private List<Integer> velocities(String id) {
        ClipIndex index = index(id);
        return IntStream.range(0, index.noteCount()).mapToObj(index::velocity).toList();
    }

    /** Opens the notes of a track by keyboard alone. */
    private void open(String id) {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        until(() -> lookup("#track-" + id).tryQuery().isPresent());
        interact(() -> lookup("#track-" + id).query().requestFocus());
        push(KeyCode.ENTER);
        until(() -> lookup("#note-area").query().isFocused());
        until(() -> text("#notes-count").startsWith(index(id).noteCount() + " notes"));
    }

    private void fire(String button) {
        until(() -> lookup(button).tryQuery().filter(Node::isVisible).isPresent());
        until(() -> !lookup(button).query().isDisabled());
        interact(() -> lookup(button).queryAs(ButtonBase.class).fire());
    }

    private void fill(String field, String text) {
        interact(() -> {
            TextField there = lookup(field).query();
            there.setText(text);
            there.fireEvent(new ActionEvent());
        });
    }

    /** Where a tick of a key is on the screen: eight bars are seen, and of eighteen keys from C5 down the middle. */
    private Point2D place(long tick, int key) {
        Bounds area = lookup("#note-area")
                .query()
                .localToScreen(lookup("#note-area").query().getBoundsInLocal());
        double row = Math.max(16, Math.min(24, Math.floor(area.getHeight() / 18)));
        double scrolled = Math.max(0, Math.min(18 * row - area.getHeight(), (72 - 63) * 16 - area.getHeight() / 2));
        double width = lookup("#ruler").query().getBoundsInLocal().getWidth() - 12;
        return new Point2D(
                area.getMinX() + tick * width / (8 * BAR), area.getMinY() + (72 - key + 0.5) * row - scrolled);
    }

    private void drag(Point2D from, Point2D to, KeyCode... held) {
        moveTo(from).press(MouseButton.PRIMARY);
        press(held);
        moveTo(from.midpoint(to));
        moveTo(to).release(MouseButton.PRIMARY);
        release(held);
    }

    @Test
    void aHandMovesLengthensCopiesAndDrawsNotes() {
        open("celesta");
        // The first note, C4, to beat 3 and up a fifth: on the grid, and heard on its part as it goes.
        port.messages.clear();
        drag(place(200, 60), place(200 + 2 * BEAT, 67));
        until(() -> starts("celesta").contains(2 * BEAT));
        assertThat(index("celesta").noteCount()).isEqualTo(16);
        assertThat(port.notes()).contains("1:60", "1:67");
        assertThat(workbench.studio().soundingCount()).isZero();
        ClipIndex moved = index("celesta");
        int note = starts("celesta").indexOf(2 * BEAT);
        assertThat(moved.key(note)).isEqualTo(67);
        // By its end, with Alt: anywhere.
        drag(place(moved.end(note) - 30, 67), place(moved.end(note) + 3 * BEAT + 77, 67), KeyCode.ALT);
        until(() -> index("celesta").end(note) > 5 * BEAT);
        assertThat(index("celesta").end(note) % 240).isNotZero();
        // Copied with Ctrl, drawn with two clicks, chosen by a band, deleted.
        drag(place(2 * BEAT + 100, 67), place(10 * BEAT + 100, 67), KeyCode.CONTROL);
        until(() -> index("celesta").noteCount() == 17);
        doubleClickOn(place(20 * BEAT + 100, 70));
        until(() -> index("celesta").noteCount() == 18);
        assertThat(starts("celesta").get(17)).isEqualTo(20 * BEAT);
        drag(place(18 * BEAT, 71), place(24 * BEAT, 68));
        until(() -> text("#notes-count").endsWith("1 selected"));
        push(KeyCode.DELETE);
        until(() -> index("celesta").noteCount() == 17);
        // One step each.
        for (int i = 0; i < 5; i++) {
            push(KeyCode.CONTROL, KeyCode.Z);
        }
        assertThat(desk().session()).isEqualTo(session());
    }

    @Test
    void quantizingIsSeenFirstThenKeptUndoneAndAsItWasPlayedAgain() {
        MidiTrack played = track("celesta").sounding();
        open("celesta");
        push(KeyCode.CONTROL, KeyCode.A);
        push(KeyCode.CONTROL, KeyCode.U);
        until(() -> starts("celesta").stream().allMatch(start -> start % BEAT == 0));
        assertThat(desk().document().kept().session().tracks().get(0).sounding())
                .isEqualTo(played);
        push(KeyCode.ESCAPE);
        until(() -> track("celesta").sounding().equals(played));
        assertThat(lookup("#note-area").query().isFocused())
                .as("where it was asked from")
                .isTrue();
        push(KeyCode.CONTROL, KeyCode.U);
        choose("#quantize-to", "1/4");
        until(() -> !lookup("#quantize-keep").query().isDisabled());
        interact(() -> lookup("#quantize-keep").query().requestFocus());
        push(KeyCode.SPACE);
        assertThat(desk().document().undoName())
                .hasValueSatisfying(name -> assertThat(plain(name)).isEqualTo("quantize"));
        assertThat(starts("celesta")).allMatch(start -> start % BEAT == 0);
        MidiTrack quantized = track("celesta").sounding();
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(track("celesta").sounding()).isEqualTo(played);
        push(KeyCode.CONTROL, KeyCode.Y);
        assertThat(track("celesta").sounding()).isEqualTo(quantized);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.P);
        until(() -> track("celesta").sounding().equals(played));
        assertThat(track("celesta").regions().byHand()).isEmpty();
    }

    @Test
    void anotherViewLeavesTheNotesOpenAndNothingHalfDone() {
        open("celesta");
        push(KeyCode.CONTROL, KeyCode.A);
        push(KeyCode.CONTROL, KeyCode.U);
        until(() -> starts("celesta").stream().allMatch(start -> start % BEAT == 0));
        push(KeyCode.CONTROL, KeyCode.DIGIT2);
        until(() -> starts("celesta").contains(30L));
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        until(() -> lookup("#notes").query().isVisible());
        assertThat(lookup("#quantize").query().isVisible()).isFalse();
        // What is shown goes with its track.
        interact(() -> desk().document()
                .edit("without", session -> session.withTracks(session.tracks().subList(1, 2))));
        until(() -> !lookup("#notes").query().isVisible());
        interact(() -> desk().document().undo());
        assertThat(desk().session()).isEqualTo(session());
    }

    @Test
    void aPreviewIsHeard() {
        open("celesta");
        push(KeyCode.CONTROL, KeyCode.A);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.H);
        choose("#change-what", "Velocity: set");
        fill("#change-velocity", "7");
        until(() -> velocities("celesta").stream().allMatch(velocity -> velocity == 7));
        port.messages.clear();
        fire("#play");
        until(() -> port.messages.stream()
                .anyMatch(message -> ShortMessage.startsNote(message) && ShortMessage.data2(message) == 7));
        fire("#change-leave");
        fire("#play");
        until(() -> workbench.studio().transport() == Transport.STOPPED);
        assertThat(velocities("celesta")).contains(60, 75);
        assertThat(desk().document().isChanged()).isFalse();
    }

    @Test
    void thePadsOfATrackGoOntoATrackEach() {
        open("hands");
        push(KeyCode.CONTROL, KeyCode.T);
        choose("#sound-target", "Each key to its own track");
        fire("#to-sound-keep");
        until(() -> desk().session().tracks().size() == 5);
        assertThat(desk().session().tracks().subList(2, 5))
                .allMatch(track -> track.noteCount() == 4)
                .allMatch(track -> track.playsOn().equals(Optional.of(HANDS)));
        assertThat(track("hands").noteCount()).isZero();
        port.messages.clear();
        push(KeyCode.SPACE);
        until(() -> port.notes().stream().filter(note -> note.startsWith("10:")).count() == 12);
    }

    @Test
    void notesOfATrackForSeveralSoundsGoToAnotherChannel() {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (int i = 0; i < 4; i++) {
            clip.add(i * BEAT, ShortMessage.noteOn(0, 70, 80), "sorrel")
                    .add(i * BEAT + 400, ShortMessage.noteOff(0, 70, 64), "sorrel");
        }
        interact(() -> desk().document()
                .edit(
                        "all",
                        session -> session.withTracks(List.of(Track.of("all", "All", new Track.OfSource("larkspur"))
                                .withRegions(Regions.own(clip.build()))))));
        open("all");
        push(KeyCode.RIGHT);
        push(KeyCode.CONTROL, KeyCode.T);
        choose("#sound-target", "Channel 4, on their track");
        fire("#to-sound-keep");
        until(() -> index("all").channel(0) == 3);
        assertThat(IntStream.range(1, 4).map(index("all")::channel)).containsOnly(0);
        port.messages.clear();
        push(KeyCode.SPACE);
        until(() -> port.notes().equals(List.of("4:70", "1:70", "1:70", "1:70")));
    }

    @Test
    void aPhraseIsMovedToAnotherSoundAndPlayedThereWithItsPedal() {
        open("celesta");
        // The second bar: from the fifth note on, four of them, chosen by the keys.
        for (int i = 0; i < 5; i++) {
            push(KeyCode.RIGHT);
        }
        for (int i = 0; i < 3; i++) {
            push(KeyCode.SHIFT, KeyCode.RIGHT);
        }
        until(() -> text("#notes-count").endsWith("4 selected"));
        push(KeyCode.CONTROL, KeyCode.T);
        int channel = desk().routing().channels().channel(MARIMBA).orElseThrow();
        choose("#sound-target", "Sorrel / Marimba · " + channel);
        fire("#to-sound-keep");
        until(() -> track("celesta").noteCount() == 12);
        Track marimba = desk().session().trackOf(MARIMBA).orElseThrow();
        assertThat(marimba.noteCount()).isEqualTo(4);
        port.messages.clear();
        push(KeyCode.SPACE);
        until(() -> port.messages.contains(ShortMessage.controller(channel - 1, 64, 0)));
        List<Integer> there = port.messages.stream()
                .filter(message -> ShortMessage.channel(message) == channel - 1)
                .toList();
        assertThat(there).contains(ShortMessage.controller(channel - 1, 64, 127));
        assertThat(there.stream().filter(ShortMessage::startsNote).map(ShortMessage::data1))
                .containsExactly(60, 62, 64, 66);
    }

    @Test
    void aLoopIsCutToTwoBarsRepeatedAndReadByTheJdkWithTheSameNotes() throws Exception {
        open("celesta");
        push(KeyCode.CONTROL, KeyCode.G);
        fill("#arrange-first", "2");
        fill("#arrange-last", "3");
        fire("#arrange-all");
        fire("#arrange-keep-only");
        until(() -> track("celesta").sounding().endTick() == 2 * BAR);
        fill("#arrange-times", "4");
        fire("#arrange-repeat");
        until(() -> track("celesta").sounding().endTick() == 8 * BAR);
        assertThat(index("celesta").noteCount()).isEqualTo(32);
        Path file = folder.resolve("loop.mid");
        push(KeyCode.CONTROL, KeyCode.E);
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        fill("#ask-field", file.toString());
        until(() -> Files.exists(file));
        Sequence read = MidiSystem.getSequence(file.toFile());
        List<Long> notes = new ArrayList<>();
        for (int i = 0; i < read.getTracks()[1].size(); i++) {
            MidiEvent event = read.getTracks()[1].get(i);
            if (event.getMessage() instanceof javax.sound.midi.ShortMessage message
                    && message.getCommand() == javax.sound.midi.ShortMessage.NOTE_ON
                    && message.getData2() > 0) {
                notes.add(event.getTick());
            }
        }
        assertThat(notes).isEqualTo(starts("celesta"));
    }

    @Test
    void velocitiesFollowALineThatIsDrawnAcross() {
        open("celesta");
        Bounds area = lookup("#velocity-area")
                .query()
                .localToScreen(lookup("#velocity-area").query().getBoundsInLocal());
        Point2D low = new Point2D(area.getMinX() + 14, area.getMaxY() - 20);
        moveTo(low).press(MouseButton.PRIMARY);
        moveTo(low.add(area.getWidth() / 4, -20));
        moveTo(low.add(area.getWidth() / 2 - 8, -50)).release(MouseButton.PRIMARY);
        until(() -> velocities("celesta").get(11) > velocities("celesta").get(1) + 40);
        assertThat(velocities("celesta").subList(1, 12)).isSorted();
        assertThat(velocities("celesta").get(0)).isEqualTo(60);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(velocities("celesta"))
                .isEqualTo(IntStream.range(60, 76).boxed().toList());
    }

    @Test
    void whatIsRecordedIsQuantizedAndTheTakeIsAsItWasPlayed() {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        fire("#arm-celesta");
        choose("#record-quantize", "Quantize 1/8");
        fire("#record");
        until(() -> workbench.studio().recording() != null);
        for (int key : new int[] {72, 74, 76}) {
            onFx(() -> desk().press(desk().session().source("larkspur").orElseThrow(), key, 80));
            onFx(() -> desk().release(desk().session().source("larkspur").orElseThrow(), key));
        }
        fire("#play");
        until(() -> desk().session().takes().size() == 1);
        assertThat(starts("celesta")).hasSize(3).allMatch(start -> start % 480 == 0);
        assertThat(desk().session().takes().get(0).noteCount()).isEqualTo(3);
        open("celesta");
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.P);
        until(() -> track("celesta").regions().byHand().isEmpty());
        assertThat(starts("celesta")).hasSize(3).anyMatch(start -> start % 480 != 0);
    }

    @Test
    void barsLieWhereTheyWerePlayedAndNothingSoundsDifferent() {
        long[] before = times();
        open("celesta");
        push(KeyCode.CONTROL, KeyCode.B);
        fill("#beat-first", "1");
        fire("#beat-keep");
        until(() -> desk().document().undoName().isPresent());
        assertThat(desk().session().tempo().tempos()).hasSizeGreaterThan(8);
        long[] after = times();
        for (int i = 0; i < before.length; i++) {
            assertThat(Math.abs(after[i] - before[i])).isLessThan(1_500_000);
        }
        assertThat(starts("celesta").stream().filter(start -> start % BEAT == 0))
                .hasSizeGreaterThan(14);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(desk().session()).isEqualTo(session());
    }

    private long[] times() {
        return starts("celesta").stream()
                .mapToLong(start -> desk().session().tempo().nanos(start))
                .toArray();
    }

    @Test
    void allOfItIsDoneByKeyboard() {
        open("celesta");
        push(KeyCode.RIGHT);
        push(KeyCode.ALT, KeyCode.RIGHT);
        assertThat(index("celesta").start(0)).isEqualTo(30 + 240);
        push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.LEFT);
        assertThat(index("celesta").start(0)).isEqualTo(30 + 239);
        push(KeyCode.ALT, KeyCode.UP);
        assertThat(index("celesta").key(0)).isEqualTo(61);
        push(KeyCode.CONTROL, KeyCode.RIGHT);
        assertThat(index("celesta").end(0)).isEqualTo(30 + 239 + 500 + 240);
        push(KeyCode.CONTROL, KeyCode.UP);
        assertThat(index("celesta").velocity(0)).isEqualTo(65);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.M);
        assertThat(track("celesta").noteCount()).isEqualTo(15);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.M);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.D);
        assertThat(track("celesta").noteCount()).isEqualTo(17);
        push(KeyCode.DELETE);
        assertThat(track("celesta").noteCount()).isEqualTo(16);
        push(KeyCode.CONTROL, KeyCode.A);
        push(KeyCode.CONTROL, KeyCode.X);
        assertThat(track("celesta").noteCount()).isZero();
        push(KeyCode.CONTROL, KeyCode.V);
        assertThat(track("celesta").noteCount()).isEqualTo(16);
        push(KeyCode.INSERT);
        assertThat(track("celesta").noteCount()).isGreaterThanOrEqualTo(16);
        push(KeyCode.ESCAPE);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.P);
        until(() -> track("celesta").regions().byHand().isEmpty());
        while (desk().document().undoName().isPresent()) {
            push(KeyCode.CONTROL, KeyCode.Z);
        }
        assertThat(desk().session()).isEqualTo(session());
    }
}
