package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.List;
import java.util.function.Function;
import java.util.stream.IntStream;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.PickResult;
import javafx.scene.input.ScrollEvent;
import javafx.scene.shape.CubicCurve;
import org.junit.jupiter.api.Test;

/** Drags of every kind with every interruption: each restores the session, and no key hangs. */
class InterruptedDragsTest extends WindowTest {
    private static final long BAR = 4L * TempoMap.PPQ;

    private enum Interruption {
        ESCAPE,
        UNDO,
        SECOND_BUTTON,
        OTHER_VIEW,
        OTHER_SESSION
    }

    @Override
    Session session() {
        return demoWithNotes();
    }

    /** The demo with eight bars of notes on a track. */
    static Session demoWithNotes() {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (int i = 0; i < 16; i++) {
            clip.add(i * BAR / 2, ShortMessage.noteOn(0, 60, 60 + i));
            clip.add(i * BAR / 2 + BAR / 4, ShortMessage.noteOff(0, 60, 64));
        }
        Session demo = LamplightersRound.session();
        return demo.withTracks(List.of(Track.of("celesta", "Celesta", new PartRef("sorrel", "celesta"))
                .withRegions(Regions.own(clip.build(8 * BAR)))));
    }

    private void interrupt(Interruption how) {
        switch (how) {
            case ESCAPE -> type(KeyCode.ESCAPE);
            case UNDO -> push(KeyCode.CONTROL, KeyCode.Z);
            case SECOND_BUTTON -> press(MouseButton.SECONDARY).release(MouseButton.SECONDARY);
            case OTHER_VIEW -> push(KeyCode.CONTROL, KeyCode.DIGIT1);
            case OTHER_SESSION -> interact(() -> workbench.open(session().withName("other"), Performance.NEW));
        }
    }

    private boolean isAnyKeyDown() {
        return desk().session().sources().stream()
                .map(Source::id)
                .anyMatch(source ->
                        IntStream.range(0, 128).anyMatch(key -> desk().live().isDown(source, key)));
    }

    /** Drags from one point to another with each interruption in the middle. */
    private void dragInterrupted(int view, String what, Function<Node, Point2D> place, Point2D by) {
        for (Interruption how : Interruption.values()) {
            interact(() -> {
                workbench.open(session(), Performance.NEW);
                desk().document().edit("before", session -> session.withName("edited"));
                desk().selection()
                        .control()
                        .set(desk().session().controls().get(0).id());
            });
            push(KeyCode.CONTROL, KeyCode.valueOf("DIGIT" + view));
            until(() -> lookup(what).tryQuery().filter(Node::isVisible).isPresent());
            settle();
            Session before = desk().document().kept().session();
            Point2D from = onFx(() -> place.apply(lookup(what).query()));
            moveTo(from).press(MouseButton.PRIMARY);
            moveTo(from.add(by));
            assertThat(desk().document().gesture()).as(what + " is dragged").isNotNull();
            interrupt(how);
            moveTo(from.add(by.multiply(1.5)));
            release(MouseButton.PRIMARY);
            settle();
            String as = what + " " + how;
            assertThat(desk().document().gesture()).as(as).isNull();
            Session left = how == Interruption.OTHER_SESSION ? session().withName("other") : before;
            assertThat(desk().session()).as(as).isEqualTo(left);
            assertThat(desk().document().kept().session()).as(as).isEqualTo(left);
            assertThat(desk().document().undoName().isPresent()).as(as).isEqualTo(how != Interruption.OTHER_SESSION);
            until(() -> !isAnyKeyDown());
        }
    }

    private static Function<Node, Point2D> at(double x, double y) {
        return node -> {
            Bounds bounds = node.localToScreen(node.getBoundsInLocal());
            return new Point2D(bounds.getMinX() + bounds.getWidth() * x, bounds.getMinY() + bounds.getHeight() * y);
        };
    }

    /** A point on a ribbon near its end, where it runs level. */
    private static Point2D nearEnd(Node ribbon) {
        CubicCurve curve = (CubicCurve) ribbon.lookup(".ribbon-outline");
        return curve.localToScreen(curve.getEndX() - 25, curve.getEndY());
    }

    /** The low end of a curve that begins at zero. */
    private static Point2D lowEnd(Node curve) {
        return curve.localToScreen(9, curve.getLayoutBounds().getHeight() - 9);
    }

    @Test
    void leaveZonesCurvesLevelsAndConnectionsAlone() {
        dragInterrupted(2, "#zone-marimba", at(0.5, 0.5), new Point2D(60, 0));
        dragInterrupted(2, "#part-yarrow-harp", at(0.5, 0.5), new Point2D(-300, 0));
        dragInterrupted(3, "#ribbon-marimba-2", InterruptedDragsTest::nearEnd, new Point2D(-60, 30));
        dragInterrupted(4, "#control-curve", InterruptedDragsTest::lowEnd, new Point2D(20, -20));
        dragInterrupted(6, "#level-sorrel-celesta", at(0.5, 0.5), new Point2D(-40, 0));
    }

    @Test
    void leaveNotesAndVelocitiesAlone() {
        openNotes();
        dragInterrupted(5, "#velocity-area", at(0.01, 0.9), new Point2D(200, -30));
    }

    private void openNotes() {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        until(() -> lookup("#track-celesta").tryQuery().isPresent());
        interact(() -> lookup("#track-celesta").query().requestFocus());
        push(KeyCode.ENTER);
        until(() -> lookup("#note-area").query().isFocused());
    }

    @Test
    void trackpadMovesALevelByASteppedAmountThatIsOneStepOfUndo() {
        push(KeyCode.CONTROL, KeyCode.DIGIT6);
        until(() -> lookup("#level-sorrel-celesta").tryQuery().isPresent());
        Session before = desk().session();
        interact(() -> {
            Node bar = lookup("#level-sorrel-celesta").query();
            bar.requestFocus();
            for (int i = 0; i < 80; i++) {
                bar.fireEvent(scroll(bar, -1.5));
            }
        });
        Session after = desk().session();
        assertThat(after).isNotEqualTo(before);
        interact(() -> desk().document().undo());
        assertThat(desk().session()).isEqualTo(before);
        assertThat(desk().document().undoName()).isEmpty();
    }

    static ScrollEvent scroll(Node node, double pixels) {
        return new ScrollEvent(
                node,
                node,
                ScrollEvent.SCROLL,
                5,
                5,
                5,
                5,
                false,
                false,
                false,
                false,
                false,
                false,
                0,
                pixels,
                0,
                pixels,
                ScrollEvent.HorizontalTextScrollUnits.NONE,
                0,
                ScrollEvent.VerticalTextScrollUnits.NONE,
                0,
                0,
                new PickResult(node, 5, 5));
    }
}
