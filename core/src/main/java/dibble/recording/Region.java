package dibble.recording;

import static dibble.text.CoreText.say;

import dibble.midi.MidiTrack;
import dibble.text.UserException;

/**
 * A range of a track with its origin. It has the whole print: content outside the range was replaced by another take
 * and does not sound, but a later print is cut at the same positions.
 *
 * @param take the id of the printed take, or null
 * @param from its first tick
 * @param to the tick after its last
 * @param printed the print mode
 * @param edited whether it was edited manually, so that it no longer follows the take
 * @param print the whole print; regions of one print share it
 */
public record Region(String take, long from, long to, PrintMode printed, boolean edited, MidiTrack print) {
    public Region {
        if (from < 0 || to < from) {
            throw new UserException(say("region.region-from-tick-to-expected", from, to));
        }
    }

    /** Returns a region without a take, over the whole clip: sorted out of another track, or of unknown origin. */
    public static Region own(MidiTrack clip) {
        return new Region(null, 0, Math.max(1, clip.endTick()), PrintMode.REPLACE_ALL, false, clip);
    }

    /** Returns the remainder of a take that others have fully replaced on a track: its position, without sound. */
    static Region gone(String take, long from, PrintMode printed) {
        return new Region(take, from, from, printed, false, Track.NOTHING);
    }

    /** Returns true if others have replaced all of it. */
    public boolean isGone() {
        return to == from;
    }

    Region between(long first, long behind) {
        return new Region(take, first, behind, printed, edited, print);
    }

    Region withPrint(MidiTrack other) {
        return new Region(take, from, to, printed, false, other);
    }

    /** The same stretch of another print, as it was read from a file. */
    public Region ofPrint(MidiTrack other) {
        return new Region(take, from, to, printed, edited, other);
    }

    /** The same, edited by hand. */
    public Region asEdited() {
        return new Region(take, from, to, printed, true, print);
    }

    boolean isOf(String id) {
        return take != null && take.equals(id);
    }
}
