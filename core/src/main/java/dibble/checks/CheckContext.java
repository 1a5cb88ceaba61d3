package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.RoutingQueries;
import dibble.routing.Scene;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Performance;
import dibble.session.PortFormatter;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The input of checks: the session, and each of its scenes together with the zones and control maps that always hold.
 */
final class CheckContext {
    final Session session;
    final Performance performance;
    final Routing routing;
    final List<Scope> scopes = new ArrayList<>();

    final Live live;

    /** The zones and control maps that hold in one scene, or always in a session without scenes. */
    static final class Scope {
        final String scene;
        final Routing routing;
        final RoutingQueries reach;
        final List<Zone> zones;
        final List<ControlMap> controls;

        Scope(Routing routing) {
            this.scene = routing.activeScene();
            this.routing = routing;
            this.reach = new RoutingQueries(routing);
            this.zones = routing.zones();
            this.controls = routing.controlMaps();
        }

        /** The places of the zones that a source plays. */
        List<Integer> zonesOf(Source source) {
            List<Integer> own = new ArrayList<>();
            for (int z = 0; z < zones.size(); z++) {
                if (zones.get(z).enabled() && zones.get(z).isPlayedBy(source.id())) {
                    own.add(z);
                }
            }
            return own;
        }
    }

    CheckContext(Session session, Performance performance, Live live) {
        this.session = session;
        this.performance = performance;
        this.live = live;
        routing = session.routing(performance);
        for (Scene scene : session.scenes()) {
            scopes.add(new Scope(routing.withScene(scene.id())));
        }
        if (scopes.isEmpty()) {
            scopes.add(new Scope(routing));
        }
    }

    /** Returns true if a finding is marked as intended. */
    boolean isSettled(Finding finding) {
        return session.settled().stream().anyMatch(it -> it.isOf(finding.code(), finding.ids()));
    }

    /** The channels on which a source's events can reach a zone. */
    static ChannelSet channels(Source source, Zone zone) {
        return zone.channels().and(source.listen());
    }

    /** Returns true if a key of the source plays a note through a zone. */
    static boolean sounds(Scope scope, int zone, Source source, int key) {
        return source.keys().holds(key)
                && scope.zones.get(zone).keys().holds(key)
                && scope.reach.notes(zone, source, key).stream().anyMatch(note -> note != RoutingQueries.OUTSIDE);
    }

    /** Returns true if no part on a port has a channel 1-16. */
    boolean isFree(String port, int channel) {
        return session.instruments().stream()
                .filter(instrument -> instrument.port().equals(port))
                .flatMap(instrument -> instrument.parts().stream().map(instrument::ref))
                .noneMatch(ref -> routing.channels().channel(ref).orElse(0) == channel);
    }

    /** The part that a zone leads to, where it is there. */
    Optional<Part> part(Zone zone) {
        return session.partOf(zone);
    }

    String name(Zone zone) {
        return zone.name().isEmpty()
                ? say("subject.zone-to", name(zone.to()))
                : say("subject.zone", quoted(zone.name()));
    }

    String name(ControlMap map) {
        return say("subject.control-map", quoted(map.name().isEmpty() ? map.id() : map.name()));
    }

    String name(PartRef ref) {
        Optional<Instrument> instrument = session.instrument(ref.instrument());
        return instrument.map(Instrument::name).orElse(ref.instrument()) + " / "
                + session.part(ref).map(Part::name).orElse(ref.part());
    }

    String name(ZoneTarget to) {
        if (to instanceof ZoneTarget.ToPart part) {
            return name(part.part());
        }
        String instrument =
                session.instrument(to.instrument()).map(Instrument::name).orElse(to.instrument());
        return to instanceof ZoneTarget.ToChannel bare ? instrument + " / " + bare.channel() : instrument;
    }

    /** The name of a scene with a comma before it, where the session has more than one. */
    String inScene(Scope scope) {
        return session.scenes().size() < 2
                ? ""
                : say(
                        "subject.in-scene",
                        session.scene(scope.scene)
                                .map(Scene::name)
                                .map(CheckContext::quoted)
                                .orElse(""));
    }

    /** Returns the name of a port as users know it. */
    String port(String port) {
        return PortFormatter.of(port, session);
    }

    String key(int key) {
        return NoteNames.nameAndNumber(key, session.middleC());
    }

    String keys(Range range) {
        return range.low() == range.high() ? key(range.low()) : say("common.to", key(range.low()), key(range.high()));
    }

    static String quoted(String name) {
        return say("subject.text", name);
    }
}
