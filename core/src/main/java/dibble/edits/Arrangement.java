package dibble.edits;

import dibble.recording.BarRanges;
import dibble.recording.ManualEdits;
import dibble.recording.Track;
import dibble.session.Session;
import dibble.time.Marker;
import dibble.time.Slice;
import dibble.work.Progress;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The music in another order: a range of it cut out, repeated, copied, with air before it. Places are ticks; ranges begin
 * and end where bars do, where meters are to stay.
 *
 * @param slices one after the other
 * @param moves whether what follows lies elsewhere then, so that tempo, meter and markers go with it
 */
public record Arrangement(List<Slice> slices, boolean moves) {
    public Arrangement {
        slices = slices.stream().filter(slice -> slice.to() > slice.from()).toList();
    }

    /** Takes a range out and closes up. */
    public static Arrangement cutOut(long from, long to) {
        return new Arrangement(List.of(new Slice(0, from, 0), rest(to, from)), true);
    }

    /** Takes all out that is not in a range, which then begins with the music. */
    public static Arrangement keepOnly(long from, long to) {
        return new Arrangement(List.of(new Slice(from, to, 0)), true);
    }

    /** Inserts a pause at a tick. */
    public static Arrangement insert(long at, long length) {
        return new Arrangement(List.of(new Slice(0, at, 0), rest(at, at + length)), true);
    }

    /** Repeats a range, so that it sounds {@code times} times in all; later music moves back. */
    public static Arrangement repeat(long from, long to, int times) {
        List<Slice> slices = new ArrayList<>(List.of(new Slice(0, from, 0)));
        for (int i = 0; i < times; i++) {
            slices.add(new Slice(from, to, from + i * (to - from)));
        }
        slices.add(rest(to, from + times * (to - from)));
        return new Arrangement(slices, true);
    }

    /** Copies a range to a tick, where it replaces the present content. */
    public static Arrangement copy(long from, long to, long at) {
        long end = at + to - from;
        return new Arrangement(List.of(new Slice(0, at, 0), new Slice(from, to, at), rest(end, end)), false);
    }

    /** Leaves a range empty. */
    public static Arrangement clear(long from, long to) {
        return new Arrangement(List.of(new Slice(0, from, 0), rest(to, to)), false);
    }

    private static Slice rest(long from, long at) {
        return new Slice(from, Long.MAX_VALUE, at);
    }

    /**
     * Puts some tracks in this order. Where all tracks are, tempo, meter and markers go with them.
     *
     * @param tracks their ids
     */
    public Session of(Session session, Set<String> tracks) {
        return of(session, tracks, Progress.NONE);
    }

    /** The same, for who waits for it. */
    public Session of(Session session, Set<String> tracks, Progress progress) {
        List<Track> arranged = new ArrayList<>();
        int done = 0;
        for (Track track : session.tracks()) {
            progress.at((double) done++ / session.tracks().size());
            if (tracks.contains(track.id()) && track.content().size() > 0) {
                ManualEdits edits = BarRanges.arranged(track.regions().editable(), slices);
                arranged.add(track.withRegions(track.regions().edited(edits)));
            } else {
                arranged.add(track);
            }
        }
        Session with = session.withTracks(arranged);
        boolean all = session.tracks().stream()
                .allMatch(
                        track -> tracks.contains(track.id()) || track.content().size() == 0);
        return moves && all
                ? with.withTempo(session.tempo().arranged(slices)).withMarkers(markers(session.markers()))
                : with;
    }

    /** A marker goes where the first slice goes that it is in; one that is in none is gone. */
    private List<Marker> markers(List<Marker> markers) {
        List<Marker> moved = new ArrayList<>();
        for (Marker marker : markers) {
            Optional<Slice> slice = slices.stream()
                    .filter(it -> marker.at() >= it.from() && marker.at() < it.to())
                    .findFirst();
            slice.ifPresent(it -> moved.add(new Marker(marker.at() + it.shift(), marker.name())));
        }
        return moved;
    }
}
