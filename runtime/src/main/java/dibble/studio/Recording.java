package dibble.studio;

import static dibble.text.CoreText.say;

import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.OpenNotes;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.routing.Router;
import dibble.routing.Routing;
import dibble.routing.SceneSwitch;
import dibble.time.TempoMap;
import dibble.transport.PlaybackTimebase;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;

/**
 * A recording in progress: the log and the printed tracks. The recorder writes, any thread reads the logs. The
 * recording begins with the present state: held keys, pedals and wheels, and notes played slightly early. An off
 * without its on is dropped, and held notes get an off at the end. A note right before the end of a pass belongs to the
 * next one.
 */
public final class Recording {
    private final EventStore log = new EventStore();
    private final Printer printer;
    private final List<Take.Mark> marks = new ArrayList<>();

    /** Changes only where the tempo does while it records. */
    private volatile RecordPlan plan;

    private volatile List<String> sources;
    private Routing routing;

    /** When the routing came into force; -1 where an event was decided since. */
    private long changedAt = -1;

    private long last;

    /** The notes that this recording has the ons of. */
    private final OpenNotes held = new OpenNotes();

    private boolean begun;

    /** The state before the start. */
    private final HeldState standing;

    /** Notes of the moment before the start, in their order, and the last of each key. */
    private final List<Note> earlyNotes = new ArrayList<>();

    private final Map<Integer, Note> lastEarly = new HashMap<>();
    private final PriorityQueue<Note> lateOffs = new PriorityQueue<>(Comparator.comparingLong(Note::at));

    /** Notes of the moment before the end, which are of the next pass, and the events since the first of them. */
    private final List<Withheld> withheld = new ArrayList<>();

    private final OpenNotes heldForNext = new OpenNotes();

    /** True once an event was played after the beginning. */
    private boolean played;

    /** A note of the time before the start, an off that is due after it, or an event for the next pass. */
    record Note(long at, int source, int message) {}

    /** An event of the moment before a pass ends: until then it is not known which pass has it. */
    private record Withheld(Note note, boolean echo, boolean forNext) {}

    /** @param standing the state at the time of the request */
    Recording(RecordPlan plan, List<String> sources, Printer printer, Routing routing, HeldState standing) {
        this.plan = plan;
        this.printer = printer;
        this.standing = standing;
        routing(plan.startsAt(), sources, routing);
    }

    RecordPlan plan() {
        return plan;
    }

    /** Nanoseconds since the beginning; two sources' stamps can cross, a recording's never go back. */
    private long since(long stamp) {
        last = Math.max(last, stamp - plan.startsAt());
        return last;
    }

    /** Another routing is in force; the take and its tracks know it from the next event on, if it is still there then. */
    void routing(long stamp, List<String> names, Routing next) {
        sources = names;
        routing = next;
        changedAt = since(stamp);
    }

    /** A drag changes the routing many times; only a routing that decided an event is kept. */
    private void settleRouting() {
        if (changedAt >= 0) {
            marks.add(new Take.Mark(log.size(), changedAt, routing));
            printer.install(routing, changedAt);
            changedAt = -1;
        }
    }

    /** Goes on along another course. @param now when that takes over, on the studio's clock */
    void along(PlaybackTimebase course, long now) {
        plan = plan.along(course, now);
    }

    void event(long stamp, int source, int message, boolean echo) {
        long at = stamp - plan.startsAt();
        // An echo counts only if it ends something, as in the router.
        boolean counts = !echo || Router.onlyEnds(message);
        if (at < 0 && !begun) {
            if (counts) {
                early(at, source, message);
            }
            return;
        }
        begin();
        played |= !echo;
        boolean next = counts && isForNext(stamp, source, message);
        if (next || !withheld.isEmpty()) {
            withheld.add(new Withheld(new Note(stamp, source, message), echo, next));
        } else {
            put(stamp, source, message, echo);
        }
    }

    private void put(long stamp, int source, int message, boolean echo) {
        playLateOffs(stamp - plan.startsAt());
        if (!echo && ShortMessage.startsNote(message) && dropLateOff(source, message)) {
            add(since(stamp), source, OpenNotes.off(message), false);
        }
        add(since(stamp), source, message, echo);
    }

    private boolean isForNext(long stamp, int source, int message) {
        if (ShortMessage.startsNote(message) && stamp >= plan.endsAt() - plan.nearEnd()) {
            heldForNext.begin(source, message, 0);
            return true;
        }
        return ShortMessage.endsNote(message) && heldForNext.end(source, message) != OpenNotes.NONE;
    }

    /** Returns the notes that were played for the next pass, with their stamps; this one has the other events. */
    List<Note> forNext() {
        return release(false);
    }

    private List<Note> release(boolean all) {
        List<Note> next = new ArrayList<>();
        for (Withheld event : withheld) {
            if (event.forNext && !all) {
                next.add(event.note);
            } else {
                put(event.note.at, event.note.source, event.note.message, event.echo);
            }
        }
        withheld.clear();
        return next;
    }

    private void early(long at, int source, int message) {
        int key = HeldState.key(source, message);
        if (ShortMessage.startsNote(message) && at >= -plan.early()) {
            dropLateOff(source, message);
            lastEarly.put(key, new Note(at, source, message));
            earlyNotes.add(lastEarly.get(key));
        } else if (ShortMessage.endsNote(message) && lastEarly.containsKey(key)) {
            // It keeps its length.
            lateOffs.add(new Note(at - lastEarly.get(key).at, source, message));
        } else if (!callsScene(source, message)) {
            standing.add(at, source, message);
        }
    }

    /** Returns true if a message before the start called a scene: the take begins in that scene. */
    private boolean callsScene(int source, int message) {
        SceneSwitch calls = routing.sceneSwitch();
        return calls != null
                && ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE
                && calls.source().equals(sources.get(source))
                && calls.channel() == ShortMessage.channel(message) + 1;
    }

    /** Puts the initial state, and notes that were slightly early, at the start. */
    void begin() {
        if (begun) {
            return;
        }
        begun = true;
        standing.tell((stamp, source, message) -> {
            if (!lastEarly.containsKey(HeldState.key(source, message)) || !ShortMessage.isNote(message)) {
                add(0, source, message, false);
            }
        });
        for (Note note : earlyNotes) {
            if (held.at(note.source, note.message) != OpenNotes.NONE) {
                // The same key twice before the start: the first is over by then.
                add(0, note.source, OpenNotes.off(note.message), false);
            }
            add(0, note.source, note.message, false);
        }
    }

    /** Drops the off that a key's early note was still to get; whether there was one. */
    private boolean dropLateOff(int source, int message) {
        int key = HeldState.key(source, message);
        return lateOffs.removeIf(off -> HeldState.key(off.source, off.message) == key);
    }

    private void playLateOffs(long until) {
        while (!lateOffs.isEmpty() && lateOffs.peek().at <= until) {
            Note off = lateOffs.poll();
            last = Math.max(last, off.at);
            add(last, off.source, off.message, false);
        }
    }

    private void add(long at, int source, int message, boolean echo) {
        if (!echo && ShortMessage.startsNote(message)) {
            held.begin(source, message, 0);
        } else if (ShortMessage.endsNote(message) && held.end(source, message) == OpenNotes.NONE && !echo) {
            return;
        }
        settleRouting();
        log.add(at, source, message, echo);
        printer.event(sources.get(source), message, at, echo);
    }

    /** Takes a system exclusive message of a source. */
    void exclusive(long stamp, int source, byte[] message) {
        if (stamp >= plan.startsAt()) {
            begin();
            played = true;
            long at = since(stamp);
            settleRouting();
            log.addExclusive(at, source, message);
            printer.exclusive(sources.get(source), message, at);
        }
    }

    /** Ends the held notes; the take is named when it is added to a session. */
    Take finish(long stamp) {
        begin();
        long wanted = Math.min(stamp, plan.endsAt());
        if (wanted < plan.endsAt()) {
            // There is no next pass.
            release(true);
        }
        playLateOffs(wanted - plan.startsAt());
        long end = since(wanted);
        settleRouting();
        held.endAll((source, off) -> {
            log.add(end, source, off);
            printer.event(sources.get(source), off, end, false);
        });
        printer.finish(end);
        return new Take("take", say("recording.take"), sources, log, marks, plan.tempo(), end, plan.from());
    }

    /** Returns true for a pass of a loop without events, which leaves no take. */
    boolean isSilentPass() {
        return plan.loops() && !played;
    }

    /** When it began or is going to, on the studio's clock. */
    public long startedAt() {
        return plan.startsAt();
    }

    /** Returns the start in the music, in nanoseconds of its {@link #tempo}. */
    public long from() {
        return plan.from();
    }

    /** The tempo with which it is recorded. */
    public TempoMap tempo() {
        return plan.tempo();
    }

    /** Returns the events so far; sources by their numbers in {@link #sources}. */
    public EventStore log() {
        return log;
    }

    /** The routing that is in force. Recorder's thread. */
    Routing routing() {
        return routing;
    }

    /** The routings that decided events so far. Recorder's thread. */
    List<Take.Mark> marks() {
        return marks;
    }

    /** The tracks that fill. */
    public Printer printer() {
        return printer;
    }

    /** The ids of sources, by number. */
    public List<String> sources() {
        return sources;
    }
}
