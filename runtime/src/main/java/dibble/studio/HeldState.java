package dibble.studio;

import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import dibble.recording.Chase;
import dibble.recording.OpenNotes;
import java.util.Map;
import java.util.TreeMap;

/**
 * The present state of played events by source: held keys, pedals, wheels and controllers. Confined to the recorder's
 * thread.
 */
final class HeldState {
    private static final int KEYS = 16 * 128;

    private final OpenNotes notes = new OpenNotes();

    /** By source, channel and key: when a key that is down was pressed. */
    private final Map<Integer, Long> pressed = new TreeMap<>();

    private final Map<Integer, Chase> controllers = new TreeMap<>();

    /** Takes an event; the number of an open note is its on. */
    void add(long stamp, int source, int message) {
        if (ShortMessage.startsNote(message)) {
            notes.begin(source, message, message);
            pressed.put(key(source, message), stamp);
        } else if (ShortMessage.endsNote(message)) {
            notes.end(source, message);
            pressed.remove(key(source, message));
        } else {
            controllers.computeIfAbsent(source, id -> new Chase()).add(message);
        }
    }

    static int key(int source, int message) {
        return source * KEYS + (ShortMessage.channel(message) << 7 | ShortMessage.data1(message));
    }

    /** Returns the state for a recording that begins at a time: keys pressed before it, pedals and wheels. */
    HeldState before(long time) {
        HeldState before = withoutKeys();
        pressed.forEach((key, stamp) -> {
            int source = key / KEYS;
            int place = key % KEYS;
            if (stamp < time) {
                int on = notes.at(source, ShortMessage.noteOn(place >>> 7, place & 0x7F, 1));
                before.add(stamp, source, on);
            }
        });
        return before;
    }

    /**
     * Returns the pedals and wheels only: keys that are held across the start of a loop belong to the previous pass.
     */
    HeldState withoutKeys() {
        HeldState standing = new HeldState();
        controllers.forEach((source, chase) -> chase.messages().stream()
                .filter(NeutralValues::moves)
                .forEach(message -> standing.add(0, source, message)));
        return standing;
    }

    /** Receives the state. */
    interface Taking {
        void take(long stamp, int source, int message);
    }

    /** Reports values that are not neutral, then the held keys with the times at which they were pressed. */
    void tell(Taking taking) {
        controllers.forEach((source, chase) -> chase.messages().stream()
                .filter(message -> !NeutralValues.isAtRest(message))
                .forEach(message -> taking.take(0, source, message)));
        pressed.forEach((key, stamp) -> {
            int place = key % KEYS;
            taking.take(stamp, key / KEYS, notes.at(key / KEYS, ShortMessage.noteOn(place >>> 7, place & 0x7F, 1)));
        });
    }
}
