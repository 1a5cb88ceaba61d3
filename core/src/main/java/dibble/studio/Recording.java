package dibble.studio;

import dibble.midi.Rest;
import dibble.midi.ShortMessage;
import dibble.recording.Chase;
import dibble.recording.EventLog;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.routing.Routing;
import dibble.routing.SceneSwitch;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;

/**
 * A recording in progress: the raw log and the tracks that fill. The recorder writes, anybody reads the logs. Notes that
 * are played a little before the start count as on it, pedals and wheels that were moved before it hold from there; an
 * off without its on is dropped, and what is held at the end gets its off there.
 */
public final class Recording {
    private static final int KEYS = 16 * 128;

    private final RecordPlan plan;
    private final EventLog log = new EventLog();
    private final Printer printer;
    private final List<Take.Mark> marks = new ArrayList<>();
    private volatile List<String> sources;
    private Routing routing;
    private long last;

    /** By source, channel and key: whether this recording has its on. */
    private final BitSet held = new BitSet();

    /** What is kept of the time before the start. */
    private boolean begun;

    private final Map<Integer, Chase> before = new LinkedHashMap<>();
    private final Map<Integer, Note> earlyNotes = new LinkedHashMap<>();
    private final PriorityQueue<Note> lateOffs = new PriorityQueue<>(Comparator.comparingLong(note -> note.at));

    /** A note of the time before the start, or an off that is due after it. */
    private record Note(long at, int source, int message) {}

    Recording(RecordPlan plan, List<String> sources, Printer printer, Routing routing) {
        this.plan = plan;
        this.printer = printer;
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

    void routing(long stamp, List<String> names, Routing next) {
        sources = names;
        routing = next;
        long at = since(stamp);
        if (at == 0 && !begun) {
            // What held before the start was never in force: the newest is the one that the take begins with.
            marks.clear();
        }
        marks.add(new Take.Mark(log.size(), at, next));
        printer.install(next, at);
    }

    void event(long stamp, int source, int message, boolean echo) {
        long at = stamp - plan.startsAt();
        if (at < 0) {
            early(at, source, message);
            return;
        }
        begin();
        playLateOffs(at);
        add(since(stamp), source, message, echo);
    }

    private void early(long at, int source, int message) {
        int key = key(source, message);
        if (ShortMessage.startsNote(message)) {
            if (at >= -plan.early()) {
                earlyNotes.put(key, new Note(at, source, message));
            }
        } else if (ShortMessage.endsNote(message)) {
            Note begun = earlyNotes.get(key);
            if (begun != null) {
                // It keeps its length.
                lateOffs.add(new Note(at - begun.at, source, message));
            }
        } else if (!callsScene(source, message)) {
            before.computeIfAbsent(source, id -> new Chase()).add(message);
        }
    }

    /** What called a scene before the start has done so: the take begins in that scene. */
    private boolean callsScene(int source, int message) {
        SceneSwitch calls = routing.sceneSwitch();
        return calls != null
                && ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE
                && calls.source().equals(sources.get(source))
                && calls.channel() == ShortMessage.channel(message) + 1;
    }

    private static int key(int source, int message) {
        return source * KEYS + (ShortMessage.channel(message) << 7 | ShortMessage.data1(message));
    }

    /** Puts what held before the start, and the notes that were a little early, onto the start. */
    void begin() {
        if (begun) {
            return;
        }
        begun = true;
        before.forEach((source, chase) -> chase.messages().stream()
                .filter(message -> !Rest.isAtRest(message))
                .forEach(message -> add(0, source, message, false)));
        earlyNotes.values().forEach(note -> add(0, note.source, note.message, false));
    }

    private void playLateOffs(long until) {
        while (!lateOffs.isEmpty() && lateOffs.peek().at <= until) {
            Note off = lateOffs.poll();
            last = Math.max(last, off.at);
            add(last, off.source, off.message, false);
        }
    }

    private void add(long at, int source, int message, boolean echo) {
        if (ShortMessage.isNote(message) && !echo) {
            int key = key(source, message);
            if (ShortMessage.startsNote(message)) {
                held.set(key);
            } else if (!held.get(key)) {
                return;
            } else {
                held.clear(key);
            }
        }
        log.add(at, source, message, echo);
        printer.event(sources.get(source), message, at, echo);
    }

    /** Ends what is held; the take is named when it is put into a session. */
    Take finish(long stamp) {
        begin();
        long wanted = Math.min(stamp, plan.endsAt());
        playLateOffs(wanted - plan.startsAt());
        long end = since(wanted);
        for (int key = held.nextSetBit(0); key >= 0; key = held.nextSetBit(key + 1)) {
            int place = key % KEYS;
            log.add(
                    end,
                    key / KEYS,
                    ShortMessage.noteOff(place >>> 7, place & 0x7F, ShortMessage.DEFAULT_RELEASE),
                    false);
            printer.event(sources.get(key / KEYS), log.message(log.size() - 1), end, false);
        }
        held.clear();
        printer.finish(end);
        return new Take("take", "Take", sources, log, marks, plan.tempo(), end, plan.from());
    }

    /** When it began or is going to, on the studio's clock. */
    public long startedAt() {
        return plan.startsAt();
    }

    /** Where it began in the session's time, in nanoseconds. */
    public long from() {
        return plan.from();
    }

    /** What was played so far; sources by their numbers in {@link #sources}. */
    public EventLog log() {
        return log;
    }

    /** The routings that were in force so far. Recorder's thread. */
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
