package dibble.edits;

import static dibble.text.CoreText.say;

import dibble.gear.Ids;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Strip;
import dibble.recording.Track;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Edits of tracks, as functions from a session to the changed one. */
public final class TrackEdits {
    private TrackEdits() {}

    /**
     * Adds a track for each of some notes of a part that have none, before the track of the part. Each gets a strip
     * with the settings of the part.
     */
    public static Session addKeyTracks(Session session, PartRef ref, Collection<Integer> notes) {
        Part part = session.part(ref).orElseThrow();
        Map<Integer, Strip> strips = new LinkedHashMap<>(part.keyStrips());
        List<Track> tracks = new ArrayList<>(session.tracks());
        for (int note : notes) {
            Track.Input input = new Track.OfKey(ref, note);
            if (tracks.stream().noneMatch(track -> track.input().equals(input))) {
                String name = part.stripName(note);
                strips.putIfAbsent(note, part.strip());
                String id = Ids.fresh(
                        name,
                        taken -> tracks.stream().anyMatch(track -> track.id().equals(taken)));
                int place = 0;
                while (place < tracks.size() && !tracks.get(place).takesAllOf(ref)) {
                    place++;
                }
                tracks.add(place < tracks.size() ? place : rest(tracks), Track.of(id, name, input));
            }
        }
        return GearEdits.changePart(
                session.withTracks(tracks),
                ref,
                it -> it.with().keyStrips(strips).build());
    }

    /** Adds a track for each part that a zone leads to and no track takes, in the order of the instruments. */
    public static Session addMissingTracks(Session session) {
        List<Track> tracks = new ArrayList<>(session.tracks());
        session.instruments()
                .forEach(instrument -> instrument.parts().forEach(part -> {
                    PartRef ref = instrument.ref(part);
                    boolean fed = session.allZones().stream().anyMatch(zone -> ZoneEdits.leadsTo(zone, ref));
                    if (fed && session.trackOf(ref).isEmpty()) {
                        String id = Ids.fresh(
                                part.name(),
                                taken -> tracks.stream()
                                        .anyMatch(track -> track.id().equals(taken)));
                        tracks.add(rest(tracks), Track.of(id, part.name(), ref));
                    }
                }));
        return session.withTracks(tracks);
    }

    /** A track for what no other track takes. */
    public static Track restTrack(Session session) {
        String id = freshId(session, "everything-else");
        return Track.of(id, say("track-edits.everything-else"), new Track.Rest());
    }

    /** An id for a new track that is called so. */
    public static String freshId(Session session, String name) {
        return Ids.fresh(name, taken -> session.track(taken).isPresent());
    }

    /** Returns the index for a new track: before the one that takes everything else. */
    static int rest(List<Track> tracks) {
        int last = tracks.size() - 1;
        return last >= 0 && tracks.get(last).takesRest() ? last : tracks.size();
    }

    /** Puts tracks in the place of those of the same ids; new ones come behind the others. */
    public static Session replaceTracks(Session session, List<Track> others) {
        Map<String, Track> tracks = new LinkedHashMap<>();
        session.tracks().forEach(track -> tracks.put(track.id(), track));
        others.forEach(track -> tracks.put(track.id(), track));
        return session.withTracks(List.copyOf(tracks.values()));
    }

    /** Returns the session with a track for each part that is played, and one for everything else, ready to record. */
    public static Session readyToRecord(Session session) {
        Session ready = TrackEdits.addMissingTracks(session);
        if (ready.tracks().stream().anyMatch(Track::takesRest)) {
            return ready;
        }
        List<Track> tracks = new ArrayList<>(ready.tracks());
        tracks.add(TrackEdits.restTrack(ready));
        return ready.withTracks(tracks);
    }

    /** Adds a track before the one for everything else. */
    public static Session addTrack(Session session, String id, String name, Track.Input input) {
        List<Track> tracks = new ArrayList<>(session.tracks());
        int last = tracks.size() - 1;
        tracks.add(last >= 0 && tracks.get(last).takesRest() ? last : tracks.size(), Track.of(id, name, input));
        return session.withTracks(tracks);
    }

    /** Deletes a track with its content. */
    public static Session deleteTrack(Session session, String id) {
        return session.withTracks(session.tracks().stream()
                .filter(track -> !track.id().equals(id))
                .toList());
    }

    /** Gives a track another name. */
    public static Session renameTrack(Session session, String id, String name) {
        return session.withTracks(session.tracks().stream()
                .map(track -> track.id().equals(id) ? track.withName(name) : track)
                .toList());
    }

    /** Moves a track up (-1) or down (1) among the others. */
    public static Session moveTrack(Session session, String id, int by) {
        return session.withTracks(
                Lists.moved(session.tracks(), track -> track.id().equals(id), by));
    }
}
