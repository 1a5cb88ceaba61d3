package dibble.studio;

import dibble.routing.Router;
import java.util.Arrays;
import java.util.concurrent.TimeUnit;

/**
 * Watches one output port whose device is a source too: what was sent there and comes back from it, byte for byte and
 * within 30 ms, twice in a row, is a loop, and nothing more is sent there until the player says otherwise. Belongs to
 * whoever has the engine's turn.
 */
final class LoopGuard {
    private static final long WITHIN = TimeUnit.MILLISECONDS.toNanos(30);
    private static final int IN_A_ROW = 2;

    /** As many messages as are looked at for an echo; more than this in 30 ms is a flood of its own. */
    private static final int REMEMBERED = 256;

    private static final int ANSWERED = -1;

    final String input;
    final String output;
    private final int port;
    private final int[] messages = new int[REMEMBERED];
    private final long[] stamps = new long[REMEMBERED];
    private int next;
    private int echoes;
    private volatile boolean cut;

    LoopGuard(String input, String output, int port) {
        this.input = input;
        this.output = output;
        this.port = port;
        Arrays.fill(messages, ANSWERED);
    }

    void sent(long stamp, int message) {
        messages[next] = message;
        stamps[next] = stamp;
        next = (next + 1) % REMEMBERED;
    }

    /** Whether what was heard is a loop's echo. The second in a row ends what sounds on the port, and cuts it off. */
    boolean isEcho(long stamp, int message, Router router) {
        echoes = cameBack(stamp, message) ? echoes + 1 : 0;
        if (echoes < IN_A_ROW) {
            return false;
        }
        if (!cut) {
            router.closePort(port, stamp);
            cut = true;
        }
        return true;
    }

    private boolean cameBack(long stamp, int message) {
        for (int i = 0; i < REMEMBERED; i++) {
            if (messages[i] == message && stamp - stamps[i] <= WITHIN && stamp >= stamps[i]) {
                messages[i] = ANSWERED;
                return true;
            }
        }
        return false;
    }

    boolean isCut() {
        return cut;
    }

    void allow() {
        echoes = 0;
        cut = false;
    }
}
