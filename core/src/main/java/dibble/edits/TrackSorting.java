package dibble.edits;

import static dibble.text.CoreText.say;

import dibble.gear.Ids;
import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.midi.MidiTrack;
import dibble.recording.Clips;
import dibble.recording.EventDestination;
import dibble.recording.Printer;
import dibble.recording.Regions;
import dibble.recording.Sorting;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** Sorting of the content of a track into new tracks, as functions from a session to the changed one. */
public final class TrackSorting {
    private TrackSorting() {}

    /** A track's notes sorted; where it is for several instruments, those of each by themselves. */
    public static Sorting by(Session session, Track track, Sorting.How how) {
        if (!track.takesSeveral()) {
            return Sorting.of(track.sounding(), how);
        }
        List<Sorting.Pile> piles = new ArrayList<>();
        String warning = "";
        Map<String, MidiTrack> clips = Clips.byDestination(track.sounding());
        for (Map.Entry<String, MidiTrack> clip : clips.entrySet()) {
            Sorting sorting = Sorting.of(clip.getValue(), how);
            String name = destinationName(session, clip.getKey());
            for (Sorting.Pile pile : sorting.piles()) {
                piles.add(new Sorting.Pile(
                        clips.size() == 1 ? pile.name() : name + ", " + pile.name(),
                        Clips.withDestination(pile.track(), clip.getKey())));
            }
            warning = warning.isEmpty() ? sorting.warning() : warning;
        }
        return new Sorting(piles, warning);
    }

    private static String destinationName(Session session, String text) {
        EventDestination destination = EventDestination.parse(text);
        String instrument = session.instrument(destination.instrument())
                .map(Instrument::name)
                .orElse(destination.instrument());
        return destination
                .asPart()
                .flatMap(session::part)
                .map(part -> instrument + " " + part.name())
                .orElse(instrument);
    }

    /**
     * Sorts the takes on a track by the present zones. On the track of a part, only zones of that part count. Content
     * without a take or with manual edits stays together.
     *
     * @param bySource whether the zones of one source count as one
     */
    public static Sorting byZone(Session session, Performance performance, Track track, boolean bySource) {
        List<Take> takes = session.takes().stream()
                .filter(take -> !track.regions().of(take.id()).isEmpty())
                .toList();
        if (takes.isEmpty()) {
            return new Sorting(List.of(), say("track-sorting.the-original-take-is-gone"));
        }
        List<Zone> zones = session.allZones().stream()
                .filter(zone -> track.playsOn().isEmpty()
                        || zone.to() instanceof ZoneTarget.ToPart to
                                && to.part().equals(track.playsOn().get()))
                .toList();
        Map<String, MidiTrack> piles = new LinkedHashMap<>();
        Map<String, String> names = new HashMap<>();
        for (Zone zone : zones) {
            String key = bySource ? zone.source() : zone.id();
            piles.put(key, Track.NOTHING);
            names.put(
                    key,
                    bySource
                            ? session.source(zone.source()).map(Source::name).orElse(say("track-sorting.all-sources"))
                            : zoneName(session, zone));
        }
        for (Take take : takes) {
            Regions regions = new Regions(track.regions().of(take.id()).stream()
                    .filter(region -> !track.regions().isEdited(region))
                    .toList());
            List<MidiTrack> printed = printed(zones, TakeEdits.routedAgain(session, performance, take));
            for (int i = 0; i < zones.size(); i++) {
                MidiTrack heard = regions.reprinted(take.id(), printed.get(i)).sounding();
                piles.merge(bySource ? zones.get(i).source() : zones.get(i).id(), heard, Clips::over);
            }
        }
        MidiTrack others =
                track.regions().clipOfOthersThan(takes.stream().map(Take::id).toList());
        List<Sorting.Pile> named = new ArrayList<>();
        piles.forEach((key, clip) -> addPile(names.get(key), track, clip, named));
        addPile(say("track-sorting.from-no-take"), track, others, named);
        int left = new Sorting.Pile("", others).notes();
        return new Sorting(named, left == 0 ? "" : say("track-sorting.notes-were-edited-by-hand", left));
    }

    private static List<MidiTrack> printed(List<Zone> zones, Take take) {
        List<Track> tracks = new ArrayList<>();
        zones.forEach(zone -> tracks.add(Track.of("zone-" + tracks.size(), "", new Track.OfZone(zone.id()))));
        Printer printer =
                Printer.print(take, tracks, tracks.stream().map(Track::id).collect(Collectors.toSet()));
        List<MidiTrack> clips = new ArrayList<>();
        for (int i = 0; i < zones.size(); i++) {
            clips.add(printer.clip(i, take));
        }
        return clips;
    }

    private static void addPile(String name, Track track, MidiTrack clip, List<Sorting.Pile> piles) {
        if (clip.size() > 0) {
            piles.add(new Sorting.Pile(
                    name, track.playsOn().isEmpty() ? clip : Clips.withDestination(clip, MidiTrack.NO_DESTINATION)));
        }
    }

    private static String zoneName(Session session, Zone zone) {
        String name = zone.name().isEmpty() ? zone.id() : zone.name();
        return session.sceneOf(zone.id())
                .map(scene -> name + ", " + scene.name())
                .orElse(name);
    }

    /** Adds the tracks that come of sorting another behind it. They take nothing, and are played where that one is. */
    public static Session sort(Session session, Track track, Sorting sorting) {
        List<Track> tracks = new ArrayList<>();
        for (Track other : session.tracks()) {
            tracks.add(other);
            if (other.id().equals(track.id())) {
                for (Sorting.Pile pile : sorting.piles()) {
                    String name = track.name() + ", " + pile.name();
                    String id = Ids.fresh(
                            name,
                            taken -> session.tracks().stream()
                                            .anyMatch(it -> it.id().equals(taken))
                                    || tracks.stream().anyMatch(it -> it.id().equals(taken)));
                    tracks.add(Track.of(id, name, new Track.Nothing())
                            .withTo(track.playsOn().orElse(null))
                            .withRegions(Regions.own(pile.track())));
                }
            }
        }
        return session.withTracks(tracks);
    }
}
