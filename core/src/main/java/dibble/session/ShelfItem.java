package dibble.session;

import dibble.gear.Ids;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.PortId;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Stream;

/**
 * Gear that is kept for other sessions: sources and instruments, zones, or both.
 *
 * @param zones zones that held when it was kept; they may begin or end at gear that is not part of it
 * @param places the names of that other gear
 */
public record ShelfItem(
        String name, List<Source> sources, List<Instrument> instruments, List<Zone> zones, Places places) {

    /**
     * Gear by its ids: its names where it was kept, or the ids of what takes its place in a session.
     *
     * @param sources by the ids of sources
     * @param parts by {@code instrument/part}
     * @param instruments by the ids of instruments that zones reach by a bare channel
     */
    public record Places(Map<String, String> sources, Map<String, String> parts, Map<String, String> instruments) {
        public static final Places NONE = new Places(Map.of(), Map.of(), Map.of());

        public Places {
            sources = Map.copyOf(sources);
            parts = Map.copyOf(parts);
            instruments = Map.copyOf(instruments);
        }

        public boolean isEmpty() {
            return sources.isEmpty() && parts.isEmpty() && instruments.isEmpty();
        }

        /** The same with another source in the place of one; null for none. */
        public Places withSource(String id, String other) {
            return new Places(with(sources, id, other), parts, instruments);
        }

        /** The same with another part in the place of one; null for none. */
        public Places withPart(String ref, String other) {
            return new Places(sources, with(parts, ref, other), instruments);
        }

        /** The same with another instrument in the place of one; null for none. */
        public Places withInstrument(String id, String other) {
            return new Places(sources, parts, with(instruments, id, other));
        }

        private static Map<String, String> with(Map<String, String> map, String key, String value) {
            Map<String, String> changed = new HashMap<>(map);
            if (value == null) {
                changed.remove(key);
            } else {
                changed.put(key, value);
            }
            return changed;
        }
    }

    /**
     * A session with an item added.
     *
     * @param added the ids of the sources and instruments that came with it
     * @param left how many of its zones found no place
     */
    public record Added(Session session, List<String> added, int left) {}

    public ShelfItem {
        sources = List.copyOf(sources);
        instruments = List.copyOf(instruments);
        zones = List.copyOf(zones);
    }

    /** A source, with the zones that it plays now or without them. */
    public static ShelfItem ofSource(Session session, Performance performance, String id, boolean withZones) {
        Source source = session.source(id).orElseThrow();
        List<Zone> zones =
                withZones ? now(session, performance, zone -> zone.source().equals(id)) : List.of();
        return of(session, source.name(), List.of(source), List.of(), zones);
    }

    /** An instrument, with the zones that lead to it now or without them. */
    public static ShelfItem ofInstrument(Session session, Performance performance, String id, boolean withZones) {
        Instrument instrument = session.instrument(id).orElseThrow();
        List<Zone> zones = withZones
                ? now(session, performance, zone -> zone.to().instrument().equals(id))
                : List.of();
        return of(session, instrument.name(), List.of(), List.of(instrument), zones);
    }

    /** All zones that hold now, without the gear at their ends. */
    public static ShelfItem ofZones(Session session, Performance performance, String name) {
        return of(session, name, List.of(), List.of(), now(session, performance, zone -> true));
    }

    private static List<Zone> now(Session session, Performance performance, Predicate<Zone> wanted) {
        return session.routing(performance).zones().stream().filter(wanted).toList();
    }

    private static ShelfItem of(
            Session session, String name, List<Source> sources, List<Instrument> instruments, List<Zone> zones) {
        Map<String, String> others = new HashMap<>();
        Map<String, String> parts = new HashMap<>();
        Map<String, String> bare = new HashMap<>();
        for (Zone zone : zones) {
            boolean own = sources.stream().anyMatch(source -> source.id().equals(zone.source()));
            if (!own && !zone.source().equals(Zone.ANY_SOURCE)) {
                others.put(
                        zone.source(),
                        session.source(zone.source()).map(Source::name).orElse(zone.source()));
            }
            String instrument = zone.to().instrument();
            if (instruments.stream().noneMatch(it -> it.id().equals(instrument))) {
                if (zone.to() instanceof ZoneTarget.ToPart to) {
                    parts.put(
                            to.part().toString(),
                            session.part(to.part())
                                    .map(Part::name)
                                    .orElse(to.part().toString()));
                } else {
                    bare.put(
                            instrument,
                            session.instrument(instrument).map(Instrument::name).orElse(instrument));
                }
            }
        }
        return new ShelfItem(name, sources, instruments, zones, new Places(others, parts, bare));
    }

    /** The same under another name. */
    public ShelfItem named(String text) {
        return new ShelfItem(text, sources, instruments, zones, places);
    }

    /**
     * Finds the likely ends of the zones in a session: the object with the same name, else with the same id, else none.
     */
    public Places guess(Session session) {
        Map<String, String> others = new HashMap<>();
        places.sources()
                .forEach((id, name) -> guess(session.sources().stream(), Source::id, Source::name, id, name)
                        .ifPresent(found -> others.put(id, found)));
        Map<String, String> parts = new HashMap<>();
        places.parts()
                .forEach((id, name) -> guess(allParts(session), NamedPart::ref, NamedPart::name, id, name)
                        .ifPresent(found -> parts.put(id, found)));
        Map<String, String> bare = new HashMap<>();
        places.instruments()
                .forEach((id, name) -> guess(session.instruments().stream(), Instrument::id, Instrument::name, id, name)
                        .ifPresent(found -> bare.put(id, found)));
        return new Places(others, parts, bare);
    }

    private record NamedPart(String ref, String name) {}

    private static Stream<NamedPart> allParts(Session session) {
        return session.instruments().stream()
                .flatMap(instrument -> instrument.parts().stream()
                        .map(part -> new NamedPart(instrument.ref(part).toString(), part.name())));
    }

    private static <T> Optional<String> guess(
            Stream<T> all,
            java.util.function.Function<T, String> idOf,
            java.util.function.Function<T, String> nameOf,
            String id,
            String name) {
        List<T> list = all.toList();
        List<T> named = list.stream()
                .filter(it -> nameOf.apply(it).equalsIgnoreCase(name))
                .toList();
        // Of two objects with the name, the one with the id; otherwise there is no match.
        Stream<T> likely = named.isEmpty() ? list.stream() : named.stream();
        Optional<String> same = likely.map(idOf).filter(id::equals).findFirst();
        return same.isPresent() || named.size() != 1 ? same : Optional.of(idOf.apply(named.get(0)));
    }

    /**
     * Adds the item to a session, with new ids, colors and stand-in ports. Zones are added to those that always hold.
     *
     * @param found the ends of zones in the session; a zone without them is left out
     */
    public Added addTo(Session session, Places found) {
        Map<String, String> sourceIds = new LinkedHashMap<>(found.sources());
        Map<String, String> instrumentIds = new LinkedHashMap<>(found.instruments());
        Set<String> ports = new HashSet<>();
        session.sources().forEach(source -> ports.add(source.port()));
        session.instruments().forEach(instrument -> ports.add(instrument.port()));
        List<Source> allSources = new ArrayList<>(session.sources());
        List<Instrument> allInstruments = new ArrayList<>(session.instruments());
        List<String> added = new ArrayList<>();
        for (Instrument instrument : instruments) {
            String id = Ids.fresh(instrument.id(), taken -> isTaken(allInstruments, taken));
            instrumentIds.put(instrument.id(), id);
            allInstruments.add(instrument
                    .withId(id)
                    .withPort(port(instrument.port(), id, ports))
                    .withHearsDirectly(List.of())
                    .withParts(instrument.parts().stream()
                            .map(part -> part.withColour(0))
                            .toList()));
            added.add(id);
        }
        for (Source source : sources) {
            String id = Ids.fresh(
                    source.id(),
                    taken -> allSources.stream().anyMatch(other -> other.id().equals(taken)));
            sourceIds.put(source.id(), id);
            allSources.add(source.with()
                    .id(id)
                    .port(port(source.port(), id, ports))
                    .ownInstrument(instrumentIds.get(source.ownInstrument()))
                    .sysexTo(source.sysexTo().stream()
                            .map(instrumentIds::get)
                            .filter(java.util.Objects::nonNull)
                            .toList())
                    .build());
            added.add(id);
        }
        List<Zone> allZones = new ArrayList<>(session.zones());
        int left = 0;
        for (Zone zone : zones) {
            Optional<Zone> placed = placed(zone, sourceIds, instrumentIds, found.parts());
            placed.ifPresent(it -> allZones.add(it.withId(Ids.fresh(
                    it.id(),
                    taken -> session.zone(taken).isPresent()
                            || allZones.stream().anyMatch(other -> other.id().equals(taken))))));
            left += placed.isPresent() ? 0 : 1;
        }
        Session longer = session.withInstruments(Colours.give(allInstruments))
                .withSources(allSources)
                .withZones(allZones);
        return new Added(longer, added, left);
    }

    private static boolean isTaken(List<Instrument> instruments, String id) {
        return instruments.stream().anyMatch(other -> other.id().equals(id));
    }

    /** A port in use is replaced by a new one, except ports of the machine. */
    private static String port(String port, String id, Set<String> taken) {
        String own = port;
        if (taken.contains(port)) {
            PortId kind = PortId.parse(port);
            own = kind instanceof PortId.StandIn
                    ? PortId.standIn(id)
                    : kind instanceof PortId.Program ? new PortId.Program(id).text() : port;
        }
        taken.add(own);
        return own;
    }

    private static Optional<Zone> placed(
            Zone zone, Map<String, String> sourceIds, Map<String, String> instrumentIds, Map<String, String> parts) {
        String source = zone.source().equals(Zone.ANY_SOURCE) ? Zone.ANY_SOURCE : sourceIds.get(zone.source());
        ZoneTarget to = target(zone.to(), instrumentIds, parts);
        return source == null || to == null
                ? Optional.empty()
                : Optional.of(zone.with().source(source).to(to).build());
    }

    private static ZoneTarget target(ZoneTarget to, Map<String, String> instrumentIds, Map<String, String> parts) {
        String instrument = instrumentIds.get(to.instrument());
        if (to instanceof ZoneTarget.ToPart part) {
            String other = parts.get(part.part().toString());
            if (other != null) {
                return new ZoneTarget.ToPart(PartRef.parse(other));
            }
            return instrument == null
                    ? null
                    : new ZoneTarget.ToPart(new PartRef(instrument, part.part().part()));
        }
        if (instrument == null) {
            return null;
        }
        return to instanceof ZoneTarget.ToChannel bare
                ? new ZoneTarget.ToChannel(instrument, bare.channel())
                : new ZoneTarget.ToSameChannel(instrument);
    }
}
