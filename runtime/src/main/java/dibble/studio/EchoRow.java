package dibble.studio;

import java.util.Arrays;

/** Counts how many messages in a row come back as they were sent, each after nearly the same delay. */
final class EchoRow {
    /** The number of messages that are compared for an echo; more at once are a flood. */
    private static final int REMEMBERED = 256;

    private static final int ANSWERED = -1;
    private static final long NEVER = -1;

    private final long within;
    private final long apart;
    private final int[] messages = new int[REMEMBERED];
    private final long[] stamps = new long[REMEMBERED];
    private int next;
    private int inARow;

    /** The place of the message that a loop would send back next. */
    private int following;

    /** The delay of the first of those in a row. */
    private long delay;

    /**
     * @param within the longest delay
     * @param apart how much the delays may differ
     */
    EchoRow(long within, long apart) {
        this.within = within;
        this.apart = apart;
        Arrays.fill(messages, ANSWERED);
    }

    void sent(long stamp, int message) {
        messages[next] = message;
        stamps[next] = stamp;
        next = (next + 1) % REMEMBERED;
    }

    /** Returns how many have come back in a row with this one; 0 where it was not sent a moment ago. */
    int heard(long stamp, int message) {
        long after = delay(stamp, message);
        if (after == NEVER) {
            inARow = 0;
            return 0;
        }
        if (inARow == 0 || Math.abs(after - delay) > apart) {
            inARow = 0;
            delay = after;
        }
        inARow++;
        return inARow;
    }

    /**
     * Returns the age of the oldest equal message that was not answered yet. A loop returns messages in order: if one
     * was skipped since the last, the count restarts.
     */
    private long delay(long stamp, int message) {
        for (int i = 0; i < REMEMBERED; i++) {
            int at = (next + i) % REMEMBERED;
            if (messages[at] == message && stamp - stamps[at] <= within && stamp >= stamps[at]) {
                messages[at] = ANSWERED;
                if (at != following) {
                    inARow = 0;
                }
                following = (at + 1) % REMEMBERED;
                return stamp - stamps[at];
            }
        }
        return NEVER;
    }

    void forget() {
        inARow = 0;
        Arrays.fill(messages, ANSWERED);
    }
}
