package dibble.edits;

import static dibble.text.CoreText.say;

import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.routing.Routing;
import dibble.routing.Zone;
import dibble.routing.ZoneBuilder;
import dibble.routing.ZoneTarget;
import dibble.session.ChannelChart;
import dibble.session.ChannelChart.Arrival;
import dibble.session.ChannelChart.Place;
import dibble.session.ChannelChart.PortChart;
import dibble.session.ChannelChart.Way;
import dibble.session.Session;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** Joining channels of sources to parts: zones over all keys, made and taken away. Functions of a session. */
public final class Connections {
    private Connections() {}

    /**
     * Returns true if a channel of a source is connected to a target with all its keys.
     *
     * @param channel 1-16, or {@link ChannelChart#EVERY}
     */
    public static boolean isJoined(Session session, String source, int channel, ZoneTarget to, Collection<Zone> zones) {
        Range keys = session.source(source).map(Source::keys).orElse(Range.ALL);
        return zones.stream()
                .anyMatch(zone -> zone.enabled()
                        && zone.isPlayedBy(source)
                        && zone.to().equals(to)
                        && zone.keys().low() <= keys.low()
                        && zone.keys().high() >= keys.high()
                        && (channel == ChannelChart.EVERY
                                ? zone.channels().isAll()
                                : zone.channels().holds(channel - 1)));
    }

    /**
     * Connects a channel of a source to a target with all keys of the source, in addition to its present connections.
     *
     * @param channel 1-16, or {@link ChannelChart#EVERY}
     */
    public static Session join(Session session, String id, String source, int channel, ZoneTarget to) {
        Range keys = session.source(source).map(Source::keys).orElse(Range.ALL);
        Zone zone = Zone.of(id, "", source, keys, to)
                .with()
                .channels(channel == ChannelChart.EVERY ? ChannelSet.ALL : ChannelSet.of(channel))
                .build();
        return ZoneEdits.addZone(session, zone, null);
    }

    /** An id for a zone that leads to a target. */
    public static String freshId(Session session, ZoneTarget to) {
        String name = to instanceof ZoneTarget.ToPart part
                ? session.part(part.part()).map(it -> it.name()).orElse(say("joins.zone"))
                : session.instrument(to.instrument()).map(it -> it.name()).orElse(say("joins.zone"));
        return ZoneEdits.freshZoneId(session, name);
    }

    /** Moves the start of a zone to a key, and ends other zones of the source on a common channel below it. */
    public static Session beside(Session session, String id, int at) {
        Zone upper = session.zone(id).orElseThrow();
        Range keys = upper.keys();
        if (at <= keys.low() || at > keys.high()) {
            throw new UserException(say("common.split-at-key-expected-to", at, keys.low() + 1, keys.high()));
        }
        List<String> gone = new ArrayList<>();
        Session cut = session;
        for (Zone zone : session.allZones()) {
            boolean shares = !zone.id().equals(id)
                    && zone.source().equals(upper.source())
                    && !zone.channels().and(upper.channels()).isEmpty()
                    && zone.keys().high() >= at;
            if (shares && zone.keys().low() >= at) {
                gone.add(zone.id());
            } else if (shares) {
                cut = ZoneEdits.changeZone(
                        cut, zone.id(), it -> it.withKeys(new Range(it.keys().low(), at - 1)));
            }
        }
        for (String zone : gone) {
            cut = ZoneEdits.deleteZone(cut, zone);
        }
        return ZoneEdits.changeZone(cut, id, it -> it.withKeys(new Range(at, keys.high())));
    }

    /** Takes one way away: the zone, or its channel where other ways are left of it. */
    public static Session unplug(Session session, ChannelChart chart, Way way) {
        ChannelSet rest = rest(chart, way);
        return rest.isEmpty()
                ? ZoneEdits.deleteZone(session, way.zone().id())
                : ZoneEdits.changeZone(
                        session,
                        way.zone().id(),
                        zone -> zone.with().channels(rest).build());
    }

    /** The channels that a zone keeps when one of its ways goes; none where it has no other. */
    private static ChannelSet rest(ChannelChart chart, Way way) {
        boolean others = chart.ways().stream()
                .anyMatch(other -> other.zone().id().equals(way.zone().id())
                        && !other.from().equals(way.from()));
        return others && way.from().channel() != ChannelChart.EVERY
                ? new ChannelSet(
                        way.zone().channels().mask() & ~(1 << way.from().channel() - 1))
                : new ChannelSet(0);
    }

    /**
     * Changes one end of one way: of the zone, or of a copy for its channel where other ways are left of it.
     *
     * @param newId for the copy
     */
    private static Session change(
            Session session, ChannelChart chart, Way way, String newId, UnaryOperator<ZoneBuilder> change) {
        ChannelSet rest = rest(chart, way);
        String id = way.zone().id();
        if (rest.isEmpty()) {
            return ZoneEdits.changeZone(
                    session, id, zone -> change.apply(zone.with()).build());
        }
        String scene = session.sceneOf(id).map(it -> it.id()).orElse(null);
        ZoneBuilder copy =
                way.zone().with().id(newId).channels(ChannelSet.of(way.from().channel()));
        Session kept = ZoneEdits.changeZone(
                session, id, zone -> zone.with().channels(rest).build());
        return ZoneEdits.addZone(kept, change.apply(copy).build(), scene);
    }

    /** Leads one way to another target. */
    public static Session lead(Session session, ChannelChart chart, Way way, ZoneTarget to, String newId) {
        return change(session, chart, way, newId, zone -> zone.to(to));
    }

    /** Moves the start of one connection to another channel, of the same or another source. */
    public static Session beginAt(Session session, ChannelChart chart, Way way, Arrival from, String newId) {
        ChannelSet channels = from.channel() == ChannelChart.EVERY ? ChannelSet.ALL : ChannelSet.of(from.channel());
        return change(
                session, chart, way, newId, zone -> zone.source(from.source()).channels(channels));
    }

    /** Leads each of some channels to the part that has the same one on a port; channels without a part stay. */
    public static Session straightAcross(Session session, Routing routing, List<Arrival> arrivals, PortChart port) {
        Session joined = session;
        for (Arrival arrival : arrivals) {
            Optional<Place> place = port.places().stream()
                    .filter(it -> it.part() != null && it.low() == arrival.channel())
                    .findFirst();
            if (place.isPresent()) {
                joined = joinNew(joined, routing, arrival, place.get().target().orElseThrow());
            }
        }
        return joined;
    }

    /** Leads all that some sources play to one target. */
    public static Session allToOne(Session session, Routing routing, List<String> sources, ZoneTarget to) {
        Session joined = session;
        for (String source : sources) {
            joined = joinNew(joined, routing, new Arrival(source, ChannelChart.EVERY, "", true), to);
        }
        return joined;
    }

    private static Session joinNew(Session session, Routing routing, Arrival arrival, ZoneTarget to) {
        return isJoined(session, arrival.source(), arrival.channel(), to, routing.zones())
                ? session
                : join(session, freshId(session, to), arrival.source(), arrival.channel(), to);
    }

    /**
     * Plans connections of channels to parts, each to the next part.
     *
     * @param names the names of the channels, for the preview
     * @param parts the possible parts, in their order
     * @param first the index of the part for the first channel
     * @param step the distance between parts, 1 or more
     */
    public static NumberSeries plant(
            Session session,
            Routing routing,
            List<Arrival> arrivals,
            List<String> names,
            List<PartRef> parts,
            int first,
            int step) {
        List<NumberSeries.Row> rows = new ArrayList<>();
        List<Arrival> led = new ArrayList<>();
        List<ZoneTarget> targets = new ArrayList<>();
        for (int i = 0; i < arrivals.size() && first + i * step < parts.size(); i++) {
            PartRef ref = parts.get(first + i * step);
            String part = session.part(ref).map(it -> it.name()).orElse(ref.toString());
            rows.add(new NumberSeries.Row(
                    names.get(i) + " → " + part, routing.channels().channel(ref).orElse(0)));
            led.add(arrivals.get(i));
            targets.add(new ZoneTarget.ToPart(ref));
        }
        return new NumberSeries(rows, arrivals.size(), List.of(), before -> {
            Session planted = before;
            for (int i = 0; i < led.size(); i++) {
                planted = joinNew(planted, routing, led.get(i), targets.get(i));
            }
            return planted;
        });
    }

    /** Takes away all zones that some sources play now. */
    public static Session unplugAll(Session session, Routing routing, Collection<String> sources) {
        Session unplugged = session;
        for (Zone zone : routing.zones()) {
            if (sources.contains(zone.source())) {
                unplugged = ZoneEdits.deleteZone(unplugged, zone.id());
            }
        }
        return unplugged;
    }
}
