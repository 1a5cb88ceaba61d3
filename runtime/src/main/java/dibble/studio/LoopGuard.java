package dibble.studio;

import dibble.routing.Router;
import java.util.concurrent.TimeUnit;

/**
 * Watches one output port whose device is a source too. What was sent there because of somebody else and comes back from
 * it, byte for byte, within 30 ms, four times in a row and each time after nearly the same delay, is a loop: nothing more
 * is sent there until the player says otherwise. What the device's own source caused does not count for that, so that a
 * keyboard that sounds through Dibble may repeat its values; only what it sends because of a message that came back is
 * somebody else's again.
 *
 * <p>One message that is late looks as if the device had been played, and all that goes round because of it looks the
 * same. So whoever caused it, what comes back 128 times in a row, faster than anybody repeats anything, is a loop too.
 * Belongs to whoever has the engine's turn.
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
