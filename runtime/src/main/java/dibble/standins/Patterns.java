package dibble.standins;

/** The rules by which a {@link PatternSequencer}'s lanes make music: eight bars of chords in D minor, sixteen steps each. */
enum Patterns {
    /** Broken chords that turn round at the top, with a rest now and then. */
    LINE {
        @Override
        void play(long step, Notes notes) {
            if (step % 2 == 0 && scatter(step / 2, 5) != 0) {
                int turn = (int) (step / 2 % 6);
                notes.note(62 + tone(step, turn < 4 ? turn : 6 - turn), 70 + accent(step), 2);
            }
        }
    },

    /** Two voices that answer each other, one on the beat and one behind it. */
    ANSWER {
        @Override
        void play(long step, Notes notes) {
            if (step % 8 == 2 || step % 8 == 5) {
                int voice = step % 8 == 2 ? 1 : 2;
                notes.note(50 + tone(step, voice), 64 + accent(step), 3);
            }
        }
    },

    /** The root, its fifth, and a step towards the next root before the bar ends. */
    BASS {
        @Override
        void play(long step, Notes notes) {
            int inBar = (int) (step % BAR);
            if (inBar == 0 || inBar == 10) {
                notes.note(38 + tone(step, 0), 84 + accent(step), 4);
            } else if (inBar == 6) {
                notes.note(38 + tone(step, 2), 76, 3);
            } else if (inBar == 14) {
                notes.note(38 + tone(step + 2, 0) - 1, 68, 2);
            }
        }
    },

    /** Whole chords that change where the harmony does. */
    CHORDS {
        @Override
        void play(long step, Notes notes) {
            if (step % BAR == 0) {
                for (int voice = 0; voice < 3; voice++) {
                    notes.note(50 + tone(step, voice), 58, BAR - 1);
                }
            }
        }
    },

    /** High tones that sparkle: the one of two bars in another place than that of the next. */
    SPARKS {
        @Override
        void play(long step, Notes notes) {
            if (scatter(step % (2 * BAR), 11) == 3) {
                notes.note(74 + tone(step, (int) scatter(step, 3)), 60 + accent(step), 1);
            }
        }
    };

    private static final int BAR = 16;

    /** Semitones above D of each bar's chord: its root, third and fifth. */
    private static final int[][] CHORD = {
        {0, 3, 7}, {-2, 2, 5}, {-4, 0, 3}, {3, 7, 10}, {5, 8, 12}, {0, 3, 7}, {-5, -1, 2}, {0, 3, 7}
    };

    /** Takes a note: its number, its velocity, and its length in steps. */
    interface Notes {
        void note(int note, int velocity, int steps);
    }

    /** Plays what begins at a step, a sixteenth note. */
    abstract void play(long step, Notes notes);

    private static int tone(long step, int voice) {
        int[] chord = CHORD[(int) (step / BAR % CHORD.length)];
        return chord[voice % 3] + 12 * (voice / 3);
    }

    private static int accent(long step) {
        return step % BAR == 0 ? 14 : step % 4 == 0 ? 6 : 0;
    }

    /** The same number from 0 to below a bound for a step each time, in no order that is heard as one. */
    private static long scatter(long step, int bound) {
        long mixed = (step + 1) * 0x9E3779B97F4A7C15L;
        return Long.remainderUnsigned(mixed ^ mixed >>> 29, bound);
    }
}
