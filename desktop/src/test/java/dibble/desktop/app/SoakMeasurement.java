package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.edits.ZoneEdits;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.jack.JackDevices;
import dibble.midi.Range;
import dibble.presentation.app.Page;
import dibble.presentation.app.ProgramPorts;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionSet;
import dibble.sound.AudioEngine;
import dibble.standins.Fault;
import dibble.standins.StandIn;
import dibble.studio.RecordOptions.Stretch;
import dibble.studio.Transport;
import dibble.testing.JackServer;
import dibble.time.Clock;
import dibble.time.TempoMap;
import dibble.user.SetFile;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import javafx.scene.control.ButtonBase;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A session of hours in one process: eight sources play, and a user records, edits, undoes, mutes, loops, changes scenes and
 * views, saves, opens and goes through a set, while cables are pulled and a server of ports comes and goes. Once a minute
 * it is compared with the contract, and measured. No test: {@code ./dibble bench soak} runs it.
 */
class SoakMeasurement extends WindowTest {
    private static final long HOURS_TO_NANOS = TimeUnit.HOURS.toNanos(1);
    private static final double HOURS = Double.parseDouble(System.getProperty("dibble.soak.hours", "3"));
    private static final Path RESULTS = Path.of(System.getProperty("dibble.soak.results", "target/soak"));
    private static final int RECORDED_STEPS = 60;
    private static final int PLAYED_STEPS = 24;
    private static final long STEP_NANOS = TimeUnit.MILLISECONDS.toNanos(500);
    private static final String LOOPED = "stand-in:sorrel";
    private static final List<String> NAMES = List.of("celesta", "marimba", "harp");
    private static final int JACK_CYCLES = 5;
    private static final int LOOP_CYCLES = 4;

    @TempDir
    private Path folder;

    private final Random random = new Random(20);
    private final List<SoakPlayer> players = new ArrayList<>();
    private final List<String> violations = new ArrayList<>();
    private final JackServer server = new JackServer();
    private SoakWire wire;
    private boolean serves;
    private long begun;

    /** The source whose cable was pulled while it recorded, or null. */
    private String pulled;

    @Override
    Session session() {
        Session demo = LamplightersRound.session();
        List<Source> sources = new ArrayList<>(demo.sources());
        sources.add(Source.keyboard("burdock", "Burdock", "stand-in:burdock", Range.ALL));
        sources.add(Source.keyboard("mallow", "Mallow", "stand-in:mallow", Range.ALL));
        sources.add(Source.keyboard("clover", "Clover", LOOPED, Range.ALL));
        Session more = demo.withSources(sources);
        int number = 0;
        for (String source : List.of("burdock", "mallow", "clover")) {
            PartRef part =
                    new PartRef("sorrel", List.of("celesta", "kalimba", "bowls").get(number++));
            more = ZoneEdits.addZone(more, Zone.of("soak-" + source, "", source, Range.ALL, part), null);
        }
        return more;
    }

    @Override
    Workbench workbench() {
        JackServer.assumeInstalled();
        JackDevices jack = new JackDevices(Clock.SYSTEM);
        wire = new SoakWire(new AudioEngine(Clock.SYSTEM, settings -> ProgramPorts.sound(jack, settings)));
        return Workbench.among(session(), Performance.NEW, wire, jack, userFolder);
    }

    @Override
    boolean isWatched() {
        return false;
    }

    @Test
    void measure() throws Exception {
        begun = System.nanoTime();
        SoakSamples samples = new SoakSamples(RESULTS);
        openSet();
        for (Source source : onFx(() -> desk().session().sources())) {
            players.add(new SoakPlayer(
                    source,
                    desk().standIns().standIn(source.port()).orElseThrow(),
                    source.id().hashCode()));
        }
        for (int cycle = 0; System.nanoTime() - begun < HOURS * HOURS_TO_NANOS; cycle++) {
            int known = violations.size();
            cycle(cycle);
            violations
                    .subList(known, violations.size())
                    .forEach(found -> System.out.printf("minute %.1f: %s%n", minute(), found));
            showAll();
            samples.take(minute(), wire, violations.size());
            boolean isWarm = minute() > HOURS * 60 / 2;
            if (isWarm) {
                samples.explain();
            }
            if (violations.size() > 100) {
                break;
            }
        }
        players.forEach(SoakPlayer::close);
        server.close();
        List<String> rising = samples.rising();
        System.out.printf("%.1f minutes, %d violations, rising: %s%n", minute(), violations.size(), rising);
        assertThat(violations).isEmpty();
        assertThat(rising).isEmpty();
    }

    /** Shows every view once. Views cache their drawings, so samples are only comparable after this. */
    private void showAll() {
        for (Page page : Page.values()) {
            onFx(() -> window.show(page));
            until(() -> !desk().context().jobs().running().isPresent());
            settle();
        }
    }

    private double minute() {
        return (System.nanoTime() - begun) / 60e9;
    }

    private void openSet() throws Exception {
        SessionSet set = SessionSet.empty("Soak");
        for (String name : NAMES) {
            set = set.with(new SessionSet.Entry(name + ".dibble"));
            keep(name);
        }
        Path file = folder.resolve("soak" + SetFile.ENDING);
        SetFile.write(set, file);
        onFx(() -> window.drop(List.of(file)));
        go(0);
    }

    private void keep(String name) throws Exception {
        SessionFile.write(folder.resolve(name + ".dibble"), session().withName(name), LamplightersRound.performance());
    }

    private void go(int number) {
        onFx(() -> window.show(Page.SET));
        String button = "#set-go-" + number;
        until(() -> lookup(button).tryQuery().isPresent());
        onFx(() -> lookup(button).queryAs(ButtonBase.class).fire());
        until(() -> {
            lookup(labelled("Don’t save")).<ButtonBase>tryQuery().ifPresent(ButtonBase::fire);
            return desk().session().name().equals(NAMES.get(number))
                    && !desk().document().isChanged();
        });
    }

    private void cycle(int cycle) throws Exception {
        Session before = onFx(() -> desk().session());
        if (cycle % JACK_CYCLES == 0) {
            changeServer();
        }
        if (cycle % LOOP_CYCLES == 1) {
            loop();
        }
        record(cycle);
        play(cycle);
        if (cycle % 2 == 0) {
            saveAndOpen(NAMES.get(cycle % NAMES.size()));
        } else {
            undoEverything(before);
        }
        // Restore the saved file. Otherwise the sessions would grow for hours.
        go((cycle + 1) % NAMES.size());
        keep(NAMES.get(cycle % NAMES.size()));
        violations.addAll(wire.violations());
        String trouble = onFx(workbench::recordingTrouble);
        if (trouble != null) {
            violations.add(trouble);
        }
        if (workbench.soundTrouble() != null) {
            violations.add(workbench.soundTrouble());
        }
    }

    private void changeServer() throws Exception {
        if (serves) {
            server.kill();
            server.close();
        } else {
            server.start();
        }
        serves = !serves;
    }

    private void record(int cycle) {
        pulled = null;
        long lost = workbench.studio().lost();
        onFx(workbench::record);
        until(() -> workbench.studio().recording() != null
                && desk().studio().transport() == Transport.RECORDING
                && desk().studio().countsIn() == 0);
        wire.measure(true);
        players.forEach(SoakPlayer::begin);
        for (int i = 0; i < RECORDED_STEPS; i++) {
            LockSupport.parkNanos(STEP_NANOS);
            onFx(this::edit);
            if (i % 8 == 3) {
                onFx(() -> window.show(Page.values()[random.nextInt(Page.values().length)]));
            }
            if (cycle % 3 == 2 && i == RECORDED_STEPS / 3) {
                pull();
            }
        }
        players.forEach(SoakPlayer::end);
        await().until(() -> players.stream().allMatch(SoakPlayer::rests));
        wire.measure(false);
        onFx(() -> desk().studio().stop());
        until(() -> !desk().session().takes().isEmpty());
        Session after = onFx(() -> desk().session());
        check(after.takes().get(after.takes().size() - 1));
        rest("recorded");
        if (workbench.studio().lost() != lost) {
            violations.add("events were lost: " + (workbench.studio().lost() - lost));
        }
    }

    /** A cable is pulled while it is played, and put in again. */
    private void pull() {
        SoakPlayer player = players.get(random.nextInt(players.size()));
        pulled = player.source();
        player.device().plug(false);
        LockSupport.parkNanos(STEP_NANOS);
        player.device().plug(true);
    }

    private void edit() {
        Session session = desk().session();
        List<Zone> zones = session.zones();
        Zone zone = zones.get(random.nextInt(zones.size()));
        switch (random.nextInt(9)) {
            case 0 -> desk().document().edit("name", it -> it.withName("Soak " + random.nextInt(100)));
            case 1 ->
                desk().document()
                        .edit(
                                "transpose",
                                it -> ZoneEdits.changeZone(
                                        it, zone.id(), one -> one.withTranspose(12 * (random.nextInt(3) - 1))));
            case 2 ->
                desk().context()
                        .callScene(session.scenes()
                                .get(random.nextInt(session.scenes().size()))
                                .id());
            case 3, 4 -> desk().document().undo();
            case 5 -> desk().document().redo();
            case 6 ->
                desk().document()
                        .perform(it -> it.withHeard(
                                session.sources()
                                        .get(random.nextInt(session.sources().size()))
                                        .id(),
                                random.nextInt(4) > 0));
            case 7 -> workbench.studio().hearAlone(random.nextInt(4) > 0 ? null : zone.id());
            default ->
                desk().document()
                        .edit(
                                "keys",
                                it -> ZoneEdits.changeZone(
                                        it,
                                        zone.id(),
                                        one -> one.withKeys(new Range(random.nextInt(60), 60 + random.nextInt(60)))));
        }
    }

    /** Checks that the take has every event of every source, in order. */
    private void check(Take take) {
        EventStore log = take.log();
        for (SoakPlayer player : players) {
            if (player.source().equals(pulled)) {
                continue;
            }
            int source = take.sources().indexOf(player.source());
            List<Integer> recorded = new ArrayList<>();
            for (int i = 0; i < log.size(); i++) {
                if (log.source(i) == source && log.message(i) != 0) {
                    recorded.add(log.message(i));
                }
            }
            if (!recorded.equals(player.played())) {
                List<Integer> more = new ArrayList<>(recorded);
                player.played().forEach(more::remove);
                violations.add("%s: %d played, %d in the take; more: %s"
                        .formatted(
                                player.source(),
                                player.played().size(),
                                recorded.size(),
                                more.stream().map(Integer::toHexString).toList()));
            }
        }
    }

    private void rest(String after) {
        onFx(() -> workbench.studio().hearAlone(null));
        try {
            until(() -> workbench.studio().soundingCount() == 0 && wire.unrest().isEmpty());
        } catch (AssertionError e) {
            violations.add(after + ", not at rest: " + wire.unrest());
            onFx(workbench::silence);
        }
    }

    /** An instrument that echoes is a loop, which is cut and told. */
    private void loop() {
        StandIn device = desk().standIns().standIn(LOOPED).orElseThrow();
        StandIn hand = desk().standIns().standIn("stand-in:burdock").orElseThrow();
        device.misbehave(Fault.ECHOES, true);
        until(() -> {
            hand.press(0, 60, 80);
            hand.release(0, 60);
            return !workbench.studio().loops().isEmpty();
        });
        // Wait for the last echoes before the device stops echoing.
        rest("looped");
        device.misbehave(Fault.ECHOES, false);
        onFx(() -> List.copyOf(workbench.studio().loops())
                .forEach(loop -> workbench.studio().allowLoop(loop.output())));
    }

    private void play(int cycle) {
        boolean loops = cycle % 2 == 1;
        onFx(() -> {
            if (loops) {
                desk().studio()
                        .setOptions(desk().studio()
                                .options()
                                .withRange(new Stretch(0, 8L * TempoMap.PPQ))
                                .withLoops(true));
            }
            desk().studio().play(0);
        });
        for (int i = 0; i < PLAYED_STEPS; i++) {
            LockSupport.parkNanos(STEP_NANOS);
            onFx(() -> {
                List<Track> tracks = desk().session().tracks();
                if (!tracks.isEmpty() && random.nextInt(3) == 0) {
                    String track = tracks.get(random.nextInt(tracks.size())).id();
                    desk().document().perform(it -> it.withMuted(track, random.nextBoolean()));
                }
                if (random.nextInt(6) == 0) {
                    desk().studio().locate(random.nextInt(10) * 1_000_000_000L);
                }
            });
            if (i % 5 == 2) {
                onFx(() -> window.show(Page.values()[random.nextInt(Page.values().length)]));
            }
        }
        onFx(() -> {
            desk().studio().stop();
            desk().studio().setOptions(desk().studio().options().withRange(null));
        });
        until(() -> desk().studio().transport() == Transport.STOPPED);
        rest("played");
    }

    private void saveAndOpen(String name) {
        onFx(() -> window.show(Page.KEYS));
        press(KeyCode.CONTROL).press(KeyCode.S).release(KeyCode.S).release(KeyCode.CONTROL);
        until(() -> {
            lookup(labelled("Replace")).<ButtonBase>tryQuery().ifPresent(ButtonBase::fire);
            return !desk().document().isChanged();
        });
        Session saved = onFx(() -> desk().session());
        Object opening = onFx(() -> desk().document().opening());
        Path file = folder.resolve(name + ".dibble");
        onFx(() -> window.drop(List.of(file)));
        until(() -> desk().document().opening() != opening);
        Session opened = onFx(() -> desk().session());
        if (!opened.withTakes(List.of()).equals(saved.withTakes(List.of()))
                || opened.takes().size() != saved.takes().size()) {
            violations.add("what was saved is not what was opened: " + file);
        }
    }

    private void undoEverything(Session before) {
        onFx(() -> {
            while (desk().document().undoName().isPresent()) {
                desk().document().undo();
            }
        });
        if (!onFx(() -> desk().session()).equals(before)) {
            violations.add("undo of everything is not the beginning");
        }
    }
}
