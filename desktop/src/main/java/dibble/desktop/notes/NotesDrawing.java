package dibble.desktop.notes;

import dibble.presentation.TimeScale;
import dibble.presentation.notes.Geometry;
import dibble.presentation.notes.NotesPresenter;
import dibble.presentation.notes.TrackNotes;
import dibble.recording.ClipIndex;
import java.util.List;
import java.util.Optional;

/** The present drawing for all areas below each other: the tracks with their notes and positions. */
final class NotesDrawing {
    private final NotesPresenter presenter;
    private List<VisibleTrack> shown = List.of();
    private Geometry at;

    NotesDrawing(NotesPresenter presenter) {
        this.presenter = presenter;
    }

    void set(List<VisibleTrack> tracks, Geometry geometry) {
        shown = tracks;
        at = geometry;
    }

    NotesPresenter presenter() {
        return presenter;
    }

    List<VisibleTrack> shown() {
        return shown;
    }

    Geometry at() {
        return at;
    }

    TimeScale scale() {
        return at.scale();
    }

    /** A note of a track. */
    record Hit(VisibleTrack shown, int note) {
        long start() {
            return shown.sheet().index().start(note);
        }

        long end() {
            return shown.sheet().index().end(note);
        }

        int key() {
            return shown.sheet().index().key(note);
        }
    }

    /** The note that is seen at a place; of several the one that is drawn last. */
    Optional<Hit> hit(double x, double y) {
        if (!at.hasRowAt(y)) {
            return Optional.empty();
        }
        int key = at.keyAt(y);
        long tick = scale().tickAt(x);
        long near = Math.max(1, scale().tickAt(3) - scale().from());
        for (int i = shown.size() - 1; i >= 0; i--) {
            VisibleTrack one = shown.get(i);
            ClipIndex index = one.sheet().index();
            long earliest = tick - one.sheet().longest() - near;
            for (int note = TrackNotes.firstFrom(index, tick + 2) - 1;
                    note >= 0 && index.start(note) >= earliest;
                    note--) {
                long end = Math.max(index.end(note), index.start(note) + near);
                if (index.key(note) == key && end > tick) {
                    return Optional.of(new Hit(one, note));
                }
            }
        }
        return Optional.empty();
    }
}
