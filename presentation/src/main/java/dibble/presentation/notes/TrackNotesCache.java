package dibble.presentation.notes;

import dibble.presentation.BackgroundCache;
import dibble.recording.Regions;
import dibble.recording.Track;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/**
 * The notes of tracks, indexed once for each state of a track; in the background if that takes too long for a frame.
 */
final class TrackNotesCache {
    /** As many events as are gone through within a frame. */
    private static final int AT_ONCE = 60_000;

    private final BackgroundCache<Of, TrackNotes> sheets = new BackgroundCache<>();
    private final Set<Of> asked = new HashSet<>();

    /** The content of a track, compared by identity: comparing regions takes long. */
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

    /** Returns the notes of a track; empty while they are being computed. */
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

    /** Drops the notes that were not requested since the last call. */
    void forgetOthers() {
        sheets.retain(asked);
        asked.clear();
    }
}
