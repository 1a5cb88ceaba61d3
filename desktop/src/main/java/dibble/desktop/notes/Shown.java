package dibble.desktop.notes;

import dibble.gear.Part;
import dibble.presentation.notes.Sheet;
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
record Shown(Track track, Sheet sheet, Part part, BitSet selected, Color colour) {
    /** The first note that may reach into what is seen from a tick on. */
    int firstFrom(long tick) {
        return Sheet.firstFrom(sheet.index(), tick - sheet.longest());
    }
}
