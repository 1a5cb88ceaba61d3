package dibble.studio;

import dibble.routing.Router;
import java.util.Arrays;
import java.util.concurrent.TimeUnit;

/**
 * Watches one output port whose device is a source too. What was sent there because of somebody else and comes back from
 * it, byte for byte, within 30 ms, four times in a row and each time after nearly the same delay, is a loop: nothing more
 * is sent there until the player says otherwise. What the device's own source caused is not remembered, so that a
 * keyboard that sounds through Dibble may repeat its values; only what it sends because of a message that came back is
 * somebody else's again. Belongs to whoever has the engine's turn.
 */
final class LoopGuard {
    /** What a message that is heard turns out to be. */
    enum Verdict {
        /** The device was played. */
        PLAYED,

        /** It was sent there a moment ago: perhaps by chance. */
        CAME_BACK,

        /** The device loops. */
        ECHO
    }

    private static final long WITHIN = TimeUnit.MILLISECONDS.toNanos(30);
    private static final long APART = TimeUnit.MICROSECONDS.toNanos(500);
    private static final int IN_A_ROW = 4;

    /** As many messages as are looked at for an echo; more than this in 30 ms is a flood of its own. */
    private static final int REMEMBERED = 256;

    private static final int ANSWERED = -1;
    private static final long NEVER = -1;

    final String input;
    final String output;
    private final int port;
    private final int[] messages = new int[REMEMBERED];
    private final long[] stamps = new long[REMEMBERED];
    private int next;
    private int inARow;

    /** The place of the message that a loop would send back next. */
    private int following;

    /** The delay of the first of those in a row. */
    private long delay;

    private volatile boolean cut;

    LoopGuard(String input, String output, int port) {
        this.input = input;
        this.output = output;
        this.port = port;
        Arrays.fill(messages, ANSWERED);
    }

    /** Remembers what was sent because of somebody else. */
    void sent(long stamp, int message) {
        messages[next] = message;
        stamps[next] = stamp;
        next = (next + 1) % REMEMBERED;
    }

    /** What was heard. The last of those in a row ends what sounds on the port, and cuts it off. */
    Verdict heard(long stamp, int message, Router router) {
        long after = delay(stamp, message);
        if (after == NEVER) {
            inARow = 0;
            return Verdict.PLAYED;
        }
        if (inARow == 0 || Math.abs(after - delay) > APART) {
            inARow = 0;
            delay = after;
        }
        inARow++;
        if (inARow < IN_A_ROW && !cut) {
            return Verdict.CAME_BACK;
        }
        if (!cut) {
            router.closePort(port, stamp);
            cut = true;
        }
        return Verdict.ECHO;
    }

    /**
     * How long ago the oldest of its like was sent that was not answered yet. What loops sends back one after the other:
     * where one was left out since the last, the row begins anew.
     */
    private long delay(long stamp, int message) {
        for (int i = 0; i < REMEMBERED; i++) {
            int at = (next + i) % REMEMBERED;
            if (messages[at] == message && stamp - stamps[at] <= WITHIN && stamp >= stamps[at]) {
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

    boolean isCut() {
        return cut;
    }

    void allow() {
        inARow = 0;
        cut = false;
        Arrays.fill(messages, ANSWERED);
    }
}
