package dibble.desktop.app;

import dibble.demo.LamplightersRound;
import dibble.edits.NoteEdits;
import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.notes.Grid;
import dibble.notes.NoteFunction;
import dibble.notes.Quantize;
import dibble.recording.ClipIndex;
import dibble.recording.PrintMode;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.IntConsumer;
import javafx.animation.AnimationTimer;
import javafx.event.Event;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.PickResult;
import javafx.scene.input.ScrollEvent;
import org.junit.jupiter.api.Test;

/**
 * Frame times of the notes of a long track, and how long changes and opening take. No test: {@code ./dibble bench notes}
 * runs it and prints what it measures.
 */
class NotesMeasurement extends WindowTest {
    private static final int STEPS = 150;
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");

    private static MidiTrack clip(int notes) {
        Random random = new Random(1);
        MidiTrack.Builder clip = new MidiTrack.Builder();
        int[] keys = new int[4];
        for (int i = 0; i < notes; i++) {
            long at = i * 120L + random.nextInt(40);
            int voice = i % keys.length;
            if (i >= keys.length) {
                clip.add(at, ShortMessage.noteOff(0, keys[voice], 64));
            }
            keys[voice] = 40 + voice * 12 + random.nextInt(12);
            clip.add(at, ShortMessage.noteOn(0, keys[voice], 40 + random.nextInt(80)));
        }
        return clip.build(notes * 120L + 2000);
    }

    private static Session session(int notes) {
        MidiTrack clip = clip(notes);
        Regions regions = new Regions(List.of(new Region(null, 0, clip.endTick(), PrintMode.REPLACE_ALL, false, clip)));
        return LamplightersRound.session()
                .withTracks(List.of(Track.of("celesta", "Celesta", CELESTA).withRegions(regions)));
    }

    @Override
    Session session() {
        return session(100_000);
    }

    @Override
    boolean isWatched() {
        return false;
    }

    private static double median(int times, Runnable act) {
        List<Double> took = new ArrayList<>();
        for (int i = 0; i < times; i++) {
            long from = System.nanoTime();
            act.run();
            took.add((System.nanoTime() - from) / 1e6);
        }
        took.sort(null);
        return took.get(took.size() / 2);
    }

    /** Does something in each of many frames, and says how long they were. */
    private void frames(String what, IntConsumer step) throws Exception {
        List<Double> took = new ArrayList<>();
        List<Double> work = new ArrayList<>();
        CountDownLatch done = new CountDownLatch(1);
        AnimationTimer timer = new AnimationTimer() {
            private int frame;
            private long before;

            @Override
            public void handle(long now) {
                if (before != 0) {
                    took.add((System.nanoTime() - before) / 1e6);
                }
                before = System.nanoTime();
                if (frame == STEPS) {
                    stop();
                    done.countDown();
                } else {
                    step.accept(frame++);
                    work.add((System.nanoTime() - before) / 1e6);
                }
            }
        };
        onFx(timer::start);
        done.await();
        took.sort(null);
        System.out.printf(
                "%s: %d frames, median %.1f ms, 95 %% %.1f ms, worst %.1f ms%n",
                what,
                took.size(),
                took.get(took.size() / 2),
                took.get(took.size() * 95 / 100),
                took.get(took.size() - 1));
    }

    private void scroll(double along, double up, boolean shift, boolean control) {
        Node area = lookup("#note-area").query();
        Bounds bounds = area.localToScene(area.getBoundsInLocal());
        double x = bounds.getMinX() + bounds.getWidth() / 2;
        double y = bounds.getMinY() + bounds.getHeight() / 2;
        Event.fireEvent(
                area,
                new ScrollEvent(
                        ScrollEvent.SCROLL,
                        bounds.getWidth() / 2,
                        bounds.getHeight() / 2,
                        x,
                        y,
                        shift,
                        control,
                        false,
                        false,
                        true,
                        false,
                        along,
                        up,
                        along,
                        up,
                        ScrollEvent.HorizontalTextScrollUnits.NONE,
                        0,
                        ScrollEvent.VerticalTextScrollUnits.NONE,
                        0,
                        0,
                        new PickResult(area, x, y)));
    }

    private void mouse(javafx.event.EventType<MouseEvent> type, double x, double y) {
        Node area = lookup("#note-area").query();
        Bounds bounds = area.localToScene(area.getBoundsInLocal());
        double sceneX = bounds.getMinX() + x;
        double sceneY = bounds.getMinY() + y;
        Event.fireEvent(
                area,
                new MouseEvent(
                        type,
                        x,
                        y,
                        sceneX,
                        sceneY,
                        MouseButton.PRIMARY,
                        1,
                        false,
                        false,
                        false,
                        false,
                        true,
                        false,
                        false,
                        false,
                        false,
                        false,
                        new PickResult(area, sceneX, sceneY)));
    }

    @Test
    void measure() throws Exception {
        Session session = session();
        Track track = session.tracks().get(0);
        ClipIndex index = ClipIndex.of(track.sounding());
        BitSet all = NoteFunction.all(index);
        Grid grid = Grid.of(Grid.Step.parse("1/16"), TempoMap.of(96), 0);
        System.out.printf(
                "quantizing 100,000 notes: median of 15 %.0f ms%n",
                median(15, () -> NoteEdits.change(session, Map.of("celesta", all), Quantize.starts(grid))));
        MidiTrack twice = clip(200_000);
        System.out.printf("finding 200,000 notes: median of 15 %.0f ms%n", median(15, () -> ClipIndex.of(twice)));
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        until(() -> lookup("#track-celesta").tryQuery().isPresent());
        open("100,000 notes");
        frames("eight bars, scrolled along", frame -> scroll(-40, 0, false, false));
        frames("eight bars, scrolled up and down", frame -> scroll(0, frame / 10 % 2 == 0 ? 20 : -20, false, false));
        onFx(() -> desk().commands().get("zoom-all").action().run());
        frames("all of it, standing", frame -> {});
        frames(
                "zoomed in and out between all of it and less",
                frame -> scroll(0, frame / 25 % 2 == 0 ? 40 : -40, false, true));
        frames("a tenth of it, scrolled along", frame -> {
            if (frame == 0) {
                for (int i = 0; i < 10; i++) {
                    scroll(0, 40, false, true);
                }
            }
            scroll(-15, 0, false, false);
        });
        onFx(() -> {
            desk().commands().get("zoom-all").action().run();
            for (int i = 0; i < 16; i++) {
                scroll(0, 40, false, true);
            }
        });
        pass();
        Node area = lookup("#note-area").query();
        onFx(() -> {
            mouse(MouseEvent.MOUSE_PRESSED, 2, 2);
            mouse(
                    MouseEvent.MOUSE_DRAGGED,
                    area.getBoundsInLocal().getWidth() - 4,
                    area.getBoundsInLocal().getHeight() - 4);
            mouse(
                    MouseEvent.MOUSE_RELEASED,
                    area.getBoundsInLocal().getWidth() - 4,
                    area.getBoundsInLocal().getHeight() - 4);
        });
        pass();
        System.out.println("  " + text("#notes-count"));
        frames("these dragged", frame -> {
            if (frame == 0) {
                pressANote(area);
            }
            mouse(MouseEvent.MOUSE_DRAGGED, pressX + frame / 2.0, pressY);
        });
        onFx(() -> mouse(MouseEvent.MOUSE_RELEASED, pressX, pressY));
        fire("#notes-close");
        Session twiceAsMany = session(200_000);
        onFx(() -> workbench.open(twiceAsMany, Performance.NEW));
        // What is kept for a crash is written meanwhile.
        TimeUnit.SECONDS.sleep(5);
        for (int i = 0; i < 3; i++) {
            open("200,000 notes");
            pass();
            fire("#notes-close");
            pass();
        }
    }

    private void fire(String button) {
        onFx(() -> lookup(button).queryAs(ButtonBase.class).fire());
    }

    /** From the key that opens a track's notes until they are drawn. */
    private void open(String counted) throws Exception {
        until(() -> lookup("#track-celesta").tryQuery().isPresent());
        CountDownLatch done = new CountDownLatch(1);
        onFx(() -> {
            Node row = lookup("#track-celesta").query();
            row.requestFocus();
            long from = System.nanoTime();
            Event.fireEvent(row, new KeyEvent(KeyEvent.KEY_PRESSED, "", "", KeyCode.ENTER, false, false, false, false));
            new AnimationTimer() {
                @Override
                public void handle(long now) {
                    if (text("#notes-count").startsWith(counted)) {
                        stop();
                        System.out.printf("opening %s: %.0f ms%n", counted, (System.nanoTime() - from) / 1e6);
                        done.countDown();
                    }
                }
            }.start();
        });
        done.await();
    }

    private double pressX;
    private double pressY;

    /** Presses where there is a note: the pointer says so. */
    private void pressANote(Node area) {
        for (double y = 20; y < area.getBoundsInLocal().getHeight() - 10; y += 8) {
            for (double x = 200; x < 500; x++) {
                mouse(MouseEvent.MOUSE_MOVED, x, y);
                if (area.getCursor() == javafx.scene.Cursor.HAND) {
                    pressX = x;
                    pressY = y;
                    mouse(MouseEvent.MOUSE_PRESSED, x, y);
                    return;
                }
            }
        }
        throw new IllegalStateException("no note to be pressed");
    }

    private void pass() {
        CountDownLatch frames = new CountDownLatch(1);
        onFx(() -> desk().pulse().once(frames::countDown));
        try {
            frames.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
