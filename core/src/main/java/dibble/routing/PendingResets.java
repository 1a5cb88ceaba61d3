package dibble.routing;

import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import java.util.Arrays;

/**
 * The pedals and wheels that are away from neutral, by voice, channel and destination, and must be reset. A pedal is
 * counted for each destination, so that one player's pedal does not release the notes of another. Confined to its
 * router; arrays grow when voices or ports are opened, never on the path of an event.
 */
final class PendingResets {
    static final int NO_KIND = -1;
    static final int BEND = 0;
    static final int MODULATION = 1;
    static final int PRESSURE = 2;

    /** Kinds from here on are pedals; those before are wheels. */
    static final int FIRST_PEDAL = 3;

    /** Bend, modulation, pressure, and the pedals 64 to 69: in the order in which they are paid. */
    static final int KINDS = FIRST_PEDAL + NeutralValues.LAST_PEDAL - NeutralValues.FIRST_PEDAL + 1;

    /** By voice, then {@code channel * destinations + destination}: a bit for each kind. */
    private short[][] owed = {};

    /** By voice, then {@code (channel * destinations + destination) * KINDS + kind}: whose message it was. */
    private short[][] instruments = {};

    /** By voice and channel: how many debts there are. */
    private int[] countOf = {};

    private int[] pedalOwners = {};
    private int destinations;

    /** The kind of debt that a message begins or ends, or {@link #NO_KIND}. */
    static int kind(int message) {
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.PITCH_BEND -> BEND;
            case ShortMessage.CHANNEL_PRESSURE -> PRESSURE;
            case ShortMessage.CONTROLLER -> kindOfController(ShortMessage.data1(message));
            default -> NO_KIND;
        };
    }

    private static int kindOfController(int number) {
        return number == 1
                ? MODULATION
                : NeutralValues.isPedal(number) ? FIRST_PEDAL + number - NeutralValues.FIRST_PEDAL : NO_KIND;
    }

    static boolean isPedalUp(int message) {
        return kind(message) >= FIRST_PEDAL && NeutralValues.isAtRest(message);
    }

    /** The message that pays a debt, on channel 0. */
    static int payment(int kind) {
        return NeutralValues.of(
                switch (kind) {
                    case BEND -> ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 0);
                    case MODULATION -> ShortMessage.controller(0, 1, 0);
                    case PRESSURE -> ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, 0, 0, 0);
                    default -> ShortMessage.controller(0, NeutralValues.FIRST_PEDAL + kind - FIRST_PEDAL, 0);
                });
    }

    void openVoices(int count) {
        int old = owed.length;
        if (count > old) {
            owed = Arrays.copyOf(owed, count);
            instruments = Arrays.copyOf(instruments, count);
            countOf = Arrays.copyOf(countOf, count * 16);
            for (int voice = old; voice < count; voice++) {
                owed[voice] = new short[16 * destinations];
                instruments[voice] = new short[16 * destinations * KINDS];
            }
        }
    }

    void openPorts(int count) {
        int more = count * 16;
        if (more <= destinations) {
            return;
        }
        pedalOwners = Arrays.copyOf(pedalOwners, more * (KINDS - FIRST_PEDAL));
        for (int voice = 0; voice < owed.length; voice++) {
            short[] wider = new short[16 * more];
            short[] widerInstruments = new short[16 * more * KINDS];
            for (int channel = 0; channel < 16; channel++) {
                System.arraycopy(owed[voice], channel * destinations, wider, channel * more, destinations);
                System.arraycopy(
                        instruments[voice],
                        channel * destinations * KINDS,
                        widerInstruments,
                        channel * more * KINDS,
                        destinations * KINDS);
            }
            owed[voice] = wider;
            instruments[voice] = widerInstruments;
        }
        destinations = more;
    }

    boolean owesAnywhere(int voice, int channel) {
        return countOf[voice * 16 + channel] > 0;
    }

    boolean owes(int voice, int channel, int destination, int kind) {
        return (owed[voice][channel * destinations + destination] >>> kind & 1) != 0;
    }

    boolean owesPedal(int voice, int channel, int destination) {
        return owed[voice][channel * destinations + destination] >>> FIRST_PEDAL != 0;
    }

    /** The instrument through which the destination was reached when the debt was made. */
    int instrument(int voice, int channel, int destination, int kind) {
        return instruments[voice][(channel * destinations + destination) * KINDS + kind];
    }

    /** Returns the number of voices and channels that hold this pedal at a destination. */
    int pedalOwners(int destination, int pedal) {
        return pedalOwners[destination * (KINDS - FIRST_PEDAL) + pedal - FIRST_PEDAL];
    }

    /** Returns true if this is a pedal that is held down there. */
    boolean isHeldDown(int destination, int kind) {
        return kind >= FIRST_PEDAL && pedalOwners(destination, kind) > 0;
    }

    void begin(int voice, int channel, int destination, int kind, int instrument) {
        int at = channel * destinations + destination;
        instruments[voice][at * KINDS + kind] = (short) instrument;
        if (!owes(voice, channel, destination, kind)) {
            owed[voice][at] |= (short) (1 << kind);
            change(voice, channel, destination, kind, 1);
        }
    }

    void end(int voice, int channel, int destination, int kind) {
        if (owes(voice, channel, destination, kind)) {
            owed[voice][channel * destinations + destination] &= (short) ~(1 << kind);
            change(voice, channel, destination, kind, -1);
        }
    }

    private void change(int voice, int channel, int destination, int kind, int by) {
        countOf[voice * 16 + channel] += by;
        count(destination, kind, by);
    }

    /** Counts one owner of a pedal more or less: sends of control maps are counted with the voices. */
    void count(int destination, int kind, int by) {
        if (kind >= FIRST_PEDAL) {
            pedalOwners[destination * (KINDS - FIRST_PEDAL) + kind - FIRST_PEDAL] += by;
        }
    }

    /** Forgets all that is owed to a port. */
    void forgetPort(int port) {
        for (int voice = 0; voice < owed.length; voice++) {
            for (int channel = 0; channel < 16; channel++) {
                for (int destination = port * 16; destination < port * 16 + 16; destination++) {
                    int at = channel * destinations + destination;
                    countOf[voice * 16 + channel] -= Integer.bitCount(owed[voice][at]);
                    owed[voice][at] = 0;
                }
            }
        }
        int kinds = KINDS - FIRST_PEDAL;
        Arrays.fill(pedalOwners, port * 16 * kinds, (port + 1) * 16 * kinds, 0);
    }

    int count() {
        return Arrays.stream(countOf).sum();
    }

    void forgetAll() {
        for (short[] voice : owed) {
            Arrays.fill(voice, (short) 0);
        }
        Arrays.fill(countOf, 0);
        Arrays.fill(pedalOwners, 0);
    }
}
