package dibble.recording;

import dibble.gear.Ids;
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
 */
public record Take(String id, String name, List<String> sources, EventLog log, List<Mark> marks, long length) {
    /**
     * A routing that came into force.
     *
     * @param position the number of the first event that it decided
     * @param stamp when, in nanoseconds since the beginning
     */
    public record Mark(int position, long stamp, Routing routing) {}

    /** The same under another id and name. */
    public Take named(String otherId, String otherName) {
        return new Take(otherId, otherName, sources, log, marks, length);
    }

    public Take {
        Ids.check(id);
        sources = List.copyOf(sources);
        marks = List.copyOf(marks);
    }
}
