package dibble.studio;

import dibble.midi.CombinedControllers;
import dibble.midi.HeardMessage;
import dibble.midi.ShortMessage;

/**
 * The recent events for display: each played event with its output, and output with other causes (playback, an edit, a
 * reset). The oldest are dropped. Confined to the thread that reads the monitor; appends without allocation.
 */
public final class EventHistory {
    /** The number of entries to search for the halves of a value, which are sent consecutively. */
    private static final int BACK = 512;

    private final long[] stamps;
    private final long[] packed;
    private final int mask;
    private long count;
    private long groups;
    private long skipped;
    private boolean inGroup;
    private long groupStamp;

    /** @param capacity how many entries are kept, a power of two */
    public EventHistory(int capacity) {
        if (Integer.bitCount(capacity) != 1) {
            throw new IllegalArgumentException("capacity " + capacity + " (expected a power of two)");
        }
        stamps = new long[capacity];
        packed = new long[capacity];
        mask = capacity - 1;
    }

    /** As it is now, to be looked at while more passes. */
    public EventHistory copy() {
        EventHistory copy = new EventHistory(stamps.length);
        System.arraycopy(stamps, 0, copy.stamps, 0, stamps.length);
        System.arraycopy(packed, 0, copy.packed, 0, packed.length);
        copy.count = count;
        copy.groups = groups;
        copy.skipped = skipped;
        return copy;
    }

    /** Takes the next entry, in the order of the monitor. */
    public void take(long stamp, long entry) {
        boolean leads = isPlayed(entry) || !inGroup || stamp != groupStamp;
        if (leads) {
            groups++;
            inGroup = true;
            groupStamp = stamp;
        }
        stamps[(int) count & mask] = stamp;
        packed[(int) count & mask] = entry;
        count++;
    }

    /** Notes that entries were skipped, so that later ones are not grouped with earlier ones. */
    public void skip(long number) {
        skipped += number;
        inGroup = false;
    }

    /** Returns the number of all entries; the last has this number minus 1. */
    public long count() {
        return count;
    }

    /** The number of the first entry that is still kept. */
    public long first() {
        return Math.max(0, count - stamps.length);
    }

    /** Returns the number of events that were skipped because the monitor was not read in time. */
    public long skipped() {
        return skipped;
    }

    /** Returns the number of groups: played events, and output without one. */
    public long groups() {
        return groups;
    }

    /** The time stamp of an entry that is kept, on the system's clock, in nanoseconds. */
    public long stamp(long number) {
        return stamps[(int) number & mask];
    }

    /** An entry that is kept, as {@link Packed} says. */
    public long entry(long number) {
        return packed[(int) number & mask];
    }

    /** Returns true if an entry was played, rather than sent. */
    public static boolean isPlayed(long entry) {
        int what = Packed.what(entry);
        return what == Packed.PLAYED || what == Packed.ECHO;
    }

    /**
     * Returns true if an entry begins a group: it was played, or left because of nothing that was played just before.
     *
     * @param number of an entry that is kept
     */
    public boolean leads(long number) {
        return isPlayed(entry(number)) || number == first() || stamp(number) != stamp(number - 1);
    }

    /** The number of the entry that begins the group of another. */
    public long leader(long number) {
        long at = number;
        while (!leads(at)) {
            at--;
        }
        return at;
    }

    /** The number behind the last entry of the group that an entry begins. */
    public long end(long leader) {
        long at = leader + 1;
        while (at < count && !leads(at)) {
            at++;
        }
        return at;
    }

    /** Returns the message of an entry, with a value that combines earlier messages of the same source or channel. */
    public HeardMessage heard(long number) {
        long of = entry(number);
        CombinedControllers values = new CombinedControllers();
        values.open(1);
        for (long at = Math.max(first(), number - BACK); at <= number; at++) {
            if (isSameWay(of, entry(at))) {
                values.take(0, Packed.message(entry(at)));
            }
        }
        return values.heard(0, Packed.message(of));
    }

    private static boolean isSameWay(long one, long other) {
        boolean played = isPlayed(one);
        return played == isPlayed(other)
                && ShortMessage.channel(Packed.message(one)) == ShortMessage.channel(Packed.message(other))
                && (played ? Packed.voice(one) == Packed.voice(other) : Packed.port(one) == Packed.port(other));
    }

    /** Clears the history; skipped events stay counted. */
    public void clear() {
        count = 0;
        groups = 0;
        inGroup = false;
    }
}
