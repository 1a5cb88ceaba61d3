package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.edits.TrackEdits;
import dibble.edits.ZoneEdits;
import dibble.gear.PartRef;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import dibble.time.HandClock;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

@Tag("slow")
class StudioTest {
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");
    private static final PartRef UPRIGHT = new PartRef("sorrel", "upright");

    /** Counts breaches of alternation, and what is on. */
    private static final class StrictPort implements OutputPort {
        private final boolean[] on = new boolean[16 * 128];
        final AtomicInteger breaches = new AtomicInteger();
        final AtomicInteger sounding = new AtomicInteger();
        final AtomicInteger notes = new AtomicInteger();
        final List<Integer> sounds = new ArrayList<>();

        @Override
        public String name() {
            return "strict";
        }

        @Override
        public void send(int message, long stamp) {
            int place = ShortMessage.channel(message) << 7 | ShortMessage.data1(message);
            boolean starts = ShortMessage.startsNote(message);
            if (starts || ShortMessage.endsNote(message)) {
                if (on[place] == starts) {
                    breaches.incrementAndGet();
                }
                on[place] = starts;
                sounding.addAndGet(starts ? 1 : -1);
                notes.incrementAndGet();
            } else if (ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE) {
                sounds.add(message);
            }
        }
    }

    private final StrictPort port = new StrictPort();
    private final HandClock clock = new HandClock();
    private final StandIns standIns = new StandIns(clock, name -> port);
    private Studio studio;

    private Document open(Session session) {
        Document document = new Document(session, Performance.NEW);
        studio = new Studio(clock, standIns, document);
        return document;
    }

    @AfterEach
    void close() {
        if (studio != null) {
            studio.close();
        }
    }

    private StandIn keyboard(String name) {
        return standIns.standIn("stand-in:" + name).orElseThrow();
    }

    private static Session bothOnCelesta() {
        Session demo = LamplightersRound.session();
        Session session = Session.empty("Two")
                .withSources(demo.sources().subList(0, 2))
                .withInstruments(demo.instruments().subList(0, 1));
        session = ZoneEdits.layerPart(session, "one", "larkspur", CELESTA, new Range(28, 100));
        return ZoneEdits.layerPart(session, "two", "tansy", CELESTA, new Range(53, 84));
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20})
    void twoThreadsOnOneDestinationWithEditsAlternateAndHangNothing(long seed) throws Exception {
        Document document = open(bothOnCelesta());
        AtomicInteger playing = new AtomicInteger(2);
        AtomicInteger edits = new AtomicInteger();
        Thread first = player(keyboard("larkspur"), 0, seed, playing, edits);
        Thread second = player(keyboard("tansy"), 1, seed + 1000, playing, edits);
        Random random = new Random(seed);
        first.start();
        second.start();
        while (playing.get() > 0) {
            edit(document, random);
            edits.incrementAndGet();
        }
        first.join();
        second.join();
        int waiting = studio.soundingCount();
        awaitAllSent();
        assertThat(waiting).isZero();
        await().untilAsserted(() -> assertThat(port.sounding).hasValue(0));
        assertThat(port.breaches).hasValue(0);
        assertThat(port.notes.get()).isPositive();
        assertThat(studio.lost()).isZero();
    }

    /** Plays on only as edits are made: else one that silences both may hold for all that is played. */
    private static Thread player(StandIn keyboard, int channel, long seed, AtomicInteger playing, AtomicInteger edits) {
        return new Thread(() -> {
            Random random = new Random(seed);
            for (int i = 0; i < 3000; i++) {
                while (edits.get() < i / 30) {
                    Thread.yield();
                }
                int key = 56 + random.nextInt(6);
                if (random.nextBoolean()) {
                    keyboard.press(channel, key, 1 + random.nextInt(127));
                } else {
                    keyboard.release(channel, key);
                }
            }
            for (int key = 56; key < 62; key++) {
                keyboard.release(channel, key);
            }
            playing.decrementAndGet();
        });
    }

    private static void edit(Document document, Random random) {
        String zone = random.nextBoolean() ? "one" : "two";
        switch (random.nextInt(5)) {
            case 0 ->
                document.edit("t", s -> ZoneEdits.changeZone(s, zone, z -> z.withTranspose(random.nextInt(5) - 2)));
            case 1 -> document.edit("e", s -> ZoneEdits.changeZone(s, zone, z -> z.withEnabled(random.nextInt(4) > 0)));
            case 2 ->
                document.edit(
                        "k",
                        s -> ZoneEdits.changeZone(s, zone, z -> z.withKeys(new Range(50, 50 + random.nextInt(30)))));
            case 3 -> document.undo();
            default -> document.perform(p -> p.withHeard("tansy", random.nextBoolean()));
        }
    }

    @Test
    void aTakeIsPrintedAsItWasHeardWithTheRoutingsThatWereInForce() {
        Session session = ZoneEdits.splitAt(bothOnCelesta(), "bass", "larkspur", UPRIGHT, new Range(28, 100), 54, true);
        Document document = open(session);
        studio.record();
        press("larkspur", 0, 50);
        press("larkspur", 0, 60);
        // Held while the split moves: its off goes where its on went.
        keyboard("larkspur").press(0, 52, 80);
        document.edit("transpose", s -> ZoneEdits.changeZone(s, "bass", z -> z.withTranspose(-12)));
        keyboard("larkspur").release(0, 52);
        press("larkspur", 0, 50);
        studio.stop();
        await().until(() -> {
            studio.pulse();
            return document.session().takes().size() == 1;
        });
        assertThat(notesOf(document.session().trackOf(UPRIGHT).orElseThrow())).containsExactly(50, 52, 38);
        assertThat(notesOf(document.session().trackOf(CELESTA).orElseThrow())).containsExactly(60);
        assertThat(studio.transport()).isEqualTo(Transport.STOPPED);
    }

    @Test
    void whatAnUnarmedTrackWouldGetGoesToEverythingElse() {
        Document document = open(TrackEdits.addMissingTracks(bothOnCelesta()));
        studio.record();
        press("tansy", 1, 60);
        studio.stop();
        await().until(() -> {
            studio.pulse();
            return document.session().takes().size() == 1;
        });
        Track rest = document.session().tracks().stream()
                .filter(Track::takesRest)
                .findFirst()
                .orElseThrow();
        assertThat(notesOf(rest)).containsExactly(60);
        assertThat(document.session().trackOf(CELESTA).orElseThrow().noteCount())
                .isZero();
    }

    @Test
    void aTakeIsKeptEvenWhereUndoAndRedoCameBetweenStopAndTheNextPulse() {
        Document document = open(bothOnCelesta());
        record("larkspur", 0, 60);
        await().until(() -> {
            studio.pulse();
            return document.session().takes().size() == 1;
        });
        document.undo();
        record("larkspur", 0, 62);
        document.redo();
        await().until(() -> {
            studio.pulse();
            return document.session().takes().size() == 2;
        });
        assertThat(document.session().takes()).extracting(Take::id).containsExactly("take-1", "take-2");
        assertThat(notesOf(document.session().trackOf(CELESTA).orElseThrow())).containsExactly(62);
    }

    private void record(String source, int channel, int key) {
        studio.record();
        press(source, channel, key);
        studio.stop();
    }

    @Test
    void soundsAreSentOnceAndAgainWhereTheyChange() {
        Document document = open(bothOnCelesta());
        await().until(() -> port.sounds.size() == 7);
        document.edit("z", s -> s.withZones(List.<Zone>of()));
        studio.portsChanged();
        studio.soundingCount();
        awaitAllSent();
        assertThat(port.sounds).hasSize(7);
        studio.sendAllSounds();
        await().until(() -> port.sounds.size() == 14);
    }

    @Test
    void anInstrumentThatGoesTakesItsNotesWithIt() {
        Document document = open(bothOnCelesta());
        keyboard("larkspur").press(0, 60, 80);
        await().until(() -> port.sounding.get() == 1);
        document.edit("remove", s -> s.withInstruments(List.of()));
        await().untilAsserted(() -> assertThat(port.sounding).hasValue(0));
        keyboard("larkspur").release(0, 60);
        document.undo();
        keyboard("larkspur").press(0, 60, 80);
        await().until(() -> port.sounding.get() == 1);
        studio.silence();
        await().untilAsserted(() -> assertThat(port.sounding).hasValue(0));
        assertThat(port.breaches).hasValue(0);
    }

    private void press(String source, int channel, int key) {
        keyboard(source).press(channel, key, 90);
        keyboard(source).release(channel, key);
    }

    private static List<Integer> notesOf(Track track) {
        List<Integer> notes = new ArrayList<>();
        for (int i = 0; i < track.sounding().size(); i++) {
            if (ShortMessage.startsNote(track.sounding().message(i))) {
                notes.add(ShortMessage.data1(track.sounding().message(i)));
            }
        }
        return notes;
    }

    /** Everything that left, as {@code channel: bytes}. */
    private static final class LoggingPort implements OutputPort {
        final List<Integer> sent = new java.util.concurrent.CopyOnWriteArrayList<>();

        @Override
        public String name() {
            return "log";
        }

        @Override
        public void send(int message, long stamp) {
            sent.add(message);
        }

        /** By channel, since each part is played by a track of its own. */
        java.util.Map<Integer, List<Integer>> byChannel() {
            return sent.stream().collect(java.util.stream.Collectors.groupingBy(ShortMessage::channel));
        }
    }

    private final LoggingPort logged = new LoggingPort();

    private Document openLogged(Session session) {
        devices = new StandIns(clock, name -> name.equals(dibble.transport.Click.PORT) ? new LoggingPort() : logged);
        Document document = new Document(session, Performance.NEW);
        studio = new Studio(clock, devices, document);
        played = devices.standIn("stand-in:larkspur").orElseThrow();
        awaitAllSent();
        return document;
    }

    private StandIn played;
    private StandIns devices;

    private void awaitAllSent() {
        await().until(() -> studio.lane("stand-in:sorrel").orElseThrow().backlog() == 0);
    }

    /** Clears the log once the port has everything that was sent so far. */
    private void forgetSent() {
        awaitAllSent();
        logged.sent.clear();
    }

    private void untilStopped() {
        clock.passUntil(() -> {
            studio.pulse();
            return studio.transport() == Transport.STOPPED;
        });
    }

    private void untilRecording() {
        await().until(() -> {
            studio.pulse();
            return studio.recording() != null && studio.countsIn() == 0;
        });
    }

    /** Byte for byte, to the last. */
    @Test
    void liveAndPlaybackSendTheSameBytes() {
        Document document = openLogged(LamplightersRound.session());
        studio.record();
        untilRecording();
        forgetSent();
        Random random = new Random(5);
        int pedal = 0;
        int bend = 64;
        for (int i = 0; i < 300; i++) {
            int key = 40 + random.nextInt(40);
            switch (random.nextInt(4)) {
                case 0 -> {
                    pedal = random.nextInt(128);
                    played.play(ShortMessage.controller(0, 64, pedal));
                }
                case 1 -> {
                    bend = random.nextInt(128);
                    played.play(ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, bend));
                }
                case 2 -> played.press(0, key, 1 + random.nextInt(127));
                default -> played.release(0, key);
            }
        }
        studio.stop();
        untilStopped();
        // As a take ends: keys from low to high, then what is away from its rest.
        for (int key = 40; key < 80; key++) {
            played.release(0, key);
        }
        if (bend != 64) {
            played.play(ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 64));
        }
        if (pedal >= 64) {
            played.play(ShortMessage.controller(0, 64, 0));
        }
        await().until(() -> studio.soundingCount() == 0);
        awaitAllSent();
        var live = logged.byChannel();
        logged.sent.clear();
        studio.play(0);
        untilStopped();
        awaitAllSent();
        assertThat(document.session().takes()).hasSize(1);
        assertThat(logged.byChannel()).isEqualTo(live);
    }

    @Test
    void playbackFromTheMiddleFirstSendsWhatHoldsThere() {
        Document document = openLogged(LamplightersRound.session());
        studio.record();
        untilRecording();
        played.play(ShortMessage.controller(0, 64, 127));
        played.play(ShortMessage.controller(0, 1, 33));
        played.press(0, 70, 80);
        played.release(0, 70);
        long after = studio.position();
        clock.pass(200_000_000L);
        played.press(0, 72, 80);
        played.release(0, 72);
        studio.stop();
        untilStopped();
        forgetSent();
        studio.play(after + 100_000_000L);
        untilStopped();
        awaitAllSent();
        List<Integer> celesta = logged.byChannel().get(0);
        assertThat(celesta.subList(0, 2))
                .containsExactly(ShortMessage.controller(0, 64, 127), ShortMessage.controller(0, 1, 33));
        assertThat(celesta).contains(ShortMessage.noteOn(0, 72, 80)).doesNotContain(ShortMessage.noteOn(0, 70, 80));
        assertThat(document.session().takes()).hasSize(1);
    }

    @Test
    void aCountInIsWaitedForAndWhatIsPlayedInItIsNotInTheTake() {
        Document document = openLogged(LamplightersRound.session());
        studio.setOptions(RecordOptions.PLAIN.withCountIn(4));
        studio.record();
        assertThat(studio.countsIn()).isPositive();
        played.press(0, 70, 80);
        played.release(0, 70);
        clock.advance(studio.countsIn());
        untilRecording();
        played.press(0, 72, 80);
        studio.stop();
        untilStopped();
        Take take = document.session().takes().get(0);
        assertThat(take.noteCount()).isEqualTo(1);
        assertThat(take.log().size()).isEqualTo(2);
        assertThat(take.log().stamp(0)).isZero();
    }

    @Test
    void aLoopIsATakeEachTimeAndAPunchRecordsItsRangeAlone() {
        Document document = openLogged(LamplightersRound.session());
        long bar = dibble.time.TempoMap.PPQ * 4L;
        long barNanos = document.session().tempo().nanos(bar);
        RecordOptions looping = RecordOptions.PLAIN
                .withRange(new RecordOptions.Stretch(bar, 2 * bar))
                .withLoops(true);
        studio.setOptions(looping);
        studio.record();
        untilRecording();
        for (int pass = 1; pass <= 3; pass++) {
            clock.advance(barNanos / 2 - (pass == 1 ? 0 : Recorder.LATE_NANOS));
            played.press(0, 70, 80);
            played.release(0, 70);
            clock.advance(barNanos - barNanos / 2 + Recorder.LATE_NANOS);
            untilTakes(document, pass);
        }
        studio.stop();
        untilStopped();
        assertThat(document.session().takes().subList(0, 3)).allSatisfy(take -> {
            assertThat(take.start()).isEqualTo(barNanos);
            assertThat(take.length()).isEqualTo(barNanos);
            assertThat(take.noteCount()).isEqualTo(1);
            assertThat(take.log().stamp(0)).isEqualTo(barNanos / 2);
        });

        int before = document.session().takes().size();
        studio.setOptions(looping.withPunches(true));
        studio.record();
        // Before the range, in it, and behind it.
        for (int key = 71; key <= 73; key++) {
            played.press(0, key, 80);
            played.release(0, key);
            clock.advance(barNanos);
        }
        clock.advance(Recorder.LATE_NANOS);
        untilTakes(document, before + 1);
        Take punched = document.session().takes().get(before);
        assertThat(punched.start()).isEqualTo(barNanos);
        assertThat(punched.length()).isEqualTo(barNanos);
        assertThat(punched.noteCount()).isEqualTo(1);
        assertThat(punched.log().message(0)).isEqualTo(ShortMessage.noteOn(0, 72, 80));
        studio.stop();
        untilStopped();
    }

    private void untilTakes(Document document, int count) {
        await().until(() -> {
            studio.pulse();
            return document.session().takes().size() == count;
        });
    }

    @Test
    void whatWasPlayedWithRecordOffCanBeKept() {
        Document document = openLogged(LamplightersRound.session());
        assertThat(studio.keepPlayed()).isFalse();
        played.press(0, 70, 80);
        played.release(0, 70);
        played.press(0, 40, 80);
        await().until(() -> studio.notesToKeep() == 2);
        assertThat(studio.keepPlayed()).isTrue();
        await().until(() -> {
            studio.pulse();
            return document.session().takes().size() == 1;
        });
        assertThat(document.session().trackOf(CELESTA).orElseThrow().noteCount())
                .isEqualTo(1);
        assertThat(document.session().trackOf(UPRIGHT).orElseThrow().noteCount())
                .isEqualTo(1);
        played.release(0, 40);
        assertThat(studio.notesToKeep()).isZero();
    }

    @Test
    void aSequencerThatWaitsForStartBeginsOnTheFirstBeatAndOneThatLeadsLosesNoNote() {
        Document document = openLogged(LamplightersRound.session());
        StandIn teasel = standInOf("stand-in:teasel");
        // It follows: Dibble leads.
        teasel.sequencer().setFollows(true);
        document.edit(
                "clock", session -> session.withClock(dibble.session.ClockPlan.NONE.withTo("stand-in:teasel", true)));
        studio.setOptions(RecordOptions.PLAIN.withCountIn(1));
        studio.record();
        clock.passUntil(() -> studio.countsIn() == 0);
        untilRecording();
        clock.passUntil(() -> studio.recording().log().size() > 20);
        studio.stop();
        untilStopped();
        assertThat(teasel.sequencer().isRunning()).isFalse();
        Take led = document.session().takes().get(0);
        // Its first step falls onto the first beat, as nearly as the clock moves.
        long aFewSteps = TimeUnit.MILLISECONDS.toNanos(8);
        assertThat(led.log().stamp(0)).isLessThan(aFewSteps);

        // It leads: Dibble waits, takes its tempo, and has its first notes.
        teasel.sequencer().setFollows(false);
        teasel.sequencer().setTempo(150);
        document.edit("clock", session -> session.withClock(dibble.session.ClockPlan.NONE.withFrom("stand-in:teasel")));
        studio.setOptions(RecordOptions.PLAIN);
        studio.record();
        assertThat(studio.waitsToRecord()).isTrue();
        int watchers = clock.watchers();
        teasel.sequencer().start();
        await().until(() -> clock.watchers() > watchers);
        clock.passUntil(() -> {
            studio.pulse();
            return studio.recording() != null && studio.recording().log().size() > 20;
        });
        assertThat(studio.waitsToRecord()).isFalse();
        teasel.sequencer().stop();
        untilStopped();
        Take followed = document.session().takes().get(1);
        assertThat(followed.log().stamp(0)).isLessThan(aFewSteps);
        // The same patterns from their beginning: the same first notes.
        for (int i = 0; i < 3; i++) {
            assertThat(followed.log().message(i)).isEqualTo(led.log().message(i));
        }
    }

    private StandIn standInOf(String port) {
        return devices.standIn(port).orElseThrow();
    }
}
