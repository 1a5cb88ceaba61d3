package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.StripEdits;
import dibble.gear.Loudness;
import dibble.gear.PartRef;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.midi.ShortMessage;
import dibble.session.Session;
import dibble.studio.Transport;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.input.ContextMenuEvent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** From pads to stems: each drum on its own strip and output, as by a hand. */
class LevelsJourneyTest extends WindowTest {
    private static final PartRef HANDS = new PartRef("sorrel", "hands");
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");
    private static final int HEAD = 44;

    @TempDir
    private Path folder;

    @Override
    Session session() {
        Session demo = LamplightersRound.session();
        return Session.empty("New session")
                .withSources(demo.sources().subList(0, 3))
                .withInstruments(demo.instruments())
                .withZones(demo.zones().stream()
                        .filter(zone -> zone.id().equals("drums") || zone.id().equals("celesta"))
                        .toList())
                .withScenes(List.of());
    }

    private Strip strip(StripRef ref) {
        return StripEdits.strip(desk().session(), null, ref).orElseThrow();
    }

    private void inMenu(String row, String item) {
        Node node = lookup(row).query();
        Point2D at = at(row, 0.05);
        interact(() -> node.fireEvent(
                new ContextMenuEvent(ContextMenuEvent.CONTEXT_MENU_REQUESTED, 5, 5, at.getX(), at.getY(), true, null)));
        until(() -> lookup(item).tryQuery().isPresent());
        clickOn(item);
    }

    private List<Integer> drums() {
        return port.messages.stream()
                .filter(message -> ShortMessage.startsNote(message) && ShortMessage.channel(message) == 9)
                .map(ShortMessage::data1)
                .toList();
    }

    private void record(int... pads) {
        clickOn("#record");
        until(() -> workbench.studio().recording() != null);
        for (int pad : pads) {
            playKey("sedge", pad);
        }
        clickOn("#play");
        until(() -> desk().session().takes().size() == 1);
    }

    private static float[] samples(Path file) {
        try {
            byte[] bytes = Files.readAllBytes(file);
            float[] samples = new float[(bytes.length - HEAD) / 4];
            ByteBuffer.wrap(bytes, HEAD, bytes.length - HEAD)
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .asFloatBuffer()
                    .get(samples);
            return samples;
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private static double peak(float[] samples) {
        double peak = 0;
        for (float sample : samples) {
            peak = Math.max(peak, Math.abs(sample));
        }
        return peak;
    }

    @Test
    void padsToAKitEachDrumOnItsOwnStripAndOutputOneMutedAndTheStemsExported() throws Exception {
        record(53, 55, 57, 53);
        clickOn("#view-levels");
        until(() -> lookup("#strip-sorrel-hands").tryQuery().isPresent());
        inMenu("#strip-sorrel-hands", "#strip-split");
        until(() -> lookup("#strip-sorrel-hands-54").tryQuery().isPresent());
        // What was recorded went along: each drum is on its own track.
        assertThat(desk().session().trackOf(HANDS, 41).orElseThrow().noteCount())
                .isEqualTo(2);
        assertThat(desk().session().trackOf(HANDS, 43).orElseThrow().noteCount())
                .isEqualTo(1);
        assertThat(desk().session().trackOf(HANDS).orElseThrow().noteCount()).isZero();
        // And what is played next is recorded there.
        assertThat(desk().performance().armed())
                .contains(desk().session().trackOf(HANDS, 54).orElseThrow().id());

        // Outputs count up for what is selected: the kit, and all its drums.
        clickOn(at("#strip-sorrel-hands", 0.05));
        press(KeyCode.CONTROL);
        for (int key : new int[] {41, 43, 45}) {
            clickOn(at("#strip-sorrel-hands-" + key, 0.05), MouseButton.PRIMARY);
        }
        release(KeyCode.CONTROL);
        clickOn("#plant-outputs");
        until(() -> lookup("#plant-start").tryQuery().isPresent());
        onFx(() -> ((TextField) lookup("#plant-start").query()).setText("2"));
        clickOn("#plant-do");
        until(() -> strip(new StripRef(HANDS, 45)).output() == 5);
        assertThat(strip(StripRef.of(HANDS)).output()).isEqualTo(2);
        assertThat(strip(new StripRef(HANDS, 41)).output()).isEqualTo(3);

        // One is muted while it plays.
        clickOn("#mute-sorrel-hands-43");
        port.messages.clear();
        clickOn("#play");
        until(() -> drums().size() == 3 && workbench.studio().transport() == Transport.STOPPED);
        assertThat(drums()).containsExactly(41, 45, 41);
        clickOn("#mute-sorrel-hands-43");

        clickOn("#export-sound");
        until(() -> lookup("#export-go").query().isVisible());
        choose("#export-bits", "32-bit float");
        clickOn("#export-chosen-only");
        clickOn("#export-go");
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        Path stems = folder.resolve("stems");
        onFx(() -> ((TextField) lookup("#ask-field").query()).setText(stems.toString()));
        clickOn("#ask-field");
        type(KeyCode.ENTER);
        until(() -> Files.exists(stems.resolve("mix.wav"))
                && desk().jobs().running().isEmpty());
        List<String> names = new ArrayList<>();
        try (Stream<Path> files = Files.list(stems)) {
            files.map(path -> path.getFileName().toString()).sorted().forEach(names::add);
        }
        // The kit, its seven drums, and the mix.
        assertThat(names)
                .containsExactly(
                        "Finger drum.wav",
                        "Frame drum low.wav",
                        "Frame drum.wav",
                        "Goblet drum.wav",
                        "Goblet rim.wav",
                        "Hand drums.wav",
                        "Jingles.wav",
                        "Small drum.wav",
                        "mix.wav");
        float[] mix = samples(stems.resolve("mix.wav"));
        double[] sum = new double[mix.length];
        for (String name : names.subList(0, names.size() - 1)) {
            float[] stem = samples(stems.resolve(name));
            boolean played = name.startsWith("Frame") || name.equals("Goblet drum.wav");
            assertThat(peak(stem) > 0.02).as(name).isEqualTo(played);
            for (int i = 0; i < sum.length; i++) {
                sum[i] += stem[i];
            }
        }
        double off = 0;
        for (int i = 0; i < sum.length; i++) {
            off = Math.max(off, Math.abs(sum[i] - mix[i]));
        }
        assertThat(20 * Math.log10(off)).isLessThan(-90);
    }

    private Point2D at(String node, double share) {
        Node bar = lookup(node).query();
        Bounds bounds = bar.localToScreen(bar.getBoundsInLocal());
        return new Point2D(bounds.getMinX() + share * bounds.getWidth(), bounds.getCenterY());
    }

    @Test
    void barsAreDraggedTypedAndMovedByKeysAndEachIsOneStep() {
        clickOn("#view-levels");
        StripRef celesta = StripRef.of(CELESTA);
        until(() -> lookup("#level-sorrel-celesta").tryQuery().isPresent());
        double before = strip(celesta).levelNow();
        moveTo(at("#level-sorrel-celesta", 0.5)).press(MouseButton.PRIMARY);
        moveTo(at("#level-sorrel-celesta", 0.4));
        moveTo(at("#level-sorrel-celesta", 0.3));
        until(() -> strip(celesta).levelNow() < before - 10);
        release(MouseButton.PRIMARY);
        until(() -> desk().document().isChanged());
        // A fifth of 66 dB.
        assertThat(strip(celesta).levelNow()).isBetween(before - 13.6, before - 12.8);
        // Modules are sent what is nearest: controller 7.
        until(() -> port.messages.contains(
                ShortMessage.controller(0, 7, Loudness.volume(strip(celesta).levelNow()))));
        push(KeyCode.CONTROL, KeyCode.Z);
        until(() -> strip(celesta).levelNow() == before);

        TextField field = lookup("#level-field-sorrel-celesta").query();
        clickOn("#level-field-sorrel-celesta");
        interact(field::selectAll);
        write("-12,5").push(KeyCode.ENTER);
        until(() -> strip(celesta).levelNow() == -12.5);
        assertThat(field.getText()).isEqualTo("−12.5");
        interact(field::selectAll);
        write("loud").push(KeyCode.ENTER);
        assertThat(field.getText()).isEqualTo("−12.5");

        interact(() -> lookup("#level-sorrel-celesta").query().requestFocus());
        push(KeyCode.RIGHT);
        until(() -> strip(celesta).levelNow() == -12.0);
        push(KeyCode.END);
        until(() -> strip(celesta).levelNow() == Loudness.MAX);
        push(KeyCode.HOME);
        until(() -> strip(celesta).levelNow() == Loudness.SILENCE);
        doubleClickOn("#level-sorrel-celesta");
        until(() -> strip(celesta).levelNow() == 0);

        interact(() -> lookup("#pan-sorrel-celesta").query().requestFocus());
        push(KeyCode.LEFT);
        until(() -> strip(celesta).panNow() == 63);
        clickOn("#all-at-zero");
        until(() -> strip(StripRef.of(new PartRef("yarrow", "harp"))).levelNow() == 0);
        interact(() -> lookup("#level-yarrow-harp").query().requestFocus());
        push(KeyCode.RIGHT);
        assertThat(strip(StripRef.of(new PartRef("yarrow", "harp"))).levelNow()).isZero();
    }

    @Test
    void aSoundIsFoundTakenAndFilesAreRefusedInALine() throws Exception {
        clickOn("#view-levels");
        until(() -> lookup("#strip-sorrel-celesta").tryQuery().isPresent());
        inMenu("#strip-sorrel-celesta", "#strip-sound");
        until(() -> lookup("#sounds-search").tryQuery().isPresent());
        clickOn("#sounds-search").write("kalimba");
        until(() -> lookup("#sounds-list")
                        .queryAs(javafx.scene.control.ListView.class)
                        .getItems()
                        .size()
                == 1);
        push(KeyCode.DOWN);
        push(KeyCode.ENTER);
        until(() -> desk().session().part(CELESTA).orElseThrow().program() == 108);

        Path broken = folder.resolve("broken.sf2");
        Files.writeString(broken, "RIFF");
        onFx(() -> window.drop(List.of(broken)));
        until(() ->
                lookup("#ask-told").tryQuery().isPresent() && text("#ask-told").contains("broken.sf2"));
        assertThat(desk().session().soundFiles()).isEmpty();
    }
}
