package dibble.recording;

import dibble.gear.Ids;
import dibble.midi.ShortMessage;
import dibble.routing.Routing;
import java.util.List;

/**
 * What was played, before any routing: the events of all sources in the order in which they were decided, and the
 * routings that were in force. Immutable: nobody appends to its log any more.
 *
 * @param sources the ids of the sources, by the numbers that the log has
 * @param log the events, in nanoseconds since the beginning
 * @param marks the routings, in their order; the first at event 0
 * @param length nanoseconds from start to stop
 * @param start where it begins in the session's time, in nanoseconds
 */
public record Take(
        String id, String name, List<String> sources, EventLog log, List<Mark> marks, long length, long start) {
    /**
     * A routing that came into force.
     *
     * @param position the number of the first event that it decided
     * @param stamp when, in nanoseconds since the beginning
     */
    public record Mark(int position, long stamp, Routing routing) {}

    public Take {
        Ids.check(id);
        sources = List.copyOf(sources);
        marks = List.copyOf(marks);
        if (start < 0) {
            throw new IllegalArgumentException("start " + start + " (expected 0 or more)");
        }
    }

    /** A take that begins where the session does. */
    public Take(String id, String name, List<String> sources, EventLog log, List<Mark> marks, long length) {
        this(id, name, sources, log, marks, length, 0);
    }

    /** The same under another id and name. */
    public Take named(String otherId, String otherName) {
        return new Take(otherId, otherName, sources, log, marks, length, start);
    }

    /** The same with other routings in force. */
    public Take withMarks(List<Mark> others) {
        return new Take(id, name, sources, log, others, length, start);
    }

    /** Where it ends in the session's time, in nanoseconds. */
    public long end() {
        return start + length;
    }

    /** How many notes were played. */
    public int noteCount() {
        int notes = 0;
        for (int i = 0; i < log.size(); i++) {
            if (ShortMessage.startsNote(log.message(i))) {
                notes++;
            }
        }
        return notes;
    }
}
