package dibble.studio;

import dibble.journals.TakeJournal;
import dibble.ports.EventRing;
import dibble.recording.PrintMode;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Router;
import dibble.routing.Routing;
import dibble.time.Clock;
import dibble.time.TempoMap;
import dibble.transport.PlaybackTimebase;
import java.util.List;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongUnaryOperator;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Records and prints events as they arrive, on its own thread. Requests (start, another routing, stop) take effect at
 * their place in the order of events. Recorded events are journaled within a tenth of a second; unrecorded ones can be
 * kept for some minutes.
 */
final class Recorder implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Recorder.class);
    private static final long REST_NANOS = TimeUnit.MILLISECONDS.toNanos(5);
    private static final long LONG_REST_NANOS = TimeUnit.MILLISECONDS.toNanos(25);

    /** Looks that found nothing before it rests longer. */
    private static final int MANY_TIMES = 200;

    /** The most by which a port may deliver an event after its stamp: two large blocks of a sound server. */
    static final long LATE_NANOS = TimeUnit.MILLISECONDS.toNanos(100);

    private static final long BETWEEN_WRITES = TimeUnit.MILLISECONDS.toNanos(100);

    /**
     * A complete take, with the tracks printed from it.
     *
     * @param silent whether it is a pass of a loop in which nothing was played
     * @param last whether no other pass of a loop follows
     */
    record Finished(
            Take take, Printer printer, PrintMode onto, TakeJournal.TakeFile journal, boolean silent, boolean last) {}

    /** The target and the mode of printing. */
    record Onwards(PrintMode onto, List<Track> tracks, Set<String> armed) {
        Printer printer() {
            return new Printer(tracks, armed);
        }
    }

    /** A routing, with the ids by which events and scenes are numbered when it comes into force. */
    record InForce(List<String> sources, List<String> scenes, Routing routing) {
        /** Returns the routing in the scene that was active at its place: an event may just have called one. */
        Routing inScene(int scene) {
            return scene < 0 ? routing : routing.withScene(scenes.get(scene));
        }
    }

    private interface Request {
        /** @param scene the slot of the scene that is active at this point, or -1 */
        void carryOut(long stamp, int scene);
    }

    private final Clock clock;
    private final Engine engine;
    private final EventRing ring;
    private final SysexBuffer exclusives;
    private final TakeJournal journal;
    private final Queue<Request> requests = new ConcurrentLinkedQueue<>();
    private final Queue<Finished> finished = new ConcurrentLinkedQueue<>();
    private final UnrecordedBuffer backlog = new UnrecordedBuffer();
    private final HeldState standing = new HeldState();
    private final Thread thread = new Thread(this::run, "dibble-recorder");
    private volatile Recording recording;
    private volatile boolean hasFailed;
    private volatile boolean closing;
    private Onwards onwards;
    private long writtenAt;

    Recorder(Clock clock, Engine engine, TakeJournal journal) {
        this.clock = clock;
        this.engine = engine;
        ring = engine.recorderRing();
        exclusives = engine.exclusives();
        this.journal = journal;
        thread.setDaemon(true);
        thread.start();
    }

    /** Sets how long unrecorded events can be kept. */
    void setBacklog(long nanos) {
        backlog.setKept(nanos);
    }

    /** Asks for a recording to start at the mark that follows. */
    void start(RecordPlan plan, Onwards onto, InForce routing) {
        requests.add((stamp, scene) -> {
            onwards = onto;
            // Events since its start, that of the same nanosecond included, are played to it; what stood before is at
            // its start.
            boolean late = plan.startsAt() <= stamp;
            begin(new Recording(
                    plan,
                    routing.sources(),
                    onto.printer(),
                    routing.inScene(scene),
                    standing.before(late ? plan.startsAt() - plan.early() : stamp)));
            if (late) {
                backlog.replay(recording, plan.startsAt() - plan.early());
            }
        });
    }

    private void begin(Recording next) {
        journal.begin(next.plan().tempo(), next.from());
        recording = next;
    }

    /** Asks for another routing from the mark that follows. */
    void routing(InForce routing) {
        requests.add((stamp, scene) -> {
            Routing inForce = routing.inScene(scene);
            backlog.routing(stamp, routing.sources(), inForce);
            if (recording != null) {
                recording.routing(stamp, routing.sources(), inForce);
            }
        });
    }

    /** Asks for the recording to go on along another course. @param now when that takes over */
    void along(PlaybackTimebase course, long now) {
        requests.add((stamp, scene) -> {
            if (recording != null) {
                TempoMap before = recording.tempo();
                recording.along(course, now);
                journal.tempo(before, recording.tempo());
            }
        });
    }

    /** Asks for the end at the mark that follows. */
    void stop() {
        requests.add((stamp, scene) -> {
            if (recording != null) {
                finish(stamp, true);
            }
        });
    }

    /**
     * Requests a take of the events that were played and not recorded, printed over the present content of the tracks, at
     * the next mark.
     *
     * @param fromAt where the music was at a time of the clock, in nanoseconds of the tempo
     */
    void keepPlayed(TempoMap tempo, LongUnaryOperator fromAt, List<Track> printed, Set<String> taking) {
        Onwards kept = new Onwards(PrintMode.OVERDUB, printed, taking);
        requests.add((stamp, scene) -> {
            Recording made = recording != null
                    ? null
                    : backlog.keep(
                            stamp,
                            tempo,
                            fromAt,
                            (plan, sources, routing) ->
                                    new Recording(plan, sources, kept.printer(), routing, new HeldState()));
            if (made != null) {
                finished.add(new Finished(made.finish(stamp), made.printer(), kept.onto(), null, false, false));
            }
        });
    }

    /** Returns the number of notes that {@link #keepPlayed} would keep. */
    int notesToKeep() {
        return backlog.noteCount();
    }

    private void finish(long stamp, boolean last) {
        Recording done = recording;
        Take take = done.finish(stamp);
        finished.add(new Finished(take, done.printer(), onwards.onto(), endJournal(take), done.isSilentPass(), last));
        recording = null;
    }

    /** Ends the journal of a take; the take does not depend on it. */
    private TakeJournal.TakeFile endJournal(Take take) {
        try {
            journal.follow(take.log(), take.sources(), take.marks());
            return journal.end(take.length());
        } catch (RuntimeException | Error e) {
            LOG.error("the journal of a recording failed", e);
            return null;
        }
    }

    /** Ends a recording at its automatic end; in a loop, the next begins at once. */
    private void endWhereItEnds(long now) {
        Recording current = recording;
        while (current != null && now >= current.plan().endsAt()) {
            RecordPlan plan = current.plan();
            List<Recording.Note> forNext = current.forNext();
            finish(plan.endsAt(), !plan.loops());
            if (plan.loops()) {
                begin(new Recording(
                        plan.next(), current.sources(), onwards.printer(), current.routing(), standing.withoutKeys()));
                forNext.forEach(note -> recording.event(note.at(), note.source(), note.message(), false));
            }
            current = recording;
        }
    }

    private void run() {
        int empty = 0;
        while (!closing) {
            try {
                // Read in this order: if the engine is idle, the ring has everything that was received until now.
                long now = clock.nanos();
                boolean complete = engine.isIdle();
                empty++;
                while (ring.poll()) {
                    empty = 0;
                    take(ring.stamp(), ring.payload());
                }
                if (complete) {
                    endWhereItEnds(now - LATE_NANOS);
                }
                Recording current = recording;
                if (current != null && now - writtenAt >= BETWEEN_WRITES) {
                    writtenAt = now;
                    journal.follow(current.log(), current.sources(), current.marks());
                }
            } catch (RuntimeException e) {
                // One event that cannot be printed must not end the take.
                LOG.error("an event was not recorded", e);
            } catch (Error e) {
                stopAfter(e);
            }
            // Events bear their times: to look later loses nothing.
            boolean quiet = empty > MANY_TIMES && recording == null;
            clock.rest(quiet ? LONG_REST_NANOS : REST_NANOS);
        }
    }

    /** Ends a recording after a failure and keeps its events if possible. The ring is still emptied. */
    private void stopAfter(Error failure) {
        if (recording != null) {
            try {
                finish(clock.nanos(), true);
            } catch (RuntimeException | Error again) {
                failure.addSuppressed(again);
                recording = null;
            }
            hasFailed = true;
        }
        LOG.error("the recorder stopped", failure);
    }

    private void take(long stamp, long packed) {
        endWhereItEnds(stamp);
        int what = Packed.what(packed);
        if (what == Packed.REQUEST) {
            requests.remove().carryOut(stamp, Packed.voice(packed) - 1);
            return;
        }
        boolean echo = what == Packed.ECHO;
        int source = Packed.voice(packed);
        int message = Packed.message(packed);
        Recording current = recording;
        if (what == Packed.EXCLUSIVE) {
            byte[] exclusive = exclusives.take(message);
            if (current != null && exclusive != null) {
                current.exclusive(stamp, source, exclusive);
            }
            return;
        }
        if (current != null) {
            current.event(stamp, source, message, echo);
        }
        if (echo && !Router.onlyEnds(message)) {
            return;
        }
        // Events before the start can be kept as well.
        if (current == null || stamp < current.startedAt()) {
            backlog.add(stamp, source, message);
        }
        standing.add(stamp, source, message);
    }

    /** The recording in progress, or null. */
    Recording recording() {
        return recording;
    }

    /** Returns true if a take is complete that was not taken yet. Any thread. */
    boolean hasFinished() {
        return !finished.isEmpty();
    }

    /** Returns true after a recording ended because it could not go on. Any thread. */
    boolean hasFailed() {
        return hasFailed;
    }

    /** Forgets the failure. */
    void forgetFailure() {
        hasFailed = false;
    }

    /** The next complete take, or null. */
    Finished pollFinished() {
        return finished.poll();
    }

    @Override
    public void close() {
        closing = true;
        LockSupport.unpark(thread);
    }
}
