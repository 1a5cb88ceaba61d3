package dibble.studio;

import dibble.recording.EventLog;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.routing.Routing;
import java.util.ArrayList;
import java.util.List;

/** A recording in progress: the raw log and the tracks that fill. The recorder writes, anybody reads the logs. */
public final class Recording {
    private final long startedAt;
    private final EventLog log = new EventLog();
    private final Printer printer;
    private final List<Take.Mark> marks = new ArrayList<>();
    private volatile List<String> sources;
    private long last;

    Recording(long startedAt, List<String> sources, Printer printer, Routing routing) {
        this.startedAt = startedAt;
        this.printer = printer;
        routing(startedAt, sources, routing);
    }

    /** Nanoseconds since the beginning; two sources' stamps can cross, a recording's never go back. */
    private long since(long stamp) {
        last = Math.max(last, stamp - startedAt);
        return last;
    }

    void routing(long stamp, List<String> names, Routing routing) {
        sources = names;
        long at = since(stamp);
        marks.add(new Take.Mark(log.size(), at, routing));
        printer.install(routing, at);
    }

    void event(long stamp, int source, int message, boolean echo) {
        long at = since(stamp);
        log.add(at, source, message, echo);
        printer.event(sources.get(source), message, at, echo);
    }

    /** Ends what is held; the take is named when it is put into a session. */
    Take finish(long stamp) {
        long end = since(stamp);
        printer.finish(end);
        return new Take("take", "Take", sources, log, marks, end);
    }

    /** When it began, on the studio's clock. */
    public long startedAt() {
        return startedAt;
    }

    /** What was played so far; sources by their numbers in {@link #sources}. */
    public EventLog log() {
        return log;
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
