package dibble.presentation.notes;

import dibble.presentation.BackgroundCache;
import dibble.recording.Regions;
import dibble.recording.Track;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/** What is on tracks, found once for each state of a track; aside where that takes longer than a frame may. */
final class TrackNotesCache {
    /** As many events as are gone through within a frame. */
    private static final int AT_ONCE = 60_000;

    private final BackgroundCache<Of, TrackNotes> sheets = new BackgroundCache<>();
    private final Set<Of> asked = new HashSet<>();

    /** What is on a track, by identity: comparing regions takes long. */
    private record Of(Regions regions) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Of of && of.regions == regions;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(regions);
        }
    }

    /** What is on a track; empty while that is still to come. */
    Optional<TrackNotes> of(Track track) {
        Regions regions = track.regions();
        Of of = new Of(regions);
        asked.add(of);
        return sheets.get(of, regions.content().size() <= AT_ONCE, () -> TrackNotes.of(regions));
    }

    boolean isWorking() {
        return sheets.isWorking();
    }

    boolean hasNews() {
        return sheets.hasNews();
    }

    /** Forgets what has not been asked for since the last call. */
    void forgetOthers() {
        sheets.retain(asked);
        asked.clear();
    }
}
