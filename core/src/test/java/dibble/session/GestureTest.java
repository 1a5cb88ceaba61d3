package dibble.session;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.StripEdits;
import dibble.edits.ZoneEdits;
import dibble.gear.PartRef;
import dibble.gear.StripRef;
import dibble.midi.Range;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

class GestureTest {
    private final Document document = new Document(LamplightersRound.session(), Performance.NEW);
    private final List<Gesture.End> ends = new ArrayList<>();

    private static Session keys(Session session, int high) {
        return ZoneEdits.changeZone(session, "bass-hand", zone -> zone.withKeys(new Range(28, high)));
    }

    private int high() {
        return document.session().zone("bass-hand").orElseThrow().keys().high();
    }

    private Gesture drag(int high) {
        Gesture gesture = document.begin(ends::add);
        gesture.preview(session -> keys(session, high));
        return gesture;
    }

    @Test
    void isOneStepHoweverManyValuesItShows() {
        Gesture gesture = document.begin(ends::add);
        for (int to = 40; to < 50; to++) {
            int now = to;
            gesture.preview(session -> keys(session, now));
        }
        assertThat(high()).isEqualTo(49);
        assertThat(document.isChanged()).isFalse();
        assertThat(document.kept().session()).isEqualTo(LamplightersRound.session());
        gesture.finish(new Edit("keys", session -> keys(session, 49)));
        assertThat(document.undoName()).contains("keys");
        document.undo();
        assertThat(high()).isEqualTo(53);
        document.redo();
        assertThat(high()).isEqualTo(49);
        assertThat(ends).isEmpty();
    }

    @Test
    void leavesNothingWhenItsOwnerLeavesIt() {
        drag(40).leave();
        assertThat(high()).isEqualTo(53);
        assertThat(document.undoName()).isEmpty();
        assertThat(ends).isEmpty();
    }

    @Nested
    class IsCancelled {
        @Test
        void byUndoWhichTakesNothingElseBack() {
            document.edit("name", session -> session.withName("other"));
            Gesture gesture = drag(40);
            document.undo();
            assertThat(high()).isEqualTo(53);
            assertThat(document.undoName()).contains("name");
            gesture.preview(session -> keys(session, 41));
            gesture.finish(new Edit("keys", session -> keys(session, 41)));
            assertThat(high()).isEqualTo(53);
            assertThat(ends).containsExactly(Gesture.End.CANCELLED);
        }

        @Test
        void byAnotherSession() {
            Gesture gesture = drag(40);
            document.open(LamplightersRound.session().withName("other"), Performance.NEW);
            gesture.finish(new Edit("keys", session -> keys(session, 40)));
            assertThat(high()).isEqualTo(53);
            assertThat(document.isChanged()).isFalse();
            assertThat(ends).containsExactly(Gesture.End.CANCELLED);
        }

        @Test
        void byTheNextGesture() {
            Gesture first = drag(40);
            Gesture second = document.begin(end -> {});
            second.preview(session -> session.withName("dragged"));
            assertThat(first.isOpen()).isFalse();
            assertThat(high()).isEqualTo(53);
            assertThat(document.session().name()).isEqualTo("dragged");
            assertThat(ends).containsExactly(Gesture.End.REPLACED);
        }

        @Test
        void whenItsObjectIsGone() {
            PartRef part = new PartRef("sorrel", "bowls");
            Gesture gesture = document.begin(ends::add);
            gesture.preview(session -> StripEdits.move(session, null, StripRef.of(part), -6));
            document.edit("gear", session -> session.withInstruments(List.of()).withZones(List.of()));
            assertThat(document.session().instruments()).isEmpty();
            assertThat(gesture.isOpen()).isFalse();
            assertThat(ends).containsExactly(Gesture.End.CANCELLED);
        }
    }

    @Test
    void followsAnEditThatSomethingElseMakes() {
        Gesture gesture = drag(40);
        document.edit("take", session -> session.withName("with a take"));
        assertThat(high()).isEqualTo(40);
        gesture.finish(new Edit("keys", session -> keys(session, 40)));
        document.undo();
        assertThat(document.session().name()).isEqualTo("with a take");
        assertThat(high()).isEqualTo(53);
    }

    @Test
    void dropsAResultThatWasComputedFromAnotherSession() {
        Gesture gesture = document.begin(ends::add);
        Session before = document.session();
        gesture.preview(before, keys(before, 40));
        assertThat(high()).isEqualTo(40);
        document.edit("name", session -> session.withName("edited"));
        assertThat(high()).isEqualTo(53);
        assertThat(document.session().name()).isEqualTo("edited");
        assertThat(gesture.isOpen()).isTrue();
    }

    @Nested
    class Run {
        private final Object run = new Object();

        private void step(int to) {
            document.edit(new Edit("keys", session -> keys(session, to)), run);
        }

        @Test
        void isOneStep() {
            for (int to = 40; to < 50; to++) {
                step(to);
            }
            assertThat(high()).isEqualTo(49);
            document.undo();
            assertThat(high()).isEqualTo(53);
            assertThat(document.undoName()).isEmpty();
            document.redo();
            assertThat(high()).isEqualTo(49);
        }

        @Test
        void isNoStepWhenItLeadsBack() {
            step(40);
            step(53);
            assertThat(document.undoName()).isEmpty();
            assertThat(document.redoName()).isEmpty();
            assertThat(document.isChanged()).isFalse();
        }

        @Test
        void endsAtAnotherEditAndAtUndo() {
            step(40);
            document.edit("name", session -> session.withName("other"));
            step(41);
            document.undo();
            assertThat(high()).isEqualTo(40);
            document.undo();
            document.undo();
            assertThat(high()).isEqualTo(53);
        }

        @Test
        void keepsTheSavedSessionInTheHistory() {
            step(40);
            document.markSaved(document.session(), document.performance());
            step(41);
            assertThat(document.isChanged()).isTrue();
            document.undo();
            assertThat(high()).isEqualTo(40);
            assertThat(document.isChanged()).isFalse();
        }
    }

    /** Compares the document with a list of finished edits, for any order of everything that can happen to it. */
    @Property(tries = 500)
    void onlyFinishedGesturesCount(@ForAll long seed) {
        Random random = new Random(seed);
        Document edited = new Document(LamplightersRound.session(), Performance.NEW);
        List<Session> model = new ArrayList<>(List.of(edited.session()));
        int now = 0;
        Gesture gesture = null;
        List<Gesture> old = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            int to = 30 + random.nextInt(12);
            Edit edit = new Edit("keys", session -> keys(session, to));
            Session next = edit.change().apply(model.get(now));
            boolean open = gesture != null && gesture.isOpen();
            switch (random.nextInt(10)) {
                case 0 -> {
                    gesture = edited.begin(end -> {});
                    old.add(gesture);
                }
                case 1, 2, 3 -> {
                    if (gesture != null) {
                        gesture.preview(edit.change());
                    }
                }
                case 4 -> {
                    // A late release of a gesture that ended long ago, or of the one that is open.
                    Gesture released = old.isEmpty() ? null : old.get(random.nextInt(old.size()));
                    boolean counts = released != null && released.isOpen();
                    if (released != null) {
                        released.finish(edit);
                    }
                    now = counts ? add(model, now, next) : now;
                }
                case 5 -> edited.cancelGesture();
                case 6 -> {
                    edited.undo();
                    now = open ? now : Math.max(0, now - 1);
                }
                case 7 -> {
                    edited.redo();
                    now = open ? now : Math.min(model.size() - 1, now + 1);
                }
                case 8 -> {
                    edited.edit(edit);
                    now = add(model, now, next);
                }
                default -> {
                    Object mine = new Object();
                    edited.edit(edit, mine);
                    edited.edit(new Edit("keys", session -> keys(session, 44)), mine);
                    int before = now;
                    now = add(model, now, next);
                    if (now > before) {
                        model.remove(now--);
                    }
                    now = add(model, now, keys(next, 44));
                }
            }
            assertThat(edited.kept().session()).isEqualTo(model.get(now));
            if (edited.gesture() == null) {
                assertThat(edited.session()).isEqualTo(model.get(now));
            }
        }
        edited.cancelGesture();
        while (edited.undoName().isPresent()) {
            edited.undo();
            assertThat(edited.session()).isEqualTo(model.get(--now));
        }
        assertThat(now).isZero();
        assertThat(edited.isChanged()).isFalse();
    }

    private static int add(List<Session> model, int now, Session next) {
        if (next.equals(model.get(now))) {
            return now;
        }
        while (model.size() > now + 1) {
            model.remove(model.size() - 1);
        }
        model.add(next);
        return now + 1;
    }
}
