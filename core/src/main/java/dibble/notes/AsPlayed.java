package dibble.notes;

import dibble.recording.ClipIndex;
import dibble.recording.NoteOrigins;

/**
 * Has notes be what they were when they were played: when, how long, on which key, how loud; with the bars around them
 * where those were taken since. What was not played but added stays as it is.
 *
 * @param origins of the notes that are changed
 * @param played what was printed
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
