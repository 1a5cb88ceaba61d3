package dibble.edits;

import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Session;
import dibble.time.Marker;
import dibble.time.TempoMap;
import dibble.work.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.function.LongUnaryOperator;
import java.util.stream.Stream;

/** Another tempo map under the same music: bars and beats lie elsewhere, and everything sounds when it did. */
public final class Retiming {
    private Retiming() {}

    /** The session with another tempo and meter, in which all tracks, takes and markers come when they came. */
    public static Session of(Session session, TempoMap next, Progress progress) {
        TempoMap before = session.tempo();
        LongUnaryOperator tick = at -> next.ticks(before.nanos(at));
        List<Track> tracks = new ArrayList<>();
        int done = 0;
        for (Track track : session.tracks()) {
            progress.at((double) done++ / session.tracks().size());
            tracks.add(track.withRegions(track.regions().retimed(tick)));
        }
        List<Marker> markers = session.markers().stream()
                .map(marker -> new Marker(tick.applyAsLong(marker.at()), marker.name()))
                .toList();
        List<Take> takes = session.takes().stream()
                .map(take -> retimed(take, before, next))
                .toList();
        return session.withTempo(next).withMarkers(markers).withTracks(tracks).withTakes(takes);
    }

    /** A take's own tempo says at which ticks it is printed: these are those where its tracks are now. */
    private static Take retimed(Take take, TempoMap before, TempoMap next) {
        if (take.tempo().equals(before)) {
            return take.withTempo(next, take.start());
        }
        // Where any of the three changes its tempo: between these places the way from one to the other is straight.
        TempoMap own = take.tempo();
        Stream<Long> places = Stream.concat(
                Stream.concat(own.tempos().stream(), before.tempos().stream()).map(TempoMap.Tempo::at),
                next.tempos().stream().map(tempo -> before.ticks(next.nanos(tempo.at()))));
        long end = Math.max(take.endTick(), 1) + TempoMap.PPQ;
        List<TempoMap.Anchor> anchors = Stream.concat(places, Stream.of(take.startTick(), end))
                .filter(at -> at > 0)
                .distinct()
                .sorted()
                .map(at -> new TempoMap.Anchor(next.ticks(before.nanos(at)), own.nanos(at)))
                .toList();
        return take.withTempo(TempoMap.through(anchors, next.meters()), take.start());
    }
}
