package dibble.routing;

import dibble.midi.EventKind;

/**
 * The zones of a compiled table: sixteen numbers a zone in one array, so that all data of a matching zone is in one
 * cache line. Written by the compiler, then only read.
 */
final class ZoneRecords {
    static final int DESTINATION = 0;
    static final int INSTRUMENT = 1;
    static final int TRANSPOSE = 2;
    static final int VELOCITY_LOW = 3;
    static final int VELOCITY_HIGH = 4;
    static final int VELOCITY_FIRST = 5;
    static final int VELOCITY_LAST = 6;
    static final int FLAGS = 7;
    static final int PASS = 8;

    /** The first of four numbers with a bit for each controller that is not passed. */
    static final int BLOCKED = 9;

    static final int DROP_UNMAPPED = 1;
    static final int FOLD = 2;
    static final int MAP_VELOCITY = 4;
    static final int HAS_NOTE_MAP = 8;

    private static final int STRIDE = 16;

    private final int[] numbers;

    /** For a zone with a note map: for each key null or its notes; null for a zone with none. */
    private final byte[][][] noteMaps;

    ZoneRecords(int count) {
        numbers = new int[count * STRIDE];
        noteMaps = new byte[count][][];
    }

    int get(int zone, int field) {
        return numbers[zone * STRIDE + field];
    }

    void set(int zone, int field, int value) {
        numbers[zone * STRIDE + field] = value;
    }

    void setNoteMap(int zone, byte[][] map) {
        noteMaps[zone] = map;
    }

    /** The notes that a zone's map has for a key, or null. */
    byte[] mapped(int zone, int key) {
        return has(zone, HAS_NOTE_MAP) ? noteMaps[zone][key] : null;
    }

    boolean has(int zone, int flag) {
        return (get(zone, FLAGS) & flag) != 0;
    }

    int destination(int zone) {
        return get(zone, DESTINATION);
    }

    int instrument(int zone) {
        return get(zone, INSTRUMENT);
    }

    boolean passes(int zone, EventKind kind) {
        return (get(zone, PASS) & kind.bit()) != 0;
    }

    void block(int zone, int controller) {
        numbers[zone * STRIDE + BLOCKED + (controller >>> 5)] |= 1 << controller;
    }

    boolean blocks(int zone, int controller) {
        return (get(zone, BLOCKED + (controller >>> 5)) >>> controller & 1) != 0;
    }

    /** Returns true if one zone blocks nothing that another does not block too. */
    boolean blocksNoMore(int zone, int other) {
        for (int i = BLOCKED; i < BLOCKED + 4; i++) {
            if ((get(zone, i) & ~get(other, i)) != 0) {
                return false;
            }
        }
        return true;
    }

    boolean takesVelocity(int zone, int velocity) {
        return velocity >= get(zone, VELOCITY_LOW) && velocity <= get(zone, VELOCITY_HIGH);
    }
}
