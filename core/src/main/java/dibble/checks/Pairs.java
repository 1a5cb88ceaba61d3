package dibble.checks;

import dibble.gear.Source;
import dibble.midi.Range;
import dibble.routing.Destination;
import dibble.routing.Zone;
import java.util.List;
import java.util.Optional;

/** Two zones that one key of a source plays, on a channel and with a velocity in common. */
final class Pairs {
    private Pairs() {}

    /** Takes a pair: the places of two zones, a first key that plays both, and whether they share a destination. */
    interface Taker {
        void take(int first, int second, Range keys, boolean sameDestination);
    }

    static void each(Subject.Scope scope, Source source, Taker taker) {
        List<Integer> own = scope.zonesOf(source);
        for (int i = 0; i < own.size(); i++) {
            for (int j = i + 1; j < own.size(); j++) {
                look(scope, source, own.get(i), own.get(j), taker);
            }
        }
    }

    private static void look(Subject.Scope scope, Source source, int first, int second, Taker taker) {
        Zone one = scope.zones.get(first);
        Zone other = scope.zones.get(second);
        if (!one.keys().overlaps(other.keys()) || !one.velocity().overlaps(other.velocity())) {
            return;
        }
        var channels = Subject.channels(source, one).and(Subject.channels(source, other));
        boolean same = false;
        boolean different = false;
        for (int channel = 0; channel < 16; channel++) {
            if (channels.holds(channel)) {
                Optional<Destination> to = scope.reach.destination(first, channel);
                Optional<Destination> alsoTo = scope.reach.destination(second, channel);
                if (to.isPresent() && alsoTo.isPresent()) {
                    same |= to.equals(alsoTo);
                    different |= !to.equals(alsoTo);
                }
            }
        }
        if (same || different) {
            Range keys = common(scope, source, first, second);
            if (keys != null && same) {
                taker.take(first, second, keys, true);
            }
            if (keys != null && different) {
                taker.take(first, second, keys, false);
            }
        }
    }

    /** From the first to the last key that sounds through both; null where none does. */
    private static Range common(Subject.Scope scope, Source source, int first, int second) {
        int low = -1;
        int high = -1;
        for (int key = source.keys().low(); key <= source.keys().high(); key++) {
            if (Subject.sounds(scope, first, source, key) && Subject.sounds(scope, second, source, key)) {
                low = low < 0 ? key : low;
                high = key;
            }
        }
        return low < 0 ? null : new Range(low, high);
    }
}
