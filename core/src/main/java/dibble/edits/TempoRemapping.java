package dibble.edits;

import dibble.recording.Regions;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Session;
import dibble.time.Marker;
import dibble.time.TempoMap;
import dibble.time.TempoRemap;
import dibble.work.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Another tempo map under the same music: bars and beats lie elsewhere, and everything sounds when it did. */
public final class TempoRemapping {
    private TempoRemapping() {}

    /** The session with another tempo and meter, in which all tracks, takes and markers come when they came. */
    public static Session of(Session session, TempoMap next, Progress progress) {
        TempoRemap remap = new TempoRemap(session.tempo(), next);
        // Either all tracks and takes go back exactly, or all of them are rounded once more.
        boolean exactly = session.tracks().stream()
                .map(Track::regions)
                .allMatch(
                        regions -> regions.isEmpty() || regions.unmapped(remap).isPresent());
        List<Track> tracks = new ArrayList<>();
        int done = 0;
        for (Track track : session.tracks()) {
            progress.at((double) done++ / session.tracks().size());
            Regions regions = track.regions();
            Optional<Regions> before = exactly ? regions.unmapped(remap) : Optional.empty();
            tracks.add(track.withRegions(before.orElseGet(() -> regions.remapped(remap))));
        }
        List<Marker> markers = session.markers().stream()
                .map(marker -> new Marker(remap.tick(marker.at()), marker.name()))
                .toList();
        List<Take> takes = session.takes().stream()
                .map(take -> take.remapped(remap, exactly))
                .toList();
        return session.withTempo(next).withMarkers(markers).withTracks(tracks).withTakes(takes);
    }
}
