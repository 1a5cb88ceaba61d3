package dibble.notes;

import dibble.recording.ClipIndex;
import dibble.recording.NoteOrigins;

/**
 * Restores notes as they were played: start, length, key and velocities, moved with bars that were moved since. Added
 * notes stay as they are.
 *
 * @param origins the origins of the changed notes
 * @param played the printed notes
 */
public record AsPlayed(NoteOrigins origins, ClipIndex played) implements NoteFunction {
    @Override
    public void on(Rewrite notes) {
        notes.each(note -> {
            int was = origins.played(note);
            if (was != NoteOrigins.NONE) {
                long shift = origins.shift(note);
                notes.place(note, played.start(was) + shift, played.end(was) + shift);
                notes.setKey(note, played.key(was));
                notes.setDestination(
                        note, played.destinationName(played.destination(played.on(was))), played.channel(was));
                notes.setVelocity(note, played.velocity(was));
                notes.setRelease(note, played.releaseVelocity(was));
            }
        });
    }
}
