package dibble.checks;

import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.routing.Destination;
import dibble.routing.Zone;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Two zones that one key of a source plays, on a channel and with a velocity in common. */
final class Pairs {
    private static final int NOWHERE = -1;

    /** Takes a pair: the places of two zones, a first key that plays both, and whether they share a destination. */
    interface Taker {
        void take(int first, int second, Range keys, boolean sameDestination);
    }

    /** The effect of a zone on a source: the keys that sound, and the number of the destination for each channel. */
    private record Way(int place, Zone zone, BitSet keys, int[] to) {
        /** From the first to the last key that sounds through both; null where none does. */
        Range common(Way other) {
            if (!keys.intersects(other.keys)) {
                return null;
            }
            BitSet both = (BitSet) keys.clone();
            both.and(other.keys);
            return new Range(both.nextSetBit(0), both.length() - 1);
        }
    }

    private final CheckContext.Scope scope;
    private final Source source;
    private final Map<Destination, Integer> numbers = new HashMap<>();
    private final List<Integer> places;
    private final Way[] ways;

    private Pairs(CheckContext.Scope scope, Source source) {
        this.scope = scope;
        this.source = source;
        places = scope.zonesOf(source);
        ways = new Way[places.size()];
    }

    /** Tells all pairs, until a report is full. */
    static void each(CheckContext.Scope scope, Source source, Check.Report report, Taker taker) {
        new Pairs(scope, source).each(report, taker);
    }

    private void each(Check.Report report, Taker taker) {
        for (int i = 0; i < ways.length; i++) {
            for (int j = i + 1; j < ways.length && !report.isFull(); j++) {
                look(way(i), way(j), taker);
            }
        }
    }

    private Way way(int i) {
        if (ways[i] == null) {
            ways[i] = made(places.get(i));
        }
        return ways[i];
    }

    private Way made(int place) {
        BitSet keys = new BitSet();
        for (int key = source.keys().low(); key <= source.keys().high(); key++) {
            keys.set(key, CheckContext.sounds(scope, place, source, key));
        }
        Zone zone = scope.zones.get(place);
        ChannelSet channels = CheckContext.channels(source, zone);
        int[] to = new int[16];
        for (int channel = 0; channel < 16; channel++) {
            to[channel] = channels.holds(channel)
                    ? scope.reach.destination(place, channel).map(this::number).orElse(NOWHERE)
                    : NOWHERE;
        }
        return new Way(place, zone, keys, to);
    }

    private int number(Destination destination) {
        return numbers.computeIfAbsent(destination, key -> numbers.size());
    }

    private static void look(Way one, Way other, Taker taker) {
        boolean same = false;
        boolean different = false;
        for (int channel = 0; channel < 16; channel++) {
            int to = one.to[channel];
            int alsoTo = other.to[channel];
            if (to != NOWHERE && alsoTo != NOWHERE) {
                same |= to == alsoTo;
                different |= to != alsoTo;
            }
        }
        if (!same && !different || !one.zone.velocity().overlaps(other.zone.velocity())) {
            return;
        }
        Range keys = one.common(other);
        if (keys != null && same) {
            taker.take(one.place, other.place, keys, true);
        }
        if (keys != null && different) {
            taker.take(one.place, other.place, keys, false);
        }
    }
}
