package dibble.notes;

import dibble.midi.MidiTrack;
import dibble.midi.NeutralValues;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import java.util.HashMap;
import java.util.Map;

/** Changes that remove unintended notes and redundant events. */
public final class CleanUp {
    private CleanUp() {}

    /** Deletes the selection. */
    public static NoteFunction delete() {
        return notes -> notes.each(notes::delete);
    }

    /** Notes that are shorter than so many ticks. */
    public static NoteFunction shorterThan(long ticks) {
        return notes -> notes.each(note -> {
            if (notes.end(note) - notes.start(note) < ticks) {
                notes.delete(note);
            }
        });
    }

    /** Notes that are softer than a velocity. */
    public static NoteFunction softerThan(int velocity) {
        return notes -> notes.each(note -> {
            if (notes.velocity(note) < velocity) {
                notes.delete(note);
            }
        });
    }

    /** Notes that begin within so many ticks of another of their key and channel: the first stays. */
    public static NoteFunction doubles(long ticks) {
        return notes -> {
            ClipIndex index = notes.index();
            Map<Integer, Long> last = new HashMap<>();
            for (int note = 0; note < index.noteCount(); note++) {
                int slot = index.slot(note);
                Long before = last.get(slot);
                boolean isDouble = before != null && index.start(note) - before <= ticks;
                if (isDouble && notes.selected().get(note)) {
                    notes.delete(note);
                } else {
                    last.put(slot, index.start(note));
                }
            }
        };
    }

    /**
     * Thins out controllers, bend and pressure where selected notes are: of values that come within so many ticks of the
     * one before only those stay that are more than so much away from it, and the last of each move. Pedals and data of
     * parameters stay.
     */
    public static NoteFunction thin(long ticks, int away) {
        return notes -> {
            long[] span = SelectionBounds.of(notes);
            MidiTrack clip = notes.clip();
            for (ClipIndex.Lane lane : notes.index().lanes()) {
                if (Thinning.isSmooth(clip.message(lane.events()[0]))) {
                    thin(notes, lane.events(), span, ticks, away);
                }
            }
        };
    }

    private static void thin(Rewrite notes, int[] events, long[] span, long ticks, int away) {
        MidiTrack clip = notes.clip();
        int kept = 0;
        for (int i = 1; i < events.length; i++) {
            long at = clip.tick(events[i]);
            boolean within = at >= span[0] && at <= span[2];
            boolean isLast = i + 1 == events.length || clip.tick(events[i + 1]) - at > ticks;
            boolean near = at - clip.tick(events[kept]) <= ticks
                    && Math.abs(value(clip.message(events[i])) - value(clip.message(events[kept]))) <= away;
            if (within && near && !isLast) {
                notes.remove(events[i]);
            } else {
                kept = i;
            }
        }
    }

    /** 0-127; of bend the upper seven bits. */
    private static int value(int message) {
        return ShortMessage.kind(message) == ShortMessage.CHANNEL_PRESSURE
                ? ShortMessage.data1(message)
                : ShortMessage.data2(message);
    }

    /** A controller with continuous values, unlike switches and selectors: it can be thinned. */
    private static final class Thinning {
        private static final int FIRST_PARAMETER = 96;

        static boolean isSmooth(int message) {
            int number = ShortMessage.data1(message);
            return switch (ShortMessage.kind(message)) {
                case ShortMessage.PITCH_BEND, ShortMessage.CHANNEL_PRESSURE -> true;
                case ShortMessage.CONTROLLER ->
                    number != 0
                            && number != 32
                            && number != Parameter.DATA
                            && number != Parameter.DATA_FINE
                            && number < FIRST_PARAMETER
                            && !NeutralValues.isPedal(number);
                default -> false;
            };
        }
    }
}
