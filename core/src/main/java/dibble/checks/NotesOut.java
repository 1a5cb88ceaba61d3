package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Source;
import dibble.midi.Range;
import dibble.routing.Zone;
import java.util.function.IntPredicate;

/** A zone whose keys make notes that they should not, and the keys that do not. */
final class NotesOut {
    private NotesOut() {}

    /** From the first to the last key of the zone that makes such a note; null where none does. */
    static Range keysThatMake(CheckContext.Scope scope, int z, Source source, IntPredicate note) {
        Range wrong = null;
        Zone zone = scope.zones.get(z);
        for (int key = zone.keys().low(); key <= zone.keys().high(); key++) {
            if (makes(scope, z, source, key, note)) {
                wrong = wrong == null ? new Range(key, key) : new Range(wrong.low(), key);
            }
        }
        return wrong;
    }

    private static boolean makes(CheckContext.Scope scope, int z, Source source, int key, IntPredicate note) {
        return source.keys().holds(key)
                && scope.reach.notes(z, source, key).stream().anyMatch(note::test);
    }

    /** Removes the keys of such notes from the zone, if they are at one end of it. */
    static Fix trimmed(CheckContext subject, Zone zone, Range wrong) {
        Range keys = zone.keys();
        boolean below = wrong.low() <= keys.low() && wrong.high() < keys.high();
        boolean above = wrong.high() >= keys.high() && wrong.low() > keys.low();
        if (!below && !above) {
            return null;
        }
        Range rest = below ? new Range(wrong.high() + 1, keys.high()) : new Range(keys.low(), wrong.low() - 1);
        return Fix.keys(say("common.limit-to-the-keys", subject.name(zone), subject.keys(rest)), zone, rest);
    }
}
