package dibble.session;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.routing.Routing;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;

/**
 * The zones that hold now as connections from channels to channels: received on one side, played on the other.
 *
 * @param arrivals the channels of the sources, source by source
 * @param ports the parts with their channels, port by port
 * @param ways the zones between them, in the order of the zones
 */
public record ChannelChart(List<Arrival> arrivals, List<PortChart> ports, List<Way> ways) {
    /** Every channel of a source; at a port, the channel of the event. */
    public static final int EVERY = 0;

    /**
     * A channel of a source.
     *
     * @param source a source's id, or {@link Zone#ANY_SOURCE}
     * @param channel 1-16, or {@link #EVERY}
     * @param name the name of its lane, or empty
     * @param letIn whether the source lets the channel pass
     */
    public record Arrival(String source, int channel, String name, boolean letIn) {}

    /** A port with the parts on it. */
    public record PortChart(String port, List<String> instruments, List<Place> places) {}

    /**
     * One row of a port: a part, a channel without one, a stretch of free channels, or the event's own channel.
     *
     * @param instrument the id of the instrument that is led to
     * @param part null where it is no part
     * @param low its channel 1-16, or the first of a stretch; {@link #EVERY} for the event's own; -1 for a part without one
     * @param high the last of a stretch
     */
    public record Place(String instrument, PartRef part, int low, int high) {
        /** Returns the target of a zone that is connected here; empty for an unused range. */
        public Optional<ZoneTarget> target() {
            if (part != null) {
                return Optional.of(new ZoneTarget.ToPart(part));
            }
            if (low == EVERY) {
                return Optional.of(new ZoneTarget.ToSameChannel(instrument));
            }
            return low == high ? Optional.of(new ZoneTarget.ToChannel(instrument, low)) : Optional.empty();
        }
    }

    /**
     * A zone's way from one channel of a source.
     *
     * @param whole whether all keys of the source take it
     */
    public record Way(Zone zone, Arrival from, Place to, boolean whole) {}

    public ChannelChart {
        arrivals = List.copyOf(arrivals);
        ports = List.copyOf(ports);
        ways = List.copyOf(ways);
    }

    /**
     * @param heard the channels 1-16 on which a source was heard, by its id
     * @param unfolded the ports whose free channels have a row each
     */
    public static ChannelChart of(Routing routing, Function<String, ChannelSet> heard, Set<String> unfolded) {
        List<Zone> zones = routing.zones();
        List<Arrival> arrivals = new ArrayList<>();
        for (Source source : routing.sources()) {
            arrivals.addAll(arrivals(source, zones, heard.apply(source.id())));
        }
        if (zones.stream().anyMatch(zone -> zone.source().equals(Zone.ANY_SOURCE))) {
            arrivals.add(new Arrival(Zone.ANY_SOURCE, EVERY, "", true));
        }
        List<PortChart> ports = ports(routing, zones, unfolded);
        List<Way> ways = new ArrayList<>();
        for (Zone zone : zones) {
            place(routing, ports, zone.to()).ifPresent(place -> {
                boolean whole = routing.source(zone.source())
                        .map(source -> covers(zone.keys(), source.keys()))
                        .orElse(zone.keys().equals(Range.ALL));
                for (Arrival from : from(zone, arrivals)) {
                    ways.add(new Way(zone, from, place, whole));
                }
            });
        }
        return new ChannelChart(arrivals, ports, ways);
    }

    private static boolean covers(Range zone, Range source) {
        return zone.low() <= source.low() && zone.high() >= source.high();
    }

    /** The channels of a source that are worth a row. */
    private static List<Arrival> arrivals(Source source, List<Zone> zones, ChannelSet heard) {
        Map<Integer, String> names = new TreeMap<>();
        source.lanes().forEach(lane -> names.merge(lane.channel(), lane.name(), (one, more) -> one + ", " + more));
        Set<Integer> channels = new TreeSet<>(names.keySet());
        if (source.listen().isAll()) {
            source.sends().ifPresent(sends -> {
                if (!sends.isAll()) {
                    channels.addAll(sends.numbers());
                }
            });
        } else {
            channels.addAll(source.listen().numbers());
        }
        channels.addAll(heard.numbers());
        boolean every = false;
        for (Zone zone : zones) {
            if (zone.source().equals(source.id()) && !zone.channels().isAll()) {
                channels.addAll(zone.channels().numbers());
            }
        }
        if (channels.isEmpty()) {
            channels.add(source.playsOn() + 1);
        }
        for (Zone zone : zones) {
            every |= zone.source().equals(source.id()) && takesEvery(zone, channels);
        }
        List<Arrival> arrivals = new ArrayList<>();
        if (every && channels.size() > 1) {
            arrivals.add(new Arrival(source.id(), EVERY, "", true));
        }
        channels.forEach(channel -> arrivals.add(new Arrival(
                source.id(),
                channel,
                names.getOrDefault(channel, ""),
                source.listen().holds(channel - 1))));
        return arrivals;
    }

    private static boolean takesEvery(Zone zone, Set<Integer> channels) {
        return channels.stream().allMatch(channel -> zone.channels().holds(channel - 1));
    }

    private static List<Arrival> from(Zone zone, List<Arrival> arrivals) {
        List<Arrival> own = arrivals.stream()
                .filter(it -> it.source().equals(zone.source()))
                .toList();
        Set<Integer> channels = new TreeSet<>();
        own.stream().filter(it -> it.channel() != EVERY).forEach(it -> channels.add(it.channel()));
        boolean every = own.size() != 1 && takesEvery(zone, channels);
        return own.stream()
                .filter(it -> it.channel() == EVERY
                        ? every || channels.isEmpty()
                        : !every && zone.channels().holds(it.channel() - 1))
                .toList();
    }

    private static List<PortChart> ports(Routing routing, List<Zone> zones, Set<String> unfolded) {
        Map<String, List<Instrument>> byPort = new LinkedHashMap<>();
        routing.instruments()
                .forEach(it -> byPort.computeIfAbsent(it.port(), port -> new ArrayList<>())
                        .add(it));
        List<PortChart> ports = new ArrayList<>();
        byPort.forEach((port, instruments) -> ports.add(new PortChart(
                port,
                instruments.stream().map(Instrument::id).toList(),
                places(routing, instruments, zones, unfolded.contains(port)))));
        return ports;
    }

    private static List<Place> places(
            Routing routing, List<Instrument> instruments, List<Zone> zones, boolean unfolded) {
        Map<Integer, List<Place>> byChannel = new TreeMap<>();
        List<Place> places = new ArrayList<>();
        List<Place> without = new ArrayList<>();
        for (Instrument instrument : instruments) {
            for (Part part : instrument.parts()) {
                PartRef ref = instrument.ref(part);
                OptionalInt channel = routing.channels().channel(ref);
                if (channel.isEmpty()) {
                    without.add(new Place(instrument.id(), ref, -1, -1));
                } else {
                    int at = channel.getAsInt();
                    byChannel.computeIfAbsent(at, it -> new ArrayList<>()).add(new Place(instrument.id(), ref, at, at));
                }
            }
            for (Zone zone : zones) {
                if (zone.to() instanceof ZoneTarget.ToChannel to
                        && to.instrument().equals(instrument.id())) {
                    byChannel.computeIfAbsent(
                            to.channel(), at -> new ArrayList<>(List.of(new Place(instrument.id(), null, at, at))));
                } else if (zone.to() instanceof ZoneTarget.ToSameChannel to
                        && to.instrument().equals(instrument.id())) {
                    places.remove(new Place(instrument.id(), null, EVERY, EVERY));
                    places.add(new Place(instrument.id(), null, EVERY, EVERY));
                }
            }
        }
        String first = instruments.get(0).id();
        int free = 0;
        for (int channel = 1; channel <= 17; channel++) {
            boolean isFree = channel <= 16 && !byChannel.containsKey(channel);
            if (isFree && unfolded) {
                places.add(new Place(first, null, channel, channel));
            } else if (isFree && free == 0) {
                free = channel;
            } else if (!isFree) {
                if (free > 0) {
                    places.add(new Place(first, null, free, channel - 1));
                }
                free = 0;
                places.addAll(byChannel.getOrDefault(channel, List.of()));
            }
        }
        places.addAll(without);
        return places;
    }

    private static Optional<Place> place(Routing routing, List<PortChart> ports, ZoneTarget to) {
        String port = routing.instrument(to.instrument()).map(Instrument::port).orElse(null);
        List<Place> places = ports.stream()
                .filter(it -> it.port().equals(port))
                .findFirst()
                .map(PortChart::places)
                .orElse(List.of());
        return places.stream()
                .filter(place -> {
                    if (to instanceof ZoneTarget.ToPart part) {
                        return part.part().equals(place.part());
                    }
                    if (to instanceof ZoneTarget.ToChannel bare) {
                        return place.low() == bare.channel();
                    }
                    return place.low() == EVERY && place.instrument().equals(to.instrument());
                })
                .findFirst();
    }

    /** The ways of an arrival. */
    public List<Way> from(Arrival arrival) {
        return ways.stream().filter(way -> way.from().equals(arrival)).toList();
    }

    /** The ways to a place. */
    public List<Way> to(Place place) {
        return ways.stream().filter(way -> way.to().equals(place)).toList();
    }

    /** The lanes of a source as {@link SequencerLane}s have them count among its arrivals; all but {@link #EVERY}. */
    public List<Arrival> channelsOf(String source) {
        return arrivals.stream()
                .filter(it -> it.source().equals(source) && it.channel() != EVERY)
                .toList();
    }
}
