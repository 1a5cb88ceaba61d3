package dibble.studio;

import static dibble.text.CoreText.say;

import dibble.edits.NoteEdits;
import dibble.edits.TakeEdits;
import dibble.gear.Instrument;
import dibble.journals.TakeJournal;
import dibble.midi.IdentityMessage;
import dibble.midi.ShortMessage;
import dibble.notes.Grid;
import dibble.notes.Quantize;
import dibble.ports.Devices;
import dibble.ports.EventRing;
import dibble.ports.OutputQueue;
import dibble.recording.Take;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.RoutingTable;
import dibble.routing.SlotAllocator;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.Clock;
import dibble.transport.ClockFollower;
import dibble.transport.Follower;
import dibble.transport.PlaybackPlan;
import dibble.transport.PlaybackTimebase;
import dibble.transport.Player;
import dibble.transport.ServerTransport;
import dibble.transport.Timeline;
import dibble.transport.TransportFollower;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.IntConsumer;

/**
 * The living whole of one open session: follows its document, opens ports, routes, records and plays back. Everything
 * is called on the thread that edits, which also calls {@link #pulse} regularly.
 */
public final class Studio implements AutoCloseable {
    private static final String TEST = "test:";

    /** The time for answers: devices are slow to identify themselves. */
    private static final long ANSWERS_WITHIN = TimeUnit.SECONDS.toNanos(2);

    private final Clock clock;
    private final Document document;
    private final TakeJournal journal;
    private final SlotAllocator slots = new SlotAllocator();
    private final Engine engine;
    private final Recorder recorder;
    private final InputStage inlet;
    private final Playback playback;
    private final StudioTransport deck;
    private final TransportState motion;
    private final PortRack ports;
    private final Runnable unlisten;
    private final ServerTransport transport;
    private Routing routing;
    private Set<String> unheard;

    /** The scene that was asked for last, or learned from the engine: a change of it comes from neither. */
    private String scene;

    private Player performer;
    private boolean listensEverywhere;
    private String alone;
    private boolean asking;
    private long askedAt;
    private String recordingTrouble;

    /** One that writes no journal and shares no transport. */
    public Studio(Clock clock, Devices devices, Document document) {
        this(clock, devices, document, TakeJournal.NONE);
    }

    /** @param journal where recordings are written while they last */
    public Studio(Clock clock, Devices devices, Document document, TakeJournal journal) {
        this(clock, devices, document, journal, ServerTransport.NONE);
    }

    /**
     * @param journal where recordings are written while they last
     * @param transport the one that is shared with other programs
     */
    public Studio(Clock clock, Devices devices, Document document, TakeJournal journal, ServerTransport transport) {
        this.transport = transport;
        this.clock = clock;
        this.document = document;
        this.journal = journal;
        engine = new Engine(clock);
        recorder = new Recorder(clock, engine, journal);
        inlet = engine.openInlet();
        ports = new PortRack(engine, slots, devices);
        playback = new Playback(clock, engine, inlet, slots, ports, devices, transport);
        deck = new StudioTransport(document, engine, slots, playback, recorder, () -> routing);
        motion = new TransportState(clock, document, deck);
        unlisten = document.listen(this::follow);
        follow();
    }

    /** The document that it plays. */
    public Document document() {
        return document;
    }

    private Session session() {
        return document.session();
    }

    private void followOthers() {
        Follower follower = motion.follower();
        ports.followClock(motion.followed(), follower instanceof ClockFollower clocks ? clocks : null);
        transport.follow(follower instanceof TransportFollower other ? other : null);
    }

    /** Numbers of sources, ports and instruments, as the monitor's events have them. */
    public SlotAllocator slots() {
        return slots;
    }

    /** Returns the present sources to play on; can be queried on another thread. */
    public Playable playable() {
        return new Playable(slots.copy());
    }

    /** Returns true if there is something to take in that has not been seen yet. Any thread. */
    public boolean hasNews() {
        return engine.monitorRing().hasEvents() || recorder.hasFinished() || recorder.hasFailed();
    }

    /** Returns true if the music moves, or may start to move from outside, so that a display must poll. */
    public boolean isMoving() {
        return transport() != Transport.STOPPED
                || isPerforming()
                || waitsToRecord()
                || motion.followed() != null
                || listensEverywhere
                || asking
                || playback.isWorking()
                || ports.soundsWaiting() > 0;
    }

    /** Returns the played and sent events, for one reader, as {@link Packed} describes. */
    public EventRing monitor() {
        return engine.monitorRing();
    }

    private void follow() {
        followRouting();
        playback.follow(new Playback.Tracks(session(), document.performance(), routing));
        motion.follow();
        // Ways in may have been opened since.
        followOthers();
    }

    private void followRouting() {
        Performance performance = document.performance();
        Routing next = document.routing();
        if (alone != null) {
            next = next.alone(alone);
        }
        if (next.equals(routing) && performance.unheard().equals(unheard)) {
            return;
        }
        boolean sameRouting = next.equals(routing);
        boolean sceneAsked = !Objects.equals(next.activeScene(), scene);
        routing = next;
        unheard = performance.unheard();
        scene = next.activeScene();
        RoutingTable table = RoutingCompiler.compileLive(next, slots, unheard);
        ports.openLanes(next);
        engine.submit((router, stamp) -> {
            // An edit stays in the scene that is active: a key may have called one that is not known here yet.
            if (sceneAsked) {
                router.install(table, stamp);
            } else {
                router.replace(table, stamp);
            }
        });
        ports.follow(next);
        if (!sameRouting) {
            deck.routing(next);
        }
    }

    /** Soloes one zone among those of its source; null for all. The recording has only the heard output. */
    public void hearAlone(String zone) {
        alone = zone;
        follow();
    }

    /** The zone that is heard alone, or null. */
    public String heardAlone() {
        return alone;
    }

    /** Takes in that ports have come or gone. */
    public void portsChanged() {
        ports.portsChanged(routing);
        followOthers();
        playback.follow(new Playback.Tracks(session(), document.performance(), routing));
        playback.portsChanged();
        listenToStrangers();
    }

    /** Sends all parts their bank, program, volume and pan. */
    public void sendAllSounds() {
        ports.forgetSounds(port -> true);
        ports.sendSounds(routing);
    }

    /** The same for the parts on one port. */
    public void sendSounds(String port) {
        ports.forgetSounds(port::equals);
        ports.sendSounds(routing);
    }

    /** Plays a message in the place of a source, as if it had come from its port. */
    public void playAs(String source, int message) {
        inlet.playAs(slots.source(source), message);
    }

    /**
     * Sounds a note on a channel of an instrument's port, past the zones, until {@link #endTest}.
     *
     * @param channel 1-16
     */
    public void test(Instrument instrument, int channel, int note, int velocity) {
        int voice = slots.source(TEST);
        int voices = slots.sourceCount();
        engine.submit((router, stamp) -> router.openVoices(voices));
        inlet.playBack(
                voice,
                slots.port(instrument.port()),
                slots.instrument(instrument.id()),
                ShortMessage.noteOn(channel - 1, note, velocity));
    }

    /** Ends the notes of {@link #test}. */
    public void endTest() {
        int voice = slots.source(TEST);
        engine.submit((router, stamp) -> router.letGo(voice, stamp));
    }

    /** Returns the number of parts whose sound is still to be sent: a serial port takes one at a time. */
    public int soundsWaiting() {
        return ports.soundsWaiting();
    }

    /** Asks every device that the session uses who it is; {@link #identity} has the answers as they come. */
    public void askWhoIsThere() {
        asking = true;
        askedAt = clock.nanos();
        ports.askWhoIsThere();
    }

    /** Returns true if answers may still come. */
    public boolean isAsking() {
        return asking;
    }

    /** Returns the last identity reply of a port's device. */
    public Optional<IdentityMessage.Answer> identity(String port) {
        return ports.strangers().identity(port);
    }

    /** Listens, or listens no longer, to all ports that the session does not use, to say which one is played. */
    public void listenEverywhere(boolean on) {
        listensEverywhere = on;
        listenToStrangers();
    }

    private void listenToStrangers() {
        if (listensEverywhere) {
            ports.strangers().listen(port -> !ports.listens(port));
        } else if (!asking) {
            ports.strangers().stop();
        }
    }

    /** The port that was played since {@link #listenEverywhere} though the session does not use it, or null. */
    public String strangerPlayed() {
        return ports.strangers().played();
    }

    /** The loops that were found and cut. */
    public List<Loop> loops() {
        return ports.loops();
    }

    /** Sends to a port again that was cut off because of a loop. */
    public void allowLoop(String outputPort) {
        ports.allow(outputPort);
    }

    /** Returns true if a recording waits for the clock that is followed to start. */
    public boolean waitsToRecord() {
        return motion.waitsToRecord();
    }

    /** The tempo of the clock that is followed, in quarter notes a minute; 0 where there is none. */
    public double followedTempo() {
        return motion.followedTempo();
    }

    /** Returns the state of the transport. */
    public Transport transport() {
        return motion.transport();
    }

    /**
     * Returns the position of playback or recording in nanoseconds of the session; the start position while both are
     * stopped. While only the performance plays, its position.
     */
    public long position() {
        boolean rests = motion.transport() == Transport.STOPPED;
        return rests && isPerforming() ? performer.position() : motion.position();
    }

    /** Returns the remaining count-in in nanoseconds; 0 for none. */
    public long countsIn() {
        return motion.countsIn();
    }

    /**
     * Moves the position for playback and recording, in nanoseconds of the session; running playback continues from
     * there.
     */
    public void locate(long nanos) {
        motion.locate(nanos);
    }

    /** Returns the start position of playback and recording, in nanoseconds of the session. */
    public long place() {
        return motion.place();
    }

    /** Returns the options of recording. */
    public RecordOptions options() {
        return motion.options();
    }

    /** Records in another way from now on; a loop that is set while it plays is played. */
    public void setOptions(RecordOptions next) {
        motion.setOptions(next);
    }

    /** The recording in progress, or null; it may still be counted in. */
    public Recording recording() {
        return recorder.recording();
    }

    /**
     * Starts to record everybody. Parts that are fed and have no track get one, and one for everything else is there.
     * Tracks that are not armed, and all where something is recorded on top, are heard meanwhile. While it plays it
     * records from where it is. Does nothing while it records already.
     */
    public void record() {
        recordingTrouble = null;
        motion.record();
    }

    /** Returns the reason for which the last recording failed; null if it did not. */
    public String recordingTrouble() {
        return recordingTrouble;
    }

    /** Sets how long unrecorded events can be kept, in nanoseconds. */
    public void setBacklog(long nanos) {
        recorder.setBacklog(nanos);
    }

    /**
     * Makes a take of the unrecorded events of the last minutes. It begins at the position of the music at its first
     * note, or at the playhead if the transport was stopped, and is printed over the tracks. It is in the document
     * after a later {@link #pulse}.
     *
     * @return whether there was anything to keep
     */
    public boolean keepPlayed() {
        if (transport() == Transport.RECORDING || recorder.notesToKeep() == 0) {
            return false;
        }
        deck.keepPlayed(motion::tickAt);
        return true;
    }

    /** Returns the number of notes that {@link #keepPlayed} would keep. */
    public int notesToKeep() {
        return recorder.notesToKeep();
    }

    /** Plays the tracks from a place, in nanoseconds, on the parts that they are for. */
    public void play(long from) {
        motion.play(from);
    }

    /** Stops recording or playback. The take is in the document after a later {@link #pulse}. */
    public void stop() {
        motion.stop();
    }

    /**
     * Makes stand-ins play a performance repeatedly, until {@link #stopPerformance}.
     *
     * @param lanes for each lane of the timeline the receiver of its messages
     */
    public void perform(Timeline timeline, List<IntConsumer> lanes) {
        stopPerformance();
        List<PlaybackPlan.PlannedTrack> played = new ArrayList<>();
        for (int i = 0; i < lanes.size(); i++) {
            IntConsumer lane = lanes.get(i);
            played.add(new PlaybackPlan.PlannedTrack(String.valueOf(i), lane::accept));
        }
        long last = timeline.tempo().ticks(timeline.length());
        PlaybackTimebase course = new PlaybackTimebase(
                timeline.tempo(), 0, clock.nanos(), new PlaybackTimebase.Loop(0, Math.max(1, last)));
        performer = new Player("dibble-performer", clock, new PlaybackPlan(course, timeline, played));
        performer.start();
    }

    /** Stops what {@link #perform} began. */
    public void stopPerformance() {
        if (performer != null) {
            performer.close();
            performer = null;
        }
    }

    /** Returns true if what {@link #perform} began is under way. */
    public boolean isPerforming() {
        return performer != null && performer.isPlaying();
    }

    /** Stops playback and performance, and has everything fall silent. Recording goes on. */
    public void silence() {
        motion.stopPlaying();
        stopPerformance();
        engine.submit((router, stamp) -> router.silence(stamp));
    }

    /** Takes in what other threads have finished: a complete take becomes part of the document, as one step. */
    public void pulse() {
        followScene();
        motion.pulse();
        playback.pulse();
        ports.sendWaitingSounds();
        if (asking && clock.nanos() - askedAt > ANSWERS_WITHIN) {
            asking = false;
            listenToStrangers();
        }
        if (recorder.hasFailed()) {
            recorder.forgetFailure();
            motion.recordingEnded();
            recordingTrouble = say("studio.recording-stopped");
        }
        for (Recorder.Finished done = recorder.pollFinished(); done != null; done = recorder.pollFinished()) {
            if (done.last()) {
                motion.recordingEnded();
            }
            keep(done);
        }
    }

    /** The performance learns of a scene that was called by something played. */
    private void followScene() {
        int active = engine.scene();
        if (active < 0) {
            return;
        }
        String id = slots.sceneId(active);
        if (!id.equals(scene) && session().scene(id).isPresent()) {
            scene = id;
            document.perform(performance -> performance.withScene(id));
        }
    }

    /** Named only now: between stop and this, undo and redo may have brought other takes. */
    private void keep(Recorder.Finished done) {
        if (done.silent()) {
            journal.kept(done.journal());
            return;
        }
        String id = TakeEdits.freshTakeId(session());
        Take take = done.take().named(id, say("common.take", id.substring(id.indexOf('-') + 1)));
        document.edit(
                say("studio.recording-of", take.name()),
                session -> quantized(session, TakeEdits.keep(session, take, done.printer(), done.onto())));
        journal.kept(done.journal());
    }

    /** The tracks quantized, where that is wished; the take is as it was played. */
    private Session quantized(Session before, Session kept) {
        Grid.Step step = options().quantize();
        return step == null
                ? kept
                : NoteEdits.change(kept, NoteEdits.added(before, kept), Quantize.starts(Grid.of(step, kept.tempo(), 0)))
                        .session();
    }

    /** Returns the number of sounding (port, channel, note) places at this point of the order of events. */
    public int soundingCount() {
        CompletableFuture<Integer> count = new CompletableFuture<>();
        engine.submit((router, stamp) -> count.complete(router.soundingCount()));
        return count.join();
    }

    /** Events that were lost on the way in or by the recorder. */
    public long lost() {
        return engine.lost();
    }

    /** Events that the reader of {@link #monitor} was too slow for. */
    public long monitorSkipped() {
        return engine.monitorSkipped();
    }

    /** The way out to a port that is open. */
    public Optional<OutputQueue> lane(String port) {
        return ports.lane(port);
    }

    /** Releases all keys and closes all ports. A recording in progress is dropped. */
    @Override
    public void close() {
        unlisten.run();
        playback.close();
        stopPerformance();
        ports.close();
        recorder.close();
    }
}
