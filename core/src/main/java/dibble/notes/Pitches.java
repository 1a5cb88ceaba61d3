package dibble.notes;

import java.util.Locale;

/** Changes of keys. */
public final class Pitches {
    private Pitches() {}

    /** A scale, by the semitones above its root. */
    public enum Scale {
        MAJOR(0, 2, 4, 5, 7, 9, 11),
        MINOR(0, 2, 3, 5, 7, 8, 10),
        HARMONIC_MINOR(0, 2, 3, 5, 7, 8, 11),
        DORIAN(0, 2, 3, 5, 7, 9, 10),
        PHRYGIAN(0, 1, 3, 5, 7, 8, 10),
        LYDIAN(0, 2, 4, 6, 7, 9, 11),
        MIXOLYDIAN(0, 2, 4, 5, 7, 9, 10),
        MAJOR_PENTATONIC(0, 2, 4, 7, 9),
        MINOR_PENTATONIC(0, 3, 5, 7, 10),
        BLUES(0, 3, 5, 6, 7, 10),
        WHOLE_TONE(0, 2, 4, 6, 8, 10);

        private final int keys;

        Scale(int... semitones) {
            int set = 0;
            for (int semitone : semitones) {
                set |= 1 << semitone;
            }
            keys = set;
        }

        /** As a command has it: {@code harmonic-minor}. */
        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }

        private boolean has(int key, int root) {
            return (keys & 1 << Math.floorMod(key - root, 12)) != 0;
        }
    }

    /** Each so many semitones up, or down; none beyond the ends of the keyboard, where all stay in their places. */
    public static NoteFunction transpose(int semitones) {
        return notes -> notes.each(note -> {
            int key = notes.key(note) + semitones;
            if (key >= 0 && key <= 127) {
                notes.setKey(note, key);
            }
        });
    }

    /** Each to the nearest key of a scale; of two to the lower. @param root 0 (C) to 11 */
    public static NoteFunction intoScale(int root, Scale scale) {
        return notes -> notes.each(note -> {
            int key = notes.key(note);
            for (int off = 0; off < 12; off++) {
                if (scale.has(key - off, root) && key - off >= 0) {
                    notes.setKey(note, key - off);
                    return;
                }
                if (scale.has(key + off, root) && key + off <= 127) {
                    notes.setKey(note, key + off);
                    return;
                }
            }
        });
    }
}
