package dibble.desktop.app;

import dibble.demo.LamplightersRound;
import dibble.edits.GearEdits;
import dibble.edits.ZoneEdits;
import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.presentation.app.Page;
import dibble.routing.Zone;
import dibble.session.Session;
import dibble.standins.StandIn;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import javafx.animation.AnimationTimer;
import javafx.scene.control.ToggleButton;
import org.junit.jupiter.api.Test;

/**
 * Frame times of Gear with 64 ports and 40 instruments of 16 parts. No test: {@code ./dibble bench frames} runs it and
 * prints what it measures.
 */
class FrameMeasurement extends WindowTest {
    private static final int INSTRUMENTS = 40;
    private static final int SOURCES = 24;

    private final List<Long> frames = new ArrayList<>();
    private final List<Long> edits = new ArrayList<>();
    private final AnimationTimer timer = new AnimationTimer() {
        private long before;

        @Override
        public void handle(long now) {
            if (before != 0) {
                frames.add(now - before);
            }
            before = now;
        }

        @Override
        public void start() {
            before = 0;
            super.start();
        }
    };

    @Override
    Session session() {
        return Session.empty("Bare");
    }

    @Override
    boolean isWatched() {
        return false;
    }

    private static Session many() {
        List<Instrument> instruments = new ArrayList<>();
        for (int i = 0; i < INSTRUMENTS; i++) {
            List<Part> parts = new ArrayList<>();
            for (int p = 0; p < 16; p++) {
                parts.add(Part.of("p" + p, "Part " + (p + 1), null, p, Range.ALL, 1 + p));
            }
            instruments.add(Instrument.of("i" + i, "Instrument " + (i + 1), false, "stand-in:i" + i, parts));
        }
        List<Source> sources = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        for (int s = 0; s < SOURCES; s++) {
            sources.add(Source.keyboard("s" + s, "Source " + (s + 1), "stand-in:s" + s, new Range(28, 100)));
            zones.add(Zone.of("z" + s, "", "s" + s, Range.ALL, new PartRef("i" + s, "p0")));
        }
        return Session.empty("Many")
                .withInstruments(instruments)
                .withSources(sources)
                .withZones(zones);
    }

    private void report(String what) {
        long[] sorted = frames.stream().mapToLong(Long::longValue).sorted().toArray();
        if (sorted.length > 0) {
            System.out.printf(
                    "%s: %d frames, median %.1f ms, 99 %% %.1f ms, worst %.1f ms%n",
                    what,
                    sorted.length,
                    sorted[sorted.length / 2] / 1e6,
                    sorted[(int) (sorted.length * 0.99)] / 1e6,
                    sorted[sorted.length - 1] / 1e6);
        }
    }

    private void during(String what, Runnable act) throws Exception {
        onFx(() -> {
            frames.clear();
            timer.start();
        });
        act.run();
        onFx(timer::stop);
        report(what);
    }

    @Test
    void measure() throws Exception {
        Session many = many();
        long[] plans = new long[50];
        for (int i = 0; i < plans.length; i++) {
            long from = System.nanoTime();
            ChannelPlan.of(many.instruments(), Map.of());
            plans[i] = System.nanoTime() - from;
        }
        Arrays.sort(plans);
        System.out.printf(
                "planning 640 parts: median %.2f ms, worst %.2f ms%n", plans[25] / 1e6, plans[plans.length - 1] / 1e6);
        long from = System.nanoTime();
        onFx(() -> workbench.open(many, dibble.session.Performance.NEW));
        System.out.printf("opening: %.0f ms%n", (System.nanoTime() - from) / 1e6);
        during("showing it first", () -> {
            onFx(() -> window.show(Page.GEAR));
            pass(3);
        });
        during("played by 24 sources, 2,000 events a second", () -> play(5, SOURCES));
        during("an edit every 200 ms", () -> {
            for (int i = 0; i < 20; i++) {
                int level = i;
                edit(level);
                pass(0.2);
            }
        });
        onFx(() -> desk().selection().part().set("i3/p2"));
        pass(0.5);
        during("the same with its details shown", () -> {
            for (int i = 0; i < 20; i++) {
                int level = 40 + i;
                edit(level);
                pass(0.2);
            }
        });
        edits.sort(null);
        System.out.printf(
                "carrying out an edit: median %.1f ms, worst %.1f ms%n",
                edits.get(edits.size() / 2) / 1e6, edits.get(edits.size() - 1) / 1e6);
        during("a cable pulled and put in again, ten times", () -> {
            StandIn device = desk().standIns().standIn("stand-in:s3").orElseThrow();
            for (int i = 0; i < 20; i++) {
                device.plug(i % 2 == 1);
                pass(0.2);
            }
        });
    }

    private void edit(int level) {
        long from = System.nanoTime();
        onFx(() -> desk().document()
                .edit(
                        "level",
                        session -> GearEdits.changePart(
                                session,
                                new PartRef("i3", "p2"),
                                part -> part.withStrip(part.strip().withVolume(level)))));
        edits.add(System.nanoTime() - from);
    }

    /** Keys with 8 sources of 128 keys and 200 zones. */
    @Test
    void measureKeys() throws Exception {
        List<Part> parts = new ArrayList<>();
        for (int p = 0; p < 16; p++) {
            parts.add(Part.of("p" + p, "Part " + (p + 1), null, p, Range.ALL, 1 + p));
        }
        List<Source> sources = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        for (int s = 0; s < 8; s++) {
            sources.add(Source.keyboard("s" + s, "Source " + (s + 1), "stand-in:s" + s, Range.ALL));
            for (int z = 0; z < 25; z++) {
                int low = z * 5;
                zones.add(Zone.of(
                        "z" + s + "-" + z,
                        "",
                        "s" + s,
                        new Range(low, Math.min(127, low + 6)),
                        new PartRef("i", "p" + z % 16)));
            }
        }
        Session session = Session.empty("Zones")
                .withSources(sources)
                .withInstruments(List.of(Instrument.of("i", "Instrument", false, "stand-in:i", parts)))
                .withZones(zones);
        onFx(() -> workbench.open(session, dibble.session.Performance.NEW));
        during("Keys, shown first", () -> {
            onFx(() -> window.show(Page.KEYS));
            pass(3);
        });
        during("Keys, played by 8 sources, 2,000 events a second", () -> play(5, 8));
        during("Keys, a zone moved every 100 ms", () -> {
            for (int i = 0; i < 40; i++) {
                int high = 6 + i % 3;
                onFx(() -> desk().document()
                        .edit(
                                "keys",
                                before -> ZoneEdits.changeZone(
                                        before, "z3-0", zone -> zone.withKeys(new Range(0, high)))));
                pass(0.1);
            }
        });
    }

    /** Each view with the monitor and why? open, under 2,000 events a second of five sources of the demo. */
    @Test
    void measureViewsWithTheMonitorOpen() throws Exception {
        onFx(() -> workbench.open(LamplightersRound.session(), LamplightersRound.performance()));
        for (boolean open : new boolean[] {false, true}) {
            onFx(() -> {
                for (String panel : List.of("#show-passed", "#show-why")) {
                    ToggleButton button = lookup(panel).query();
                    if (button.isSelected() != open) {
                        button.fire();
                    }
                }
            });
            for (Page page :
                    List.of(Page.GEAR, Page.KEYS, Page.CHANNELS, Page.CONTROLS, Page.TAKES, Page.SCENES, Page.CHECKS)) {
                onFx(() -> window.show(page));
                pass(2);
                long before = workbench.studio().monitorSkipped();
                during(page + (open ? ", monitor and why? open" : "") + ", 2,000 events a second", this::playDemo);
                System.out.println(
                        "  skipped by the monitor: " + (workbench.studio().monitorSkipped() - before));
            }
        }
    }

    /** 25 notes each 25 ms, spread over the demo's sources and lanes. */
    private void playDemo() {
        List<String> players = List.of("larkspur", "tansy", "sedge", "fern", "teasel");
        List<Integer> channels = List.of(0, 1, 9, 2, 4);
        for (int i = 0; i < 4 * 40; i++) {
            for (int s = 0; s < 25; s++) {
                int who = s % players.size();
                StandIn device = desk().standIns()
                        .standIn("stand-in:" + players.get(who))
                        .orElseThrow();
                int key = desk().session()
                                .source(players.get(who))
                                .orElseThrow()
                                .keys()
                                .low()
                        + (i + s) % 16;
                device.play(ShortMessage.noteOn(channels.get(who), key, 60));
                device.play(ShortMessage.noteOff(channels.get(who), key, 64));
            }
            pass(0.025);
        }
    }

    /** Lets frames pass; what is measured is time. */
    private static void pass(double seconds) {
        try {
            TimeUnit.MILLISECONDS.sleep((long) (seconds * 1000));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void play(int seconds, int players) {
        for (int i = 0; i < seconds * 40; i++) {
            for (int s = 0; s < 25; s++) {
                StandIn device =
                        desk().standIns().standIn("stand-in:s" + s % players).orElseThrow();
                int key = 40 + (i + s) % 40;
                device.play(ShortMessage.noteOn(0, key, 80));
                device.play(ShortMessage.noteOff(0, key, 64));
            }
            pass(0.025);
        }
    }
}
