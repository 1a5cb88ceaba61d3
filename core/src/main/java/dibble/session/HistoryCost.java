package dibble.session;

import dibble.gear.Instrument;
import dibble.midi.MidiTrack;
import dibble.recording.ManualEdits;
import dibble.recording.Region;
import dibble.recording.Take;
import dibble.recording.Track;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.function.ToLongFunction;
import java.util.stream.Stream;

/** About how much memory a session has that another does not share: what keeping it costs. */
final class HistoryCost {
    /** An event of a log or of a clip. */
    private static final long EVENT = 20;

    /** Any other value: a source, a zone, a part, a routing. */
    private static final long VALUE = 300;

    private static final long SESSION = 300;
    private static final long REFERENCE = 4;

    private HistoryCost() {}

    /** Returns the bytes of one session that another does not share. */
    static long bytes(Session kept, Session other) {
        return SESSION
                + of(kept, other, Session::sources, source -> VALUE)
                + of(kept, other, Session::instruments, HistoryCost::instrument)
                + of(kept, other, Session::zones, zone -> VALUE)
                + of(kept, other, Session::controls, map -> VALUE)
                + of(
                        kept,
                        other,
                        Session::scenes,
                        scene -> VALUE * (1 + scene.zones().size()))
                + of(kept, other, Session::tracks, track -> VALUE)
                + of(kept, other, Session::takes, HistoryCost::take)
                + prints(kept, other);
    }

    private static long instrument(Instrument instrument) {
        return VALUE * (1 + instrument.parts().size());
    }

    private static long take(Take take) {
        return VALUE * (1 + take.marks().size()) + EVENT * take.log().size();
    }

    private static <T> long of(Session kept, Session other, Function<Session, List<T>> list, ToLongFunction<T> size) {
        List<T> all = list.apply(kept);
        if (all == list.apply(other)) {
            return 0;
        }
        Set<T> shared = identities(list.apply(other).stream());
        return REFERENCE * all.size()
                + all.stream()
                        .filter(item -> !shared.contains(item))
                        .mapToLong(size)
                        .sum();
    }

    private static <T> Set<T> identities(Stream<T> items) {
        Set<T> set = Collections.newSetFromMap(new IdentityHashMap<>());
        items.forEach(set::add);
        return set;
    }

    private static long prints(Session kept, Session other) {
        if (kept.tracks() == other.tracks()) {
            return 0;
        }
        Set<Object> known = Collections.newSetFromMap(new IdentityHashMap<>());
        Set<MidiTrack> shared = prints(other);
        shared.forEach(print -> print.addTo(known));
        long bytes = 0;
        for (MidiTrack print : prints(kept)) {
            if (!shared.contains(print)) {
                bytes += VALUE + EVENT * print.apartFrom(known);
                print.addTo(known);
            }
        }
        return bytes + origins(kept, shared);
    }

    /** Returns the bytes of the origins of manual edits. */
    private static long origins(Session kept, Set<MidiTrack> shared) {
        return kept.tracks().stream()
                .flatMap(track -> track.regions().byHand().stream())
                .filter(hand -> !shared.contains(hand.whole()))
                .mapToLong(hand -> REFERENCE * hand.origins().size())
                .sum();
    }

    private static Set<MidiTrack> prints(Session session) {
        Stream<Track> tracks = session.tracks().stream();
        return identities(tracks.map(Track::regions)
                .flatMap(regions -> Stream.concat(
                        regions.all().stream().map(Region::print), regions.byHand().map(ManualEdits::whole).stream())));
    }
}
