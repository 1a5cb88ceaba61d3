package dibble.studio;

import dibble.midi.ShortMessage;
import dibble.routing.ControlKind;
import java.util.Optional;

/**
 * The one value that several controllers make together (MIDI 1.0): a registered or non-registered parameter, or a
 * controller with its fine half. Found by what the same player sent, or the same channel of a port got, before.
 *
 * @param kind {@link ControlKind#RPN}, {@link ControlKind#NRPN} or {@link ControlKind#CONTROLLER_14}
 * @param number of the parameter, 0-16383, or of the controller, 0-31
 * @param value 0-16383; of the coarse half alone, with a fine half of 0
 */
public record PassedValue(ControlKind kind, int number, int value) {
    /** How far it is looked back: the halves of a value are sent one after the other. */
    private static final int BACK = 512;

    private static final int DATA = 6;
    private static final int FINE = 32;
    private static final int UNKNOWN = -1;

    /** The number of no parameter: with it a player ends what they sent. */
    private static final int NONE = 16_383;

    /** The value that an entry says, or says the rest of; empty where it is a message by itself. */
    public static Optional<PassedValue> at(Passed passed, long entry) {
        int message = Packed.message(passed.entry(entry));
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
            return Optional.empty();
        }
        int controller = ShortMessage.data1(message);
        if (controller == DATA || controller == DATA + FINE) {
            return parameter(passed, entry, controller == DATA);
        }
        return controller > FINE && controller < 2 * FINE ? fine(passed, entry) : Optional.empty();
    }

    /** A fine half, where its coarse half was sent before. */
    private static Optional<PassedValue> fine(Passed passed, long entry) {
        int message = Packed.message(passed.entry(entry));
        int number = ShortMessage.data1(message) - FINE;
        int coarse = last(passed, entry, number);
        return coarse == UNKNOWN
                ? Optional.empty()
                : Optional.of(
                        new PassedValue(ControlKind.CONTROLLER_14, number, coarse << 7 | ShortMessage.data2(message)));
    }

    private static Optional<PassedValue> parameter(Passed passed, long entry, boolean isCoarse) {
        int said = ShortMessage.data2(Packed.message(passed.entry(entry)));
        int coarse = isCoarse ? said : Math.max(0, last(passed, entry, DATA));
        int value = coarse << 7 | (isCoarse ? 0 : said);
        long rpn = lastEntry(passed, entry, 100);
        long nrpn = lastEntry(passed, entry, 98);
        boolean isNrpn = nrpn > rpn;
        int high = last(passed, entry, isNrpn ? 99 : 101);
        int low = last(passed, entry, isNrpn ? 98 : 100);
        if (high == UNKNOWN || low == UNKNOWN || (high << 7 | low) == NONE) {
            return Optional.empty();
        }
        return Optional.of(new PassedValue(isNrpn ? ControlKind.NRPN : ControlKind.RPN, high << 7 | low, value));
    }

    private static int last(Passed passed, long before, int controller) {
        long entry = lastEntry(passed, before, controller);
        return entry == UNKNOWN ? UNKNOWN : ShortMessage.data2(Packed.message(passed.entry(entry)));
    }

    /** The last entry before another that is this controller on the same way. */
    private static long lastEntry(Passed passed, long before, int controller) {
        long of = passed.entry(before);
        long end = Math.max(passed.first(), before - BACK);
        for (long at = before - 1; at >= end; at--) {
            long entry = passed.entry(at);
            int message = Packed.message(entry);
            if (ShortMessage.kind(message) == ShortMessage.CONTROLLER
                    && ShortMessage.data1(message) == controller
                    && isSameWay(of, entry)) {
                return at;
            }
        }
        return UNKNOWN;
    }

    private static boolean isSameWay(long one, long other) {
        boolean played = Passed.isPlayed(one);
        return played == Passed.isPlayed(other)
                && ShortMessage.channel(Packed.message(one)) == ShortMessage.channel(Packed.message(other))
                && (played ? Packed.voice(one) == Packed.voice(other) : Packed.port(one) == Packed.port(other));
    }
}
