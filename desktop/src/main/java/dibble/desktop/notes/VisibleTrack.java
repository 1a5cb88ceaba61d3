package dibble.desktop.notes;

import dibble.gear.Part;
import dibble.presentation.notes.TrackNotes;
import dibble.recording.Track;
import java.util.BitSet;
import javafx.scene.paint.Color;

/**
 * A track as its notes are drawn.
 *
 * @param part the part that it plays, or null
 * @param selected which notes are selected
 * @param colour of its notes
 */
record VisibleTrack(Track track, TrackNotes sheet, Part part, BitSet selected, Color colour) {
    /** Returns the first note that may extend beyond a tick. */
    int firstFrom(long tick) {
        return TrackNotes.firstFrom(sheet.index(), tick - sheet.longest());
    }
}
