package dibble.routing;

import dibble.midi.ShortMessage;
import java.util.Arrays;

/** The notes that one event starts, each place once. Belongs to its router's thread. */
final class NoteBatch {
    private static final int NONE = -1;

    private final HeldNotes notes;

    /** One entry for each place; {@code seenIn} and {@code seenAt} find it. */
    private int[] outPlace = new int[16];

    private int[] outVelocity = new int[16];
    private int[] outInstrument = new int[16];
    private boolean[] outPressure = new boolean[16];
    private int outCount;
    private int[] seenIn = {};
    private int[] seenAt = {};
    private int number;

    NoteBatch(HeldNotes notes) {
        this.notes = notes;
    }

    /** Makes room for the notes of one event, and for all places. */
    void open(int mostNotes, int places) {
        if (places > seenIn.length) {
            seenIn = Arrays.copyOf(seenIn, places);
            seenAt = Arrays.copyOf(seenAt, places);
        }
        if (mostNotes > outPlace.length) {
            outPlace = new int[mostNotes];
            outVelocity = new int[mostNotes];
            outInstrument = new int[mostNotes];
            outPressure = new boolean[mostNotes];
        }
    }

    /** Begins with no note. */
    void begin() {
        number++;
        outCount = 0;
    }

    /** Adds the notes that the zones of a table give a key. */
    void gather(RoutingTable table, int source, int channel, int key, int velocity) {
        int list = table.noteList(source, channel, key, velocity);
        if (list == 0) {
            return;
        }
        int[] cells = table.cells;
        for (int i = list + 1; i <= list + cells[list]; i++) {
            int zone = cells[i];
            if (table.zones.takesVelocity(zone, velocity)) {
                int count = table.noteCount(zone, key);
                for (int n = 0; n < count; n++) {
                    int note = table.note(zone, source, key, n);
                    if (note != NONE) {
                        add(
                                HeldNotes.place(table.destination(zone, channel), note),
                                table.velocity(zone, velocity),
                                table.zones.instrument(zone),
                                table.passesKeyPressure(zone));
                    }
                }
            }
        }
    }

    /** Adds a note; the same note at the same place is one, with the highest velocity. */
    void add(int place, int velocity, int instrument, boolean pressure) {
        if (seenIn[place] == number) {
            int at = seenAt[place];
            outVelocity[at] = Math.max(outVelocity[at], velocity);
            outPressure[at] |= pressure;
            return;
        }
        seenIn[place] = number;
        seenAt[place] = outCount;
        outPlace[outCount] = place;
        outVelocity[outCount] = velocity;
        outInstrument[outCount] = instrument;
        outPressure[outCount] = pressure;
        outCount++;
    }

    /** Ends the sounding notes at the places of these notes. */
    void stopSounding(long stamp) {
        for (int i = 0; i < outCount; i++) {
            notes.stop(outPlace[i], ShortMessage.DEFAULT_RELEASE, stamp);
        }
    }

    /** Sends the notes; the key holds them. */
    void sound(int voice, int channel, int key, long stamp) {
        notes.begin();
        for (int i = 0; i < outCount; i++) {
            notes.sound(outPlace[i], outVelocity[i], outInstrument[i], stamp);
            notes.hold(voice, channel, key, outPlace[i], outPressure[i]);
        }
    }
}
