package dibble.recording;

import static dibble.text.CoreText.say;

import dibble.midi.MidiTrack;
import dibble.text.UserException;

/**
 * A stretch of a track, and where it came from. It has all that was printed: what lies outside the stretch made way for
 * another take and does not sound, but what is printed next time is cut in the same places.
 *
 * @param take the id of the take that it was printed from, or null where it is of none
 * @param from its first tick
 * @param to the tick behind it
 * @param printed how it came onto the track
 * @param edited whether it was edited by hand, and so is its own
 * @param print the whole print; regions of one print share it
 */
public record Region(String take, long from, long to, PrintMode printed, boolean edited, MidiTrack print) {
    public Region {
        if (from < 0 || to < from) {
            throw new UserException(say("region.region-from-tick-to-expected", from, to));
        }
    }

    /** What was sorted out of another track, or cannot be told: of no take, as long as it is. */
    public static Region own(MidiTrack clip) {
        return new Region(null, 0, Math.max(1, clip.endTick()), PrintMode.REPLACE_ALL, false, clip);
    }

    /** What is left of a take on a track where others have replaced all of it: where it was, and nothing that sounds. */
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
