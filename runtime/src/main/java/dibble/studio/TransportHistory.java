package dibble.studio;

import dibble.transport.PlaybackTimebase;
import java.util.Deque;
import java.util.Iterator;
import java.util.OptionalLong;
import java.util.concurrent.ConcurrentLinkedDeque;
import java.util.concurrent.TimeUnit;

/**
 * The position of the music at past times of the clock, as far back as unrecorded events are kept. One thread appends,
 * any thread reads.
 */
final class TransportHistory {
    private static final long KEPT_NANOS = TimeUnit.HOURS.toNanos(2);

    /** @param course null where the music stood still from then on */
    private record Entry(long since, PlaybackTimebase course) {}

    private final Deque<Entry> entries = new ConcurrentLinkedDeque<>();

    /** Notes that the music moves along a course from a time on. */
    void moves(long now, PlaybackTimebase course) {
        append(new Entry(now, course));
    }

    /** Notes that the music stopped. */
    void rests(long now) {
        append(new Entry(now, null));
    }

    private void append(Entry entry) {
        Entry last = entries.peekLast();
        if (last == null || last.course != entry.course) {
            entries.addLast(entry);
        }
        // The entry that was in force at the oldest time that is kept stays.
        while (entries.size() > 1 && second().since < entry.since - KEPT_NANOS) {
            entries.removeFirst();
        }
    }

    private Entry second() {
        Iterator<Entry> all = entries.iterator();
        all.next();
        return all.next();
    }

    /** Returns the tick at a time of the clock; empty where the music stood still. */
    OptionalLong tickAt(long stamp) {
        for (Iterator<Entry> latest = entries.descendingIterator(); latest.hasNext(); ) {
            Entry entry = latest.next();
            // An event in the nanosecond of a stop comes before the stop.
            if (entry.since < stamp || entry.since == stamp && entry.course != null) {
                return entry.course == null
                        ? OptionalLong.empty()
                        : OptionalLong.of(entry.course.tempo().ticks(entry.course.position(stamp)));
            }
        }
        return OptionalLong.empty();
    }
}
