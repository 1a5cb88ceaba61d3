package dibble.session;

import static dibble.text.CoreText.say;

import dibble.gear.Ranges;
import dibble.gear.UnknownFields;
import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/**
 * Several sessions in the order of an evening.
 *
 * @param next the controller 0-127 of a pedal that goes on to the next session, of any source; or null
 * @param previous the same for the previous one
 */
@RecordBuilder
public record SessionSet(String name, List<Entry> entries, Integer next, Integer previous, UnknownFields extras)
        implements SessionSetBuilder.With {
    /** More sessions than an evening has. */
    public static final int MAX = 1000;

    /**
     * A session of the set.
     *
     * @param file its path, from the folder of the set's own file on
     * @param notes what to think of; may be empty
     * @param tempo at which it begins, in quarter notes a minute, or null for its own
     */
    public record Entry(String file, String notes, Double tempo, UnknownFields extras) {
        public Entry {
            if (!isFile(file)) {
                throw new UserException(say("session-set.file", file));
            }
            if (tempo != null && !(tempo >= 5 && tempo <= 999)) {
                throw new UserException(say("session-set.tempo", tempo));
            }
        }

        private static boolean isFile(String file) {
            try {
                return !file.isBlank() && Path.of(file).getFileName() != null;
            } catch (InvalidPathException e) {
                return false;
            }
        }

        public Entry(String file) {
            this(file, "", null, UnknownFields.NONE);
        }

        public Entry withNotes(String text) {
            return new Entry(file, text, tempo, extras);
        }

        public Entry withTempo(Double bpm) {
            return new Entry(file, notes, bpm, extras);
        }
    }

    public SessionSet {
        entries = List.copyOf(entries);
        Ranges.range("number.controller", next, 0, 127);
        Ranges.range("number.controller", previous, 0, 127);
    }

    /** A set without sessions. */
    public static SessionSet empty(String name) {
        return new SessionSet(name, List.of(), null, null, UnknownFields.NONE);
    }

    public SessionSet withPedals(Integer forNext, Integer forPrevious) {
        return new SessionSet(name, entries, forNext, forPrevious, extras);
    }

    /** With a session at the end. */
    public SessionSet with(Entry entry) {
        List<Entry> all = new ArrayList<>(entries);
        all.add(entry);
        return withEntries(all);
    }

    /** With another session at a place. */
    public SessionSet with(int place, Entry entry) {
        List<Entry> all = new ArrayList<>(entries);
        all.set(place, entry);
        return withEntries(all);
    }

    /** Without the session at a place. */
    public SessionSet without(int place) {
        List<Entry> all = new ArrayList<>(entries);
        all.remove(place);
        return withEntries(all);
    }

    /** With two sessions in each other's places. */
    public SessionSet swapped(int one, int other) {
        List<Entry> all = new ArrayList<>(entries);
        Collections.swap(all, one, other);
        return withEntries(all);
    }
}
