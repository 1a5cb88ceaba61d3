package dibble.routing;

import java.util.Arrays;

/**
 * The state of the sends of control maps, by their stable number: last outputs, held notes, pending resets and moved
 * controllers. Confined to its router; arrays grow when a table is installed, never on the path of an event.
 */
final class SendStates {
    static final int NONE = -1;
    private static final byte OWED = 1;
    private static final byte MOVED = 2;

    private final PendingResets debts;
    private int[] last = {};
    private int[] held = {};
    private int[] driver = {};
    private byte[] debtKind = {};

    /** By send, then by destination. */
    private byte[][] flags = {};

    /** By send, then by destination: through which instrument it owes there. */
    private short[][] instruments = {};

    private int destinations;

    SendStates(PendingResets debts) {
        this.debts = debts;
    }

    void open(int sends, int ports) {
        int old = last.length;
        if (sends > old) {
            last = Arrays.copyOf(last, sends);
            held = Arrays.copyOf(held, sends);
            driver = Arrays.copyOf(driver, sends);
            debtKind = Arrays.copyOf(debtKind, sends);
            flags = Arrays.copyOf(flags, sends);
            instruments = Arrays.copyOf(instruments, sends);
            Arrays.fill(last, old, sends, NONE);
            Arrays.fill(held, old, sends, NONE);
            Arrays.fill(driver, old, sends, NONE);
        }
        destinations = Math.max(destinations, ports * 16);
        for (int slot = 0; slot < last.length; slot++) {
            if (flags[slot] == null) {
                flags[slot] = new byte[destinations];
                instruments[slot] = new short[destinations];
            } else if (flags[slot].length < destinations) {
                flags[slot] = Arrays.copyOf(flags[slot], destinations);
                instruments[slot] = Arrays.copyOf(instruments[slot], destinations);
            }
        }
    }

    int count() {
        return last.length;
    }

    /** The last output of a send, or {@link #NONE}. */
    int last(int slot) {
        return last[slot];
    }

    /** The source whose event a send's last output answered. */
    int driver(int slot) {
        return driver[slot];
    }

    void put(int slot, int output, int source) {
        last[slot] = output;
        driver[slot] = source;
    }

    void forgetLast(int slot) {
        last[slot] = NONE;
    }

    /** The place that a send of notes holds, or {@link #NONE}. */
    int held(int slot) {
        return held[slot];
    }

    void hold(int slot, int place) {
        held[slot] = place;
    }

    private boolean owes(int slot, int destination) {
        return (flags[slot][destination] & OWED) != 0;
    }

    boolean owes(int slot, int destination, int kind) {
        return owes(slot, destination) && debtKind[slot] == kind;
    }

    /** Returns true if a send has moved its controller there. */
    boolean moved(int slot, int destination) {
        return (flags[slot][destination] & MOVED) != 0;
    }

    int instrument(int slot, int destination) {
        return instruments[slot][destination];
    }

    void begin(int slot, int destination, int kind, int instrument) {
        instruments[slot][destination] = (short) instrument;
        debtKind[slot] = (byte) kind;
        if (!owes(slot, destination)) {
            flags[slot][destination] |= OWED;
            debts.count(destination, kind, 1);
        }
    }

    void end(int slot, int destination, int kind) {
        if (owes(slot, destination)) {
            flags[slot][destination] &= ~OWED;
            debts.count(destination, kind, -1);
        }
    }

    void move(int slot, int destination) {
        flags[slot][destination] |= MOVED;
    }

    void unmove(int slot, int destination) {
        flags[slot][destination] &= ~MOVED;
    }

    /** Clears held notes, pending resets and the related last outputs; moved controllers stay moved. */
    void forgetDebts() {
        for (int slot = 0; slot < last.length; slot++) {
            boolean any = held[slot] != NONE;
            held[slot] = NONE;
            for (int destination = 0; destination < destinations; destination++) {
                any |= owes(slot, destination);
                flags[slot][destination] &= ~OWED;
            }
            if (any) {
                last[slot] = NONE;
            }
        }
    }

    /** Forgets all that concerns a port. */
    void forgetPort(int port) {
        for (int slot = 0; slot < last.length; slot++) {
            boolean any = held[slot] != NONE && held[slot] >>> 11 == port;
            if (any) {
                held[slot] = NONE;
            }
            for (int destination = port * 16; destination < port * 16 + 16; destination++) {
                any |= flags[slot][destination] != 0;
                flags[slot][destination] = 0;
            }
            if (any) {
                last[slot] = NONE;
            }
        }
    }

    int debtCount() {
        int count = 0;
        for (byte[] of : flags) {
            for (byte flag : of) {
                count += flag & OWED;
            }
        }
        return count;
    }
}
