package dibble.routing;

import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import dibble.routing.RoutingTable.SoundColumns;
import java.util.Arrays;

/** The way out of a router: puts messages on their channel, and remembers what sound each channel was last given. */
final class OutputStage {
    private static final int UNKNOWN = -1;

    private final RouterOutput output;
    private final Parameters parameters;

    /** By destination, {@link SoundColumns#VALUES} each. */
    private byte[] sounds = {};

    /** By port: a bit for each channel that got anything. */
    private int[] usedChannels = {};

    /** @param parameters receives the parameter messages for destinations */
    OutputStage(RouterOutput output, Parameters parameters) {
        this.parameters = parameters;
        this.output = output;
    }

    void openPorts(int count) {
        parameters.openPorts(count);
        int old = usedChannels.length;
        if (count > old) {
            usedChannels = Arrays.copyOf(usedChannels, count);
            sounds = Arrays.copyOf(sounds, count * 16 * SoundColumns.VALUES);
            Arrays.fill(sounds, old * 16 * SoundColumns.VALUES, sounds.length, (byte) UNKNOWN);
        }
    }

    /** Sends a note-on or note-off to a destination, which concern no sound; false where it was not taken. */
    boolean sendNote(long stamp, int destination, int message, int instrument) {
        usedChannels[destination >>> 4] |= 1 << (destination & 0xF);
        return output.send(stamp, destination >>> 4, message | destination & 0xF, instrument);
    }

    /** Sends a message to a destination; false where it was not taken. */
    boolean send(long stamp, int destination, int message, int instrument) {
        boolean taken =
                output.send(stamp, destination >>> 4, ShortMessage.onChannel(message, destination & 0xF), instrument);
        if (taken) {
            parameters.told(destination, message);
            usedChannels[destination >>> 4] |= 1 << (destination & 0xF);
            int value = soundValue(message);
            if (value >= 0) {
                sounds[destination * SoundColumns.VALUES + value] = (byte)
                        (ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE
                                ? ShortMessage.data1(message)
                                : ShortMessage.data2(message));
            }
        }
        return taken;
    }

    /** Chooses a parameter of a destination, whose value can be sent then. */
    void choose(long stamp, int destination, int parameter, int instrument) {
        send(stamp, destination, Parameter.choosesCoarse(parameter), instrument);
        send(stamp, destination, Parameter.choosesFine(parameter), instrument);
    }

    /** Returns the index of the sound value that a message sets, in the order of {@link SoundColumns}, or -1. */
    private static int soundValue(int message) {
        int kind = ShortMessage.kind(message);
        if (kind == ShortMessage.PROGRAM_CHANGE) {
            return 2;
        }
        if (kind != ShortMessage.CONTROLLER) {
            return -1;
        }
        return switch (ShortMessage.data1(message)) {
            case 0 -> 0;
            case 32 -> 1;
            case 7 -> 3;
            case 10 -> 4;
            default -> -1;
        };
    }

    /**
     * Sends of some sounds what their channels do not have already. A bank that changes takes its program along, since
     * it does nothing before a program change.
     */
    void sendSounds(SoundColumns wanted, long stamp) {
        for (int i = 0; i < wanted.destination.length; i++) {
            int at = i * SoundColumns.VALUES;
            boolean bank = wanted.values[at] >= 0 && (lacks(wanted, i, 0) || lacks(wanted, i, 1));
            if (bank) {
                give(wanted, i, ShortMessage.controller(0, 0, wanted.values[at]), stamp);
                give(wanted, i, ShortMessage.controller(0, 32, wanted.values[at + 1]), stamp);
            }
            if (wanted.values[at + 2] >= 0 && (bank || lacks(wanted, i, 2))) {
                give(wanted, i, ShortMessage.programChange(0, wanted.values[at + 2]), stamp);
            }
            if (lacks(wanted, i, 3)) {
                give(wanted, i, ShortMessage.controller(0, 7, wanted.values[at + 3]), stamp);
            }
            if (lacks(wanted, i, 4)) {
                give(wanted, i, ShortMessage.controller(0, 10, wanted.values[at + 4]), stamp);
            }
        }
    }

    private boolean lacks(SoundColumns wanted, int i, int value) {
        int set = wanted.values[i * SoundColumns.VALUES + value];
        return set >= 0 && sounds[wanted.destination[i] * SoundColumns.VALUES + value] != set;
    }

    private void give(SoundColumns wanted, int i, int message, long stamp) {
        send(stamp, wanted.destination[i], message, wanted.instrument[i]);
    }

    /** The channels of a port that got anything since it was opened, a bit each. */
    int usedChannels(int port) {
        return usedChannels[port];
    }

    /** Clears the state of a port's channels. */
    void forgetPort(int port) {
        parameters.forgetPort(port);
        Arrays.fill(sounds, port * 16 * SoundColumns.VALUES, (port + 1) * 16 * SoundColumns.VALUES, (byte) UNKNOWN);
    }

    void sceneCalled(long stamp, int scene) {
        output.sceneCalled(stamp, scene);
    }
}
