package dibble.studio;

import static dibble.midi.ShortMessage.controller;
import static dibble.midi.ShortMessage.noteOff;
import static dibble.midi.ShortMessage.noteOn;
import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.edits.GearEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.journals.SessionJournal;
import dibble.journals.TakeJournal;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.RealTime;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import dibble.recording.EventStore;
import dibble.recording.PrintMode;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.session.ClockPlan;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.testing.disk.HangingDisk;
import dibble.testing.disk.WatchedProvider;
import dibble.time.HandClock;
import dibble.time.TempoMap;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is played back and recorded in a studio, from the key to the port and onto the tracks. */
@Tag("slow")
class TransportTest {
    private static final PartRef HARP = new PartRef("yarrow", "harp");
    private static final PartRef WINDS = new PartRef("yarrow", "winds");
    private static final long BAR = 3840;

    private final FakeDevices devices = new FakeDevices();
    private final FakeDevices.Out yarrow = devices.out("yarrow");
    private final FakeDevices.In keys = devices.in("keys");
    private final FakeDevices.In more = devices.in("more");
    private final HandClock clock = new HandClock();
    private Document document;
    private Studio studio;

    /** A bar lasts a quarter of a second. */
    private static Session session() {
        Instrument instrument = Instrument.of(
                "yarrow",
                "Yarrow",
                false,
                "yarrow",
                List.of(
                        Part.of("harp", "Harp", 1, 46, Range.ALL, 1),
                        Part.of("winds", "Low winds", 2, 71, Range.ALL, 2)));
        Source larkspur = Source.keyboard("larkspur", "Larkspur", "keys", Range.ALL)
                .with()
                .sysexTo(List.of("yarrow"))
                .build();
        return Session.empty("Transport")
                .withSources(List.of(larkspur, Source.keyboard("tansy", "Tansy", "more", Range.ALL)))
                .withInstruments(List.of(instrument))
                .withZones(List.of(
                        Zone.of("one", "", "larkspur", Range.ALL, HARP), Zone.of("two", "", "tansy", Range.ALL, WINDS)))
                .withTempo(TempoMap.of(960));
    }

    private void open(Session session) {
        document = new Document(session, Performance.NEW);
        studio = new Studio(clock, devices, document);
        studio.soundingCount();
    }

    @AfterEach
    void close() {
        studio.close();
    }

    /** Two notes a bar, for many bars. */
    private static Track notes(String id, PartRef part, int key) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (long tick = 0; tick < 400 * BAR; tick += BAR / 2) {
            clip.add(tick, noteOn(0, key, 80));
            clip.add(tick + BAR / 3, noteOff(0, key, 64));
        }
        return Track.of(id, id, part).withRegions(new Regions(List.of(Region.own(clip.build()))));
    }

    private void openPlaying() {
        open(session().withTracks(List.of(notes("harp", HARP, 60), notes("winds", WINDS, 50))));
        studio.play(0);
        untilSent(ShortMessage::startsNote, 4);
    }

    private List<Integer> sent(Predicate<Integer> which) {
        return yarrow.sent.stream().filter(which).toList();
    }

    /** Waits until so many more of a kind were sent. */
    private void untilSent(Predicate<Integer> which, int count) {
        int before = sent(which).size();
        clock.passUntil(() -> sent(which).size() >= before + count);
    }

    private static Predicate<Integer> onsOf(int channel) {
        return message -> ShortMessage.startsNote(message) && ShortMessage.channel(message) == channel;
    }

    /** Waits without moving the clock. */
    private void pulseUntil(Callable<Boolean> condition) {
        await().until(() -> {
            studio.pulse();
            return condition.call();
        });
    }

    private Take stopped() {
        int takes = document.session().takes().size();
        studio.stop();
        pulseUntil(() -> document.session().takes().size() > takes && studio.transport() == Transport.STOPPED);
        return document.session().takes().get(takes);
    }

    private static List<String> events(Take take) {
        List<String> events = new ArrayList<>();
        EventStore log = take.log();
        for (int i = 0; i < log.size(); i++) {
            int message = log.message(i);
            String what = ShortMessage.startsNote(message)
                    ? "on "
                    : ShortMessage.endsNote(message) ? "off " : log.exclusive(i) != null ? "exclusive " : "cc ";
            events.add(what + ShortMessage.data1(message));
        }
        return events;
    }

    @Nested
    class Standstill {
        @Test
        void theMusicGoesOnWhereItIsAndNothingIsMadeUpFor() {
            FakeDevices.Out drums = devices.out("drums");
            open(session()
                    .withTracks(List.of(notes("harp", HARP, 60)))
                    .withClock(new ClockPlan(Set.of("drums"), null)));
            studio.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(0, 100 * BAR))
                    .withLoops(true));
            studio.play(0);
            untilSent(ShortMessage::startsNote, 4);
            int notes = sent(ShortMessage::startsNote).size();
            int clocks = drums.realTimes.size();
            clock.advance(TimeUnit.HOURS.toNanos(10));
            untilSent(ShortMessage::startsNote, 2);
            assertThat(sent(ShortMessage::startsNote)).hasSizeBetween(notes + 2, notes + 4);
            assertThat(drums.realTimes.size() - clocks).isBetween(1, 200);
            assertThat(drums.realTimes.subList(clocks, drums.realTimes.size()))
                    .startsWith(RealTime.STOP)
                    .contains(RealTime.CONTINUE);
            studio.stop();
            assertThat(studio.soundingCount()).isZero();
        }
    }

    @Nested
    class WhileItPlays {
        @Test
        void aTrackThatIsMutedFallsSilentAndComesBack() {
            openPlaying();
            document.perform(performance -> performance.withMuted("harp", true));
            // What was under way when it was muted is out.
            untilSent(onsOf(1), 2);
            int before = sent(onsOf(0)).size();
            untilSent(onsOf(1), 6);
            assertThat(sent(onsOf(0))).hasSize(before);
            document.perform(performance -> performance.withMuted("harp", false));
            untilSent(onsOf(0), 2);
            studio.stop();
            assertThat(studio.soundingCount()).isZero();
        }

        @Test
        void aTrackThatIsSoloedIsHeardAlone() {
            openPlaying();
            document.perform(performance -> performance.withSoloed("winds", true));
            untilSent(onsOf(1), 2);
            int before = sent(onsOf(0)).size();
            untilSent(onsOf(1), 6);
            assertThat(sent(onsOf(0))).hasSize(before);
        }

        @Test
        void aPartThatMovesIsPlayedOnItsNewChannel() {
            openPlaying();
            document.edit(
                    "channel",
                    session -> GearEdits.changePart(
                            session, HARP, part -> part.with().channel(9).build()));
            untilSent(onsOf(8), 4);
            int before = sent(onsOf(0)).size();
            untilSent(onsOf(8), 4);
            assertThat(sent(onsOf(0))).hasSize(before);
            studio.stop();
            assertThat(studio.soundingCount()).isZero();
        }

        @Test
        void anotherTempoIsPlayedFromWhereItIs() {
            open(session().withTracks(List.of(notes("harp", HARP, 60))));
            studio.play(0);
            clock.advance(document.session().tempo().nanos(3 * BAR));
            document.edit("tempo", session -> session.withTempo(TempoMap.of(120)));
            assertThat(document.session().tempo().ticks(studio.position())).isEqualTo(3 * BAR);
            assertThat(studio.transport()).isEqualTo(Transport.PLAYING);
        }

        @Test
        void aTrackThatIsDeletedHangsNothing() {
            openPlaying();
            document.edit("delete", session -> session.withTracks(List.of()));
            await().until(() -> studio.soundingCount() == 0);
        }

        @Test
        void whatIsPlayedLiveGoesOnUnderneath() {
            openPlaying();
            keys.play(noteOn(0, 72, 80));
            studio.stop();
            assertThat(studio.soundingCount()).isEqualTo(1);
            keys.play(noteOff(0, 72, 64));
            assertThat(studio.soundingCount()).isZero();
        }
    }

    @Nested
    class Recorded {
        @Test
        void whatIsHeldWhenRecordIsPressedIsInTheTake() {
            open(session());
            keys.play(noteOn(0, 60, 80), controller(0, 64, 127));
            more.play(ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 90));
            clock.pass(TimeUnit.MILLISECONDS.toNanos(1));
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            clock.pass(TimeUnit.MILLISECONDS.toNanos(1));
            keys.play(noteOn(0, 62, 80), noteOff(0, 62, 64), noteOff(0, 60, 64));
            Take take = stopped();
            assertThat(events(take).subList(0, 3)).containsExactlyInAnyOrder("cc 64", "cc 0", "on 60");
            assertThat(events(take).subList(3, 6)).containsExactly("on 62", "off 62", "off 60");
            assertThat(take.log().stamp(2)).isZero();
        }

        @Test
        void aRecorderThatCannotGoOnStopsTheRecordingAndNothingElse() {
            AtomicBoolean fails = new AtomicBoolean();
            TakeJournal journal = new TakeJournal(() -> null, Runnable::run) {
                @Override
                public void follow(EventStore log, List<String> sources, List<Take.Mark> marks) {
                    if (fails.get()) {
                        throw new OutOfMemoryError("a test");
                    }
                }
            };
            document = new Document(session(), Performance.NEW);
            studio = new Studio(clock, devices, document, journal);
            studio.soundingCount();
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            clock.pass(TimeUnit.MILLISECONDS.toNanos(1));
            keys.play(noteOn(0, 60, 80));
            fails.set(true);
            clock.pass(TimeUnit.MILLISECONDS.toNanos(110));
            pulseUntil(() -> studio.transport() == Transport.STOPPED);
            assertThat(studio.recordingTrouble()).startsWith("Recording stopped");
            assertThat(document.session().takes()).hasSize(1);
            assertThat(document.session().takes().get(0).noteCount()).isEqualTo(1);

            // Keys are heard, and the next recording goes on to its end.
            fails.set(false);
            keys.play(noteOff(0, 60, 64));
            assertThat(studio.soundingCount()).isZero();
            studio.record();
            assertThat(studio.recordingTrouble()).isNull();
            pulseUntil(() -> studio.recording() != null);
            clock.pass(TimeUnit.MILLISECONDS.toNanos(1));
            keys.play(noteOn(0, 62, 80), noteOff(0, 62, 64));
            assertThat(stopped().noteCount()).isEqualTo(1);
        }

        @Test
        void stopKeepsTheTakeWhileTheDiskHangs(@TempDir Path folder) {
            HangingDisk disk = new HangingDisk();
            SessionJournal journal =
                    new SessionJournal(WatchedProvider.watched(folder, disk).resolve("user"));
            document = new Document(session(), Performance.NEW);
            studio = new Studio(clock, devices, document, journal.takes());
            studio.soundingCount();
            disk.hangAfter(0);
            studio.record();
            pulseUntil(() -> studio.recording() != null && disk.hangs());
            clock.pass(TimeUnit.MILLISECONDS.toNanos(1));
            keys.play(noteOn(0, 62, 80), noteOff(0, 62, 64));
            clock.pass(TimeUnit.MILLISECONDS.toNanos(110));
            assertThat(stopped().noteCount()).isEqualTo(1);
            assertThat(disk.hangs()).isTrue();
            disk.release();
            journal.close();
        }

        private List<Long> starts(Track track, long from, long to) {
            ClipIndex index = ClipIndex.of(track.sounding());
            return IntStream.range(0, index.noteCount())
                    .mapToObj(index::start)
                    .filter(start -> start >= from && start < to)
                    .toList();
        }

        @Test
        void aPunchWithTheOptionsOfTheBeginningReplacesItsRangeAndNothingElse() {
            open(session().withTracks(List.of(notes("harp", HARP, 60), notes("winds", WINDS, 50))));
            document.perform(performance -> performance.withArmed("harp", true));
            Track before = document.session().tracks().get(0);
            studio.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(BAR, 2 * BAR))
                    .withPunches(true));
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            clock.advance(document.session().tempo().nanos(BAR + BAR / 4));
            keys.play(noteOn(0, 72, 80), noteOff(0, 72, 64));
            clock.advance(document.session().tempo().nanos(BAR) + Recorder.LATE_NANOS);
            pulseUntil(() -> document.session().takes().size() == 1);
            studio.stop();
            Track after = document.session().tracks().get(0);
            assertThat(starts(after, 0, BAR)).isEqualTo(starts(before, 0, BAR));
            assertThat(starts(after, 2 * BAR, Long.MAX_VALUE)).isEqualTo(starts(before, 2 * BAR, Long.MAX_VALUE));
            assertThat(starts(after, BAR, 2 * BAR)).containsExactly(BAR + BAR / 4);
            assertThat(document.session().tracks().get(1)).isEqualTo(before(1));
        }

        @Test
        void aPunchHasTheEventsThatAPortDeliversLate() {
            open(session());
            studio.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(BAR, 2 * BAR))
                    .withPunches(true));
            long start = clock.nanos();
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            long end = document.session().tempo().nanos(2 * BAR);
            clock.advance(end);
            clock.pass(Recorder.LATE_NANOS / 2);
            keys.playLate(noteOn(0, 72, 80), start + end - 2_000_000);
            keys.playLate(noteOff(0, 72, 64), start + end - 1_000_000);
            clock.pass(Recorder.LATE_NANOS);
            pulseUntil(() -> document.session().takes().size() == 1);
            assertThat(document.session().takes().get(0).noteCount()).isEqualTo(1);
        }

        private Track before(int track) {
            document.undo();
            Track was = document.session().tracks().get(track);
            document.redo();
            return was;
        }

        @Test
        void whatIsKeptLiesOverTheTracksWhereItWasPlayed() {
            open(session().withTracks(List.of(notes("harp", HARP, 60))));
            document.perform(performance -> performance.withArmed("harp", true));
            Track before = document.session().tracks().get(0);
            studio.play(document.session().tempo().nanos(5 * BAR));
            clock.advance(document.session().tempo().nanos(BAR / 4));
            keys.play(noteOn(0, 72, 80), noteOff(0, 72, 64));
            pulseUntil(() -> studio.notesToKeep() == 1);
            studio.stop();
            assertThat(studio.keepPlayed()).isTrue();
            pulseUntil(() -> document.session().takes().size() == 1);
            Track after = document.session().tracks().get(0);
            List<Long> added = new ArrayList<>(starts(after, 0, Long.MAX_VALUE));
            starts(before, 0, Long.MAX_VALUE).forEach(added::remove);
            assertThat(added).containsExactly(5 * BAR + BAR / 4);
            assertThat(after.noteCount()).isEqualTo(before.noteCount() + 1);
        }

        @Test
        void aPreviewIsNotRecordedOnto() {
            open(session().withTracks(List.of(notes("harp", HARP, 60), notes("winds", WINDS, 50))));
            document.begin(end -> {}).preview(session -> session.withZones(List.of()));
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            assertThat(document.session().zones()).hasSize(2);
            stopped();
            assertThat(document.session().zones()).hasSize(2);
        }

        @Test
        void keepsAKeyPressedInTheNanosecondOfTheStart() {
            open(session());
            keys.play(noteOn(0, 60, 80));
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            clock.pass(TimeUnit.MILLISECONDS.toNanos(1));
            keys.play(noteOff(0, 60, 64));
            Take take = stopped();
            assertThat(events(take)).containsExactly("on 60", "off 60");
            assertThat(take.log().stamp(0)).isZero();
        }

        @Test
        void whilePlayingItBeginsWhereItIsAndThePlaybackGoesOn() {
            openPlaying();
            document.perform(performance -> performance.withArmed("harp", true).withArmed("winds", true));
            long before = studio.position();
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            assertThat(studio.position()).isGreaterThanOrEqualTo(before);
            keys.play(noteOn(0, 62, 80), noteOff(0, 62, 64));
            Take take = stopped();
            assertThat(take.start()).isGreaterThanOrEqualTo(before);
            Regions harp = document.session().tracks().get(0).regions();
            assertThat(harp.of(take.id())).hasSize(1);
            assertThat(harp.of(take.id()).get(0).from()).isEqualTo(take.startTick());
            // What is before it is as it was.
            assertThat(harp.all().get(0).take()).isNull();
            assertThat(harp.all().get(0).to()).isEqualTo(take.startTick());
        }

        @Test
        void everyPassOfALoopIsATakeAndTheKeysOfOneAreNotInTheNext() {
            open(session());
            long pass = document.session().tempo().nanos(2 * BAR);
            studio.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(0, 2 * BAR))
                    .withLoops(true));
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            keys.play(noteOn(0, 60, 80), controller(0, 64, 127));
            clock.advance(pass + Recorder.LATE_NANOS);
            pulseUntil(() -> document.session().takes().size() == 1);
            keys.play(noteOff(0, 60, 64));
            keys.play(noteOn(0, 64, 80));
            clock.advance(pass);
            pulseUntil(() -> document.session().takes().size() == 2);
            studio.stop();
            pulseUntil(() -> studio.transport() == Transport.STOPPED);
            // Nothing was played in the third pass.
            List<Take> takes = document.session().takes();
            assertThat(takes).hasSize(2);
            assertThat(takes).allMatch(take -> take.endTick() == 2 * BAR);
            assertThat(events(takes.get(0))).containsExactly("on 60", "cc 64", "off 60");
            // The pedal is down in the next one, too; its off of the key before it is dropped.
            assertThat(events(takes.get(1))).startsWith("cc 64", "on 64");
            assertThat(events(takes.get(1))).doesNotContain("on 60", "off 60");
        }

        @Test
        void aMachineThatSleptLeavesNoTakesOfTheNight() {
            open(session());
            studio.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(0, 2 * BAR))
                    .withLoops(true));
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            keys.play(noteOn(0, 60, 80), controller(0, 64, 127));
            clock.advance(TimeUnit.HOURS.toNanos(10));
            long pass = document.session().tempo().nanos(2 * BAR);
            keys.play(noteOff(0, 60, 64), noteOn(0, 64, 80));
            clock.advance(pass + Recorder.LATE_NANOS);
            pulseUntil(() -> document.session().takes().size() >= 2);
            studio.stop();
            pulseUntil(() -> studio.transport() == Transport.STOPPED);
            List<Take> takes = document.session().takes();
            assertThat(takes).hasSize(2);
            assertThat(events(takes.get(0))).containsExactly("on 60", "cc 64", "off 60");
            assertThat(events(takes.get(1))).contains("on 64").doesNotContain("on 60", "off 60");
        }

        @Test
        void whatWasPlayedBeforeRecordWasPressedAndStoppedCanStillBeKept() {
            open(session());
            keys.play(noteOn(0, 60, 80), noteOff(0, 60, 64));
            await().until(() -> studio.notesToKeep() == 1);
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            keys.play(noteOn(0, 70, 80), noteOff(0, 70, 64));
            stopped();
            assertThat(studio.notesToKeep()).isEqualTo(1);
            assertThat(studio.keepPlayed()).isTrue();
            pulseUntil(() -> document.session().takes().size() == 2);
            assertThat(events(document.session().takes().get(1))).containsExactly("on 60", "off 60");
        }

        @Test
        void whatIsPlayedOnTheWayToAPunchIsNotRecordedAndCanBeKept() {
            open(session());
            studio.setOptions(RecordOptions.PLAIN
                    .withOnto(PrintMode.REPLACE_RANGE)
                    .withRange(new RecordOptions.Stretch(4 * BAR, 5 * BAR))
                    .withPunches(true));
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            keys.play(noteOn(0, 60, 80), noteOff(0, 60, 64));
            clock.advance(document.session().tempo().nanos(5 * BAR) + Recorder.LATE_NANOS);
            pulseUntil(() -> document.session().takes().size() == 1);
            assertThat(document.session().takes().get(0).noteCount()).isZero();
            studio.stop();
            pulseUntil(() -> studio.transport() == Transport.STOPPED);
            assertThat(studio.notesToKeep()).isEqualTo(1);
        }

        @Test
        void systemExclusiveIsInTheTakeOnTheTrackAndPlayedAgain() {
            open(session());
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            keys.play(noteOn(0, 60, 80));
            keys.playExclusive((byte) 0xF0, (byte) 0x7D, (byte) 5, (byte) 0xF7);
            keys.play(noteOff(0, 60, 64));
            await().until(() -> yarrow.exclusive.size() == 1);
            Take take = stopped();
            assertThat(events(take)).containsExactly("on 60", "exclusive 0", "off 60");
            studio.play(0);
            clock.passUntil(() -> yarrow.exclusive.size() == 2);
            assertThat(yarrow.exclusive.get(1)).containsExactly(0xF0, 0x7D, 5, 0xF7);
        }

        @Test
        void theTempoThatIsChangedWhileItIsRecordedIsTheTakes() {
            open(session());
            studio.record();
            pulseUntil(() -> studio.recording() != null);
            keys.play(noteOn(0, 60, 80), noteOff(0, 60, 64));
            clock.pass(document.session().tempo().nanos(BAR));
            document.edit("tempo", session -> session.withTempo(TempoMap.of(480)));
            pulseUntil(() -> studio.recording().tempo().tempos().size() == 2);
            keys.play(noteOn(0, 62, 80), noteOff(0, 62, 64));
            Take take = stopped();
            assertThat(take.tempo().bpm(0)).isEqualTo(960);
            assertThat(take.tempo().bpm(take.endTick())).isEqualTo(480);
        }
    }
}
