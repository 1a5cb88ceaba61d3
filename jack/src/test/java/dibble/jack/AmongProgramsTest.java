package dibble.jack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.edits.ZoneEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.levels.SoundPlan;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.ports.JoinedDevices;
import dibble.ports.OutputPort;
import dibble.programs.OwnPorts;
import dibble.session.Connection;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sound.AudioEngine;
import dibble.sound.AudioSettings;
import dibble.standins.StandIns;
import dibble.studio.Studio;
import dibble.testing.JackServer;
import dibble.time.Clock;
import java.lang.management.ManagementFactory;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A studio among other programs, on a real server with its dummy driver. */
class AmongProgramsTest {
    private static final PartRef CELESTA = new PartRef("bells", "celesta");
    private static final PartRef HARP = new PartRef("bells", "harp");

    /** A stand-in that sounds nothing. */
    private record Quiet(String name) implements OutputPort {
        @Override
        public void send(int message, long stamp) {}
    }

    private final JackServer server = new JackServer();
    private final AtomicBoolean changed = new AtomicBoolean();
    private final List<AutoCloseable> closing = new ArrayList<>();
    private JackDevices programs;
    private StandIns standIns;
    private Document document;
    private Studio studio;
    private Partner partner;

    /** Plays what the partner hears: one program that did both would be a loop, which takes the server a block more. */
    private Partner player;

    @BeforeAll
    static void hasServer() {
        JackServer.assumeInstalled();
    }

    /** Keys of another program play two parts of a third: the low half the harp, the high half the celesta. */
    private static Session session() {
        Source keys = Source.keyboard("keys", "Keys", "program:keys", Range.ALL);
        Instrument bells = Instrument.of(
                        "bells",
                        "Bells",
                        false,
                        "program:bells",
                        List.of(
                                Part.of("celesta", "Celesta", 3, 8, Range.ALL, 1),
                                Part.of("harp", "Harp", 4, 46, Range.ALL, 2)))
                .withPartPorts(true);
        Session session = Session.empty("Programs").withSources(List.of(keys)).withInstruments(List.of(bells));
        session = ZoneEdits.layerPart(session, "high", "keys", CELESTA, new Range(60, 127));
        return ZoneEdits.layerPart(session, "low", "keys", HARP, new Range(0, 59));
    }

    @BeforeEach
    void open() {
        server.start();
        programs = new JackDevices(Clock.SYSTEM);
        standIns = new StandIns(Clock.SYSTEM, Quiet::new);
        programs.onChange(() -> changed.set(true));
        document = new Document(session(), Performance.NEW);
        studio = new Studio(Clock.SYSTEM, new JoinedDevices(standIns, programs), document);
        document.listen(this::follow);
        follow();
        programs.start();
        await().until(() -> programs.state().isRunning() && programs.outputs().size() == 1);
        partner = new Partner("Wren");
        player = new Partner("Lark");
        take();
    }

    private void follow() {
        programs.follow(
                OwnPorts.of(document.session(), document.performance()),
                document.performance().connections());
    }

    /** As the window does once a frame. */
    private void take() {
        if (changed.getAndSet(false)) {
            studio.portsChanged();
            programs.cables().ifPresent(look -> document.perform(performance -> performance.connected(look.wanted())));
        }
        studio.pulse();
    }

    private void until(java.util.concurrent.Callable<Boolean> condition) {
        await().until(() -> {
            take();
            return condition.call();
        });
    }

    @AfterEach
    void close() throws Exception {
        if (studio != null) {
            partner.close();
            player.close();
            studio.close();
            programs.close();
        }
        for (AutoCloseable it : closing) {
            it.close();
        }
        server.close();
    }

    /** The cables of the session, without those of sound. */
    private Set<Connection> cables() {
        return document.performance().connections().stream()
                .filter(cable -> !cable.own().startsWith("sound/"))
                .collect(java.util.stream.Collectors.toSet());
    }

    private void cable() {
        until(() -> studio.lane("program:bells").isPresent());
        partner.connect("Lark:out", "Dibble:Keys");
        partner.connect("Dibble:Celesta", "Wren:in1");
        partner.connect("Dibble:Harp", "Wren:in2");
    }

    private void holdChord() {
        int from = player.soon();
        for (int key = 60; key < 66; key++) {
            player.play(from, ShortMessage.noteOn(0, key, 90));
        }
        until(() -> studio.soundingCount() == 6);
    }

    @Test
    void portsBearTheNamesOfGearAndFollowThem() {
        await().until(() -> partner.has("Dibble:Keys") && partner.has("Dibble:Celesta") && partner.has("Dibble:Harp"));
        cable();
        document.edit(
                "names",
                session -> session.withInstruments(List.of(session.instruments()
                        .get(0)
                        .withParts(List.of(
                                Part.of("celesta", "Harp", 3, 8, Range.ALL, 1),
                                Part.of("harp", "Celesta", 4, 46, Range.ALL, 2))))));
        // The two have changed names: each keeps its cable.
        await().until(() -> partner.connections("in1").equals(List.of("Dibble:Harp"))
                && partner.connections("in2").equals(List.of("Dibble:Celesta")));
        document.edit(
                "one port",
                session -> session.withInstruments(
                        List.of(session.instruments().get(0).withPartPorts(false))));
        await().until(() -> partner.has("Dibble:Bells") && !partner.has("Dibble:Celesta"));
        document.undo();
        document.undo();
        await().until(() -> partner.has("Dibble:Celesta") && !partner.has("Dibble:Bells"));
    }

    @Test
    void aNoteOfAnotherProgramComesOutOfTheRightPortOnItsFrame() {
        cable();
        // 60 and 52, half a second apart: the one is the celesta's, the other the harp's.
        server.run("jack_midiseq", "seq", "24000", "0", "60", "6000", "12000", "52", "6000");
        partner.connect("seq:out", "Wren:in3");
        partner.connect("seq:out", "Dibble:Keys");
        partner.heard.clear();
        until(() -> partner.notesOn(1).size() >= 6 && partner.notesOn(2).size() >= 6);
        Map<Integer, Integer> key = Map.of(1, 60, 2, 52);
        key.forEach((port, note) -> {
            List<Integer> played = frames(partner.on(3), note);
            List<Integer> came = frames(partner.on(port), note);
            assertThat(partner.notesOn(port)).allMatch(it -> ShortMessage.data1(it.message()) == note);
            assertThat(partner.on(port)).allMatch(it -> ShortMessage.channel(it.message()) == 0);
            assertThat(came.subList(0, 2))
                    .allSatisfy(frame -> assertThat(played)
                            .anySatisfy(on -> assertThat(frame - on).isBetween(0, JackServer.BLOCK)));
        });
    }

    private static List<Integer> frames(List<Partner.Heard> heard, int key) {
        return heard.stream()
                .filter(it -> it.startsNote() && ShortMessage.data1(it.message()) == key)
                .map(Partner.Heard::frame)
                .toList();
    }

    /** Not at a block's start, and in the same block where the router is at rest. */
    @Test
    void notesKeepTheirPlacesWithinTheBlock() {
        cable();
        int from = player.soon();
        int[] at = {from, from + 17, from + 18, from + 300, from + 1000, from + 1255};
        for (int i = 0; i < at.length; i++) {
            player.play(at[i], ShortMessage.noteOn(0, 60 + i, 90));
        }
        until(() -> partner.notesOn(1).size() == at.length);
        List<Integer> late = new ArrayList<>();
        for (int i = 0; i < at.length; i++) {
            late.add(partner.notesOn(1).get(i).frame() - at[i]);
        }
        assertThat(late).allMatch(frames -> frames == 0 || frames == JackServer.BLOCK);
        assertThat(player.hasFailed()).isFalse();
    }

    @Test
    void aServerThatIsKilledWithAChordHeldHangsNothingAndAllIsBackAfterIt() throws Exception {
        cable();
        until(() -> cables().size() == 3);
        holdChord();
        partner.close();
        player.close();
        server.kill();
        until(() ->
                !programs.state().isRunning() && studio.lane("program:bells").isEmpty() && studio.soundingCount() == 0);
        server.start();
        partner = new Partner("Wren");
        player = new Partner("Lark");
        // What is sent at first quiets the port: nothing hangs there either.
        until(() -> partner.connections("in1").equals(List.of("Dibble:Celesta"))
                && player.connections("out").equals(List.of("Dibble:Keys")));
        until(() -> studio.lane("program:bells").isPresent());
        partner.heard.clear();
        player.play(player.soon(), ShortMessage.noteOn(0, 72, 90));
        until(() -> partner.on(1).stream().anyMatch(Partner.Heard::startsNote));
    }

    @Test
    void aProgramThatGoesWithAChordHeldLeavesNothingSounding() {
        cable();
        until(() -> cables().size() == 3);
        holdChord();
        player.close();
        until(() -> studio.soundingCount() == 0);
        until(() -> partner.on(1).stream()
                        .filter(it -> ShortMessage.endsNote(it.message()))
                        .count()
                == 6);
    }

    @Test
    void cablesMadeElsewhereAreKeptAndMadeAgain() {
        cable();
        until(() -> cables().equals(Set.of(
                new Connection("in/keys", "Lark:out"),
                new Connection("out/bells/bells/celesta", "Wren:in1"),
                new Connection("out/bells/bells/harp", "Wren:in2"))));
        partner.close();
        until(() -> programs.cables().map(look -> look.missing().size() == 2).orElse(false));
        partner = new Partner("Wren");
        until(() -> partner.connections("in1").equals(List.of("Dibble:Celesta")));
        partner.disconnect("Dibble:Celesta", "Wren:in1");
        until(() -> cables().size() == 2);
        assertThat(partner.connections("in1")).isEmpty();
    }

    @Test
    void systemExclusiveAndClockPass() {
        document.edit(
                "sysex",
                session -> session.withSources(List.of(session.sources().get(0).withSysexTo(List.of("bells")))));
        document.edit("clock", session -> session.withClock(session.clock().withTo("program:bells", true)));
        cable();
        studio.record();
        until(() -> partner.on(1).stream().anyMatch(it -> it.message() == 0xFA)
                && partner.on(1).stream().filter(it -> it.message() == 0xF8).count() > 20);
        studio.stop();
    }

    @Test
    void aPartsOwnSoundPortsCarryThatPartAlone() {
        Instrument own = Instrument.of(
                "box",
                "Box",
                true,
                "stand-in:box",
                List.of(
                        Part.of("organ", "Organ", 1, 19, Range.ALL, 1),
                        Part.of("strings", "Strings", 2, 48, Range.ALL, 2)));
        AudioEngine audio = new AudioEngine(Clock.SYSTEM, settings -> programs.sound());
        closing.add(audio);
        var box = audio.open("stand-in:box");
        document.edit("box", session -> session.withInstruments(List.of(own)));
        audio.choose(AudioSettings.USUAL);
        audio.follow(SoundPlan.of(document.session(), document.performance()), Map.of());
        partner.connect("Dibble:Organ left", "Wren:sound1");
        partner.connect("Dibble:Strings left", "Wren:sound2");
        await().until(() -> !audio.status().silent());
        box.send(ShortMessage.noteOn(0, 60, 100), Clock.SYSTEM.nanos());
        await().until(() -> partner.takeEnergy(1) > 1);
        assertThat(partner.takeEnergy(2)).isZero();
        box.send(ShortMessage.noteOff(0, 60, 64), Clock.SYSTEM.nanos());
        box.send(ShortMessage.noteOn(1, 60, 100), Clock.SYSTEM.nanos());
        await().until(() -> partner.takeEnergy(2) > 1);
    }

    @Test
    void soundGoesOnAnotherWayWhenTheServerIsKilled() throws Exception {
        AtomicBoolean other = new AtomicBoolean();
        AudioEngine audio = new AudioEngine(Clock.SYSTEM, settings -> {
            Optional<dibble.sound.AudioOut> sound = programs.sound();
            other.set(sound.isEmpty());
            return sound;
        });
        closing.add(audio);
        programs.onChange(audio::lookAgain);
        audio.start();
        await().until(() -> !audio.status().silent());
        // The library bears no two clients in one process whose server dies.
        partner.close();
        player.close();
        server.kill();
        await().until(() -> other.get() && audio.status().silent());
        server.start(44_100, 512);
        await().until(() -> !audio.status().silent() && programs.state().rate() == 44_100);
    }

    @Test
    void anotherBlockIsTakenOver() {
        cable();
        partner.setBlock(512);
        until(() -> programs.state().block() == 512);
        player.play(player.soon(), ShortMessage.noteOn(0, 72, 90));
        until(() -> partner.on(1).stream().anyMatch(Partner.Heard::startsNote));
    }

    /** Two programs play one port, each to its own sound and track, and a third hears a zone of the first. */
    @Test
    void threePrograms() {
        Instrument box = Instrument.of(
                "box",
                "Box",
                true,
                "stand-in:box",
                List.of(
                        Part.of("organ", "Organ", 1, 19, Range.ALL, 3),
                        Part.of("strings", "Strings", 2, 48, Range.ALL, 4)));
        document.edit("box", before -> {
            Session session = before.withZones(List.of())
                    .withInstruments(List.of(before.instruments().get(0), box));
            session = ZoneEdits.layerPart(session, "one", "keys", new PartRef("box", "organ"), new Range(60, 127));
            session = ZoneEdits.layerPart(session, "two", "keys", new PartRef("box", "strings"), Range.ALL);
            session = ZoneEdits.layerPart(session, "low", "keys", HARP, new Range(0, 59));
            session = ZoneEdits.changeZone(
                    session,
                    "one",
                    zone -> zone.with().channels(ChannelSet.of(1)).build());
            session = ZoneEdits.changeZone(
                    session,
                    "two",
                    zone -> zone.with().channels(ChannelSet.of(2)).build());
            return ZoneEdits.changeZone(
                    session,
                    "low",
                    zone -> zone.with().channels(ChannelSet.of(1)).build());
        });
        Partner second = new Partner("Finch");
        closing.add(second);
        cable();
        second.connect("Finch:out", "Dibble:Keys");
        until(() -> cables().size() == 4);
        studio.record();
        int from = player.soon();
        for (int i = 0; i < 8; i++) {
            player.play(from + i * 500, ShortMessage.noteOn(0, 70, 90));
            player.play(from + i * 500 + 250, ShortMessage.noteOff(0, 70, 64));
            second.play(from + i * 500 + 100, ShortMessage.noteOn(1, 50, 80));
            second.play(from + i * 500 + 350, ShortMessage.noteOff(1, 50, 64));
        }
        player.play(from + 4100, ShortMessage.noteOn(0, 40, 70));
        player.play(from + 4200, ShortMessage.noteOff(0, 40, 64));
        until(() -> partner.on(2).stream()
                        .filter(it -> ShortMessage.endsNote(it.message()))
                        .count()
                == 1);
        studio.stop();
        until(() -> !document.session().takes().isEmpty());
        assertThat(notes("box", "organ")).isEqualTo(8);
        assertThat(notes("box", "strings")).isEqualTo(8);
        assertThat(notes("bells", "harp")).isEqualTo(1);
        assertThat(partner.on(2))
                .filteredOn(Partner.Heard::startsNote)
                .singleElement()
                .satisfies(it -> {
                    assertThat(it.message()).isEqualTo(ShortMessage.noteOn(0, 40, 70));
                    assertThat(it.frame() - from - 4100).isBetween(0, JackServer.BLOCK);
                });
        assertThat(partner.on(1)).noneMatch(Partner.Heard::startsNote);
    }

    private long notes(String instrument, String part) {
        return document.session()
                .trackOf(new PartRef(instrument, part))
                .orElseThrow()
                .noteCount();
    }

    @Test
    void aBlockMakesNoObject() {
        cable();
        // What is edited is decided in a block, too, and may make objects.
        until(() -> cables().size() == 3);
        var threads = (com.sun.management.ThreadMXBean) ManagementFactory.getThreadMXBean();
        play(4000);
        long thread = Thread.getAllStackTraces().keySet().stream()
                .filter(it -> it.getName().equals("dibble-programs-block"))
                .mapToLong(Thread::getId)
                .max()
                .orElseThrow();
        // The virtual machine itself may make an object once, as when it compiles anew; what a block made would be in
        // all.
        long least = Long.MAX_VALUE;
        for (int stretch = 0; stretch < 5; stretch++) {
            long before = threads.getThreadAllocatedBytes(thread);
            play(400);
            least = Math.min(least, threads.getThreadAllocatedBytes(thread) - before);
        }
        assertThat(least).isZero();
    }

    private void play(int notes) {
        partner.heard.clear();
        int from = player.soon();
        for (int i = 0; i < notes; i++) {
            int key = 60 + i % 24;
            player.play(from + i * 30, ShortMessage.noteOn(0, key, 90));
            player.play(from + i * 30 + 15, ShortMessage.noteOff(0, key, 64));
        }
        until(() -> partner.notesOn(1).size() >= 2 * notes);
    }
}
