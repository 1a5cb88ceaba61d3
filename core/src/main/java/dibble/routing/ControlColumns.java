package dibble.routing;

import dibble.midi.CombinedControllers;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import java.util.Arrays;

/** The properties of control maps and of their sends, a column each. Filled by the compiler, then only read. */
final class ControlColumns {
    /** The triggers of control maps on a channel: each controller, each key, each key's pressure, and three more. */
    static final int SIGNALS = 3 * 128 + 3;

    /** The value of a trigger for which a send has nothing to say. */
    static final int NOTHING = -1;

    /** A scene send without a scene. */
    static final int NO_SCENE = -1;

    static final int NEXT_SCENE = -2;
    static final int PREVIOUS_SCENE = -3;

    final int mapCount;

    /** The map without its name; an equal map is the same map. */
    final ControlMap[] map;

    /** By map: the parameter whose values it answers to, as {@link Parameter} has it, or {@link Parameter#NOTHING}. */
    final int[] parameter;

    /** By map, and one more: its first send. */
    final int[] firstSend;

    final int sendCount;
    final ControlMap.Send[] send;
    final int[] sendMap;

    /** By send: its stable number. */
    final int[] slot;

    final int[] scene;

    /** By send, and one more: its first destination. */
    final int[] firstAim;

    final int[] destination;
    final int[] instrument;

    /** The value of a controller after its map becomes inactive, or {@link #NOTHING}. */
    final int[] rest;

    /** By slot: the send, or -1. */
    final int[] sendOfSlot;

    ControlColumns(int maps, int sends, int aims, int slots) {
        mapCount = maps;
        map = new ControlMap[maps];
        parameter = new int[maps];
        firstSend = new int[maps + 1];
        sendCount = sends;
        send = new ControlMap.Send[sends];
        sendMap = new int[sends];
        slot = new int[sends];
        scene = new int[sends];
        firstAim = new int[sends + 1];
        destination = new int[aims];
        instrument = new int[aims];
        rest = new int[aims];
        sendOfSlot = new int[slots];
        Arrays.fill(sendOfSlot, RoutingTable.NONE);
    }

    /** The place of a message among {@link #SIGNALS}. */
    static int signal(int message) {
        if (ShortMessage.isNote(message)) {
            return 128 + ShortMessage.data1(message);
        }
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.CONTROLLER -> ShortMessage.data1(message);
            case ShortMessage.KEY_PRESSURE -> 256 + ShortMessage.data1(message);
            case ShortMessage.PITCH_BEND -> 384;
            case ShortMessage.CHANNEL_PRESSURE -> 385;
            default -> 386;
        };
    }

    /** The places of the messages by which a map gets the values that it answers to. */
    static int[] signals(ControlMap.Trigger when) {
        return switch (when.kind()) {
            case CONTROLLER -> new int[] {when.number()};
            case CONTROLLER_14 -> new int[] {when.number(), when.number() + CombinedControllers.FINE};
            case RPN, NRPN -> new int[] {Parameter.DATA, Parameter.DATA_FINE};
            case NOTE -> new int[] {128 + when.number()};
            case KEY_PRESSURE -> new int[] {256 + when.number()};
            case PITCH_BEND -> new int[] {384};
            case CHANNEL_PRESSURE -> new int[] {385};
            case PROGRAM_CHANGE -> new int[] {386};
            case SCENE -> throw new IllegalArgumentException(when.kind().word());
        };
    }

    /**
     * The value that a message has for a map that answers to it, or {@link #NOTHING} where it is for another parameter.
     *
     * @param choice the parameter that is chosen, as {@link Parameter} has it
     * @param parameter the value that the message gives that parameter, as {@link CombinedControllers} has it
     * @param pair the value that it gives a controller with its fine half, likewise
     */
    int value(int map, int message, int choice, int parameter, int pair) {
        if (this.parameter[map] != Parameter.NOTHING) {
            return this.parameter[map] == choice ? parameter : NOTHING;
        }
        return this.map[map].when().kind() == ControlKind.CONTROLLER_14 ? pair : value(message);
    }

    /** Returns the value of a message; 0 for a note-off. */
    private static int value(int message) {
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.PITCH_BEND -> ShortMessage.data1(message) | ShortMessage.data2(message) << 7;
            case ShortMessage.CHANNEL_PRESSURE, ShortMessage.PROGRAM_CHANGE -> ShortMessage.data1(message);
            case ShortMessage.NOTE_OFF -> 0;
            default -> ShortMessage.data2(message);
        };
    }

    /** Returns true if a value is in the window of a send's map. */
    boolean isInside(int s, int value) {
        ControlMap.Trigger when = map[sendMap[s]].when();
        return value >= when.low() && value <= when.high();
    }

    /**
     * Returns the output of a send for a value, or {@link #NOTHING}.
     *
     * @param ending whether the value is that of a note-off
     */
    int output(int s, int value, boolean ending) {
        ControlMap of = map[sendMap[s]];
        ControlMap.Trigger when = of.when();
        if (ending && send[s].kind() == ControlKind.NOTE) {
            return 0;
        }
        if (isInside(s, value)) {
            return send[s].output(when, value);
        }
        if (ending || of.ignoreOutside()) {
            return NOTHING;
        }
        return send[s].output(when, value < when.low() ? when.low() : when.high());
    }

    /** Returns true if zones do not receive the trigger of a map. */
    boolean takes(int m) {
        return !map[m].keep();
    }

    /** The parameter that a send is of, as {@link Parameter} has it, or {@link Parameter#NOTHING}. */
    int parameter(int s) {
        return parameter(send[s].kind(), send[s].number());
    }

    /** The parameter of a kind and number, or {@link Parameter#NOTHING} where the kind is none of a parameter. */
    static int parameter(ControlKind kind, int number) {
        return kind.isParameter() ? Parameter.choice(kind == ControlKind.NRPN, number) : Parameter.NOTHING;
    }

    /** The message of the fine half of a value, which follows that of {@link #message}; 0 where there is none. */
    int fine(int s, int value) {
        ControlMap.Send of = send[s];
        if (of.kind() == ControlKind.CONTROLLER_14) {
            return ShortMessage.controller(0, of.number() + CombinedControllers.FINE, value & 0x7F);
        }
        return of.kind().isParameter() ? ShortMessage.controller(0, Parameter.DATA_FINE, value & 0x7F) : 0;
    }

    /** The message of a send that is no note and no scene, on channel 0; of a value of two halves, the coarse one. */
    int message(int s, int value) {
        ControlMap.Send of = send[s];
        return switch (of.kind()) {
            case PITCH_BEND -> ShortMessage.of(ShortMessage.PITCH_BEND, 0, value & 0x7F, value >>> 7);
            case CHANNEL_PRESSURE, PROGRAM_CHANGE -> ShortMessage.of(of.kind().status(), 0, value, 0);
            case RPN, NRPN -> ShortMessage.controller(0, Parameter.DATA, value >>> 7);
            case CONTROLLER_14 -> ShortMessage.controller(0, of.number(), value >>> 7);
            case CONTROLLER, KEY_PRESSURE, NOTE, SCENE ->
                ShortMessage.of(of.kind().status(), 0, of.number(), value);
        };
    }

    /** The aim of a send that is this destination, or -1. */
    int aim(int s, int wanted) {
        for (int aim = firstAim[s]; aim < firstAim[s + 1]; aim++) {
            if (destination[aim] == wanted
                    || (destination[aim] & RoutingTable.SAME_CHANNEL) != 0
                            && (destination[aim] & ~RoutingTable.SAME_CHANNEL) >>> 4 == wanted >>> 4) {
                return aim;
            }
        }
        return RoutingTable.NONE;
    }

    /** The send of another table that is the same as this one, or -1 where its map was edited or does not hold. */
    int sameIn(ControlColumns other, int s) {
        int there = slot[s] < other.sendOfSlot.length ? other.sendOfSlot[slot[s]] : RoutingTable.NONE;
        if (there == RoutingTable.NONE) {
            return RoutingTable.NONE;
        }
        ControlMap mine = map[sendMap[s]];
        ControlMap theirs = other.map[other.sendMap[there]];
        return mine == theirs || mine.equals(theirs) ? there : RoutingTable.NONE;
    }

    /** Returns true if a send leads where one of another table does. */
    boolean hasSameAims(int s, ControlColumns other, int there) {
        return Arrays.equals(
                destination,
                firstAim[s],
                firstAim[s + 1],
                other.destination,
                other.firstAim[there],
                other.firstAim[there + 1]);
    }
}
