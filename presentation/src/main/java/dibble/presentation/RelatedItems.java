package dibble.presentation;

import dibble.gear.PartRef;
import dibble.presentation.Navigator.Kind;
import dibble.presentation.Navigator.Thing;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/** The objects related to an object: sources, zones, parts and tracks along a route. */
public final class RelatedItems {
    private RelatedItems() {}

    /**
     * Returns an object and its related objects.
     *
     * @param zones the zones that hold now
     */
    public static Set<Thing> to(Thing thing, Session session, List<Zone> zones) {
        Set<Thing> related = new HashSet<>(Set.of(thing));
        switch (thing.kind()) {
            case ZONE -> addZones(related, session, zones, zone -> zone.id().equals(thing.id()));
            case SOURCE -> addZones(related, session, zones, zone -> zone.isPlayedBy(thing.id()));
            case PART -> addPart(related, session, zones, PartRef.parse(thing.id()));
            case TRACK -> session.track(thing.id()).ifPresent(track -> addTrack(related, session, zones, track));
            default -> {
                // Scenes, controls and whole instruments have no related objects.
            }
        }
        return related;
    }

    private static void addPart(Set<Thing> related, Session session, List<Zone> zones, PartRef part) {
        related.add(new Thing(Kind.PART, part.toString()));
        addZones(related, session, zones, zone -> leadsTo(zone).equals(Optional.of(part)));
        addTracks(related, session, part);
    }

    private static void addTrack(Set<Thing> related, Session session, List<Zone> zones, Track track) {
        track.playsOn().ifPresent(part -> related.add(new Thing(Kind.PART, part.toString())));
        if (track.input() instanceof Track.OfZone of) {
            addZones(related, session, zones, zone -> zone.id().equals(of.zone()));
        } else if (track.input() instanceof Track.OfSource of) {
            addZones(related, session, zones, zone -> zone.isPlayedBy(of.source()));
        } else {
            track.part().ifPresent(part -> addPart(related, session, zones, part));
        }
    }

    private static void addZones(Set<Thing> related, Session session, List<Zone> zones, Predicate<Zone> which) {
        for (Zone zone : zones) {
            if (which.test(zone)) {
                related.add(new Thing(Kind.ZONE, zone.id()));
                related.add(new Thing(Kind.SOURCE, zone.source()));
                leadsTo(zone).ifPresent(part -> {
                    related.add(new Thing(Kind.PART, part.toString()));
                    addTracks(related, session, part);
                });
            }
        }
    }

    private static void addTracks(Set<Thing> related, Session session, PartRef part) {
        session.tracks().stream()
                .filter(track -> track.part().equals(Optional.of(part)))
                .forEach(track -> related.add(new Thing(Kind.TRACK, track.id())));
    }

    private static Optional<PartRef> leadsTo(Zone zone) {
        return zone.to() instanceof ZoneTarget.ToPart to ? Optional.of(to.part()) : Optional.empty();
    }
}
