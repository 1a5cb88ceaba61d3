package dibble.studio;

import dibble.routing.Router;
import java.util.concurrent.TimeUnit;

/**
 * Detects loops at an output port whose device is also a source. Messages that other sources caused and that return
 * unchanged within 30 ms, four times in a row and each time after nearly the same delay, are a loop: the port is cut
 * off until the player allows it again. Messages that the device's own source caused do not count, so that a keyboard
 * that plays through Dibble may repeat its values; messages caused by an echo count again.
 *
 * <p>A single late echo looks like playing on the device, and so does everything that circulates because of it. So 128
 * returning messages in a row, faster than any player repeats, are a loop whatever caused them. Accessed in the
 * engine's turn.
 */
final class LoopGuard {
    /** The classification of a received message. */
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

    /** A roll of 125 strokes a second is a tone. */
    private static final long FASTER_THAN_PLAYED = TimeUnit.MILLISECONDS.toNanos(8);

    /** On a cable of 31,250 baud, messages that are sent at once come back a millisecond apart. */
    private static final long ANY_APART = TimeUnit.MILLISECONDS.toNanos(2);

    private static final int ANY_IN_A_ROW = 128;

    final String input;
    final String output;
    private final int port;
    private final EchoRow others = new EchoRow(WITHIN, APART);
    private final EchoRow all = new EchoRow(FASTER_THAN_PLAYED, ANY_APART);
    private volatile boolean cut;

    LoopGuard(String input, String output, int port) {
        this.input = input;
        this.output = output;
        this.port = port;
    }

    /**
     * Records a sent message.
     *
     * @param byItself whether the device's own event caused it
     */
    void sent(long stamp, int message, boolean byItself) {
        all.sent(stamp, message);
        if (!byItself) {
            others.sent(stamp, message);
        }
    }

    /** Classifies a received message. The last echo of a row ends the notes on the port and cuts it off. */
    Verdict heard(long stamp, int message, Router router) {
        int ofOthers = others.heard(stamp, message);
        int ofAll = all.heard(stamp, message);
        if (cut) {
            return ofOthers + ofAll > 0 ? Verdict.ECHO : Verdict.PLAYED;
        }
        if (ofOthers >= IN_A_ROW || ofAll >= ANY_IN_A_ROW) {
            router.closePort(port, stamp);
            cut = true;
            return Verdict.ECHO;
        }
        return ofOthers > 0 ? Verdict.CAME_BACK : Verdict.PLAYED;
    }

    boolean isCut() {
        return cut;
    }

    void allow() {
        others.forget();
        all.forget();
        cut = false;
    }
}
