package dibble.demo;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.PortId;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.Region;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The first five minutes with Dibble: a small session on stand-ins, and six things to do in it by hand. Each is noticed when
 * it is done, however it was done.
 */
public final class FirstMinutes {
    private static final String BUILT_IN = "sorrel";
    private static final String FIRST = "larkspur";

    /** The steps, in their order. */
    public enum Step {
        PLAY,
        SPLIT,
        LAYER,
        SECOND_KEYBOARD,
        RECORD,
        ROUTE_AGAIN
    }

    private int place;
    private boolean played;

    /** The prints of the session when the present step began. */
    private Set<Print> before = Set.of();

    /** A print of a take, the same only as itself. */
    private record Print(String take, int identity) {}

    /** One keyboard that plays a celesta on all its keys, and three more sounds that nothing plays yet. */
    public static Session session(String name) {
        List<Part> parts = List.of(
                Part.of("celesta", "Celesta", 1, 8, new Range(28, 108), 1),
                Part.of("upright-bass", "Upright bass", 2, 32, new Range(24, 72), 2),
                Part.of("glass-bowls", "Glass bowls", 3, 92, new Range(48, 108), 6),
                Part.of("marimba", "Marimba", 4, 12, new Range(36, 100), 4));
        return Session.empty(name)
                .withSources(List.of(Source.keyboard(FIRST, "Larkspur 73", PortId.standIn(FIRST), new Range(28, 100))))
                .withInstruments(List.of(Instrument.of(BUILT_IN, "Sorrel", true, PortId.standIn(BUILT_IN), parts)))
                .withZones(
                        List.of(Zone.of("celesta", "", FIRST, new Range(28, 100), new PartRef(BUILT_IN, "celesta"))));
    }

    /** The step that is to be done now; null where all are done. */
    public Step now() {
        return place < Step.values().length ? Step.values()[place] : null;
    }

    /** Returns the index of the present step, from 0. */
    public int place() {
        return place;
    }

    /** A key was played by hand. */
    public void played() {
        played = true;
    }

    /**
     * Looks whether the present step is done, and goes on where it is.
     *
     * @return whether it was done
     */
    public boolean look(Session session) {
        if (now() == null || !isDone(session)) {
            return false;
        }
        place++;
        before = prints(session);
        return true;
    }

    private boolean isDone(Session session) {
        return switch (now()) {
            case PLAY -> played;
            case SPLIT -> anyPair(session, (one, other) -> !one.keys().overlaps(other.keys()));
            case LAYER -> anyPair(session, (one, other) -> one.keys().overlaps(other.keys()));
            case SECOND_KEYBOARD -> players(session).size() > 1;
            case RECORD ->
                session.takes().stream().anyMatch(take -> playersOf(take) > 1)
                        && session.tracks().stream()
                                        .filter(track -> track.noteCount() > 0)
                                        .count()
                                > 1;
            case ROUTE_AGAIN -> {
                Set<String> takes = before.stream().map(Print::take).collect(Collectors.toSet());
                yield prints(session).stream().anyMatch(it -> takes.contains(it.take) && !before.contains(it));
            }
        };
    }

    /** Two zones. */
    private interface Pair {
        boolean are(Zone one, Zone other);
    }

    private static boolean anyPair(Session session, Pair pair) {
        List<Zone> zones = session.zones().stream()
                .filter(zone -> zone.enabled() && zone.to() instanceof ZoneTarget.ToPart)
                .toList();
        for (Zone one : zones) {
            for (Zone other : zones) {
                if (one != other
                        && one.source().equals(other.source())
                        && !one.to().equals(other.to())
                        && pair.are(one, other)) {
                    return true;
                }
            }
        }
        return false;
    }

    private static Set<String> players(Session session) {
        Set<String> keyboards = session.sources().stream()
                .filter(source -> source.kind() == SourceKind.KEYBOARD)
                .map(Source::id)
                .collect(Collectors.toSet());
        return session.zones().stream()
                .filter(Zone::enabled)
                .map(Zone::source)
                .filter(keyboards::contains)
                .collect(Collectors.toSet());
    }

    private static int playersOf(Take take) {
        Set<Integer> sources = new HashSet<>();
        for (int i = 0; i < take.log().size(); i++) {
            if (ShortMessage.startsNote(take.log().message(i))) {
                sources.add(take.log().source(i));
            }
        }
        return sources.size();
    }

    private static Set<Print> prints(Session session) {
        Set<Print> prints = new HashSet<>();
        for (Track track : session.tracks()) {
            for (Region region : track.regions().all()) {
                if (region.take() != null) {
                    prints.add(new Print(region.take(), System.identityHashCode(region.print())));
                }
            }
        }
        return prints;
    }
}
