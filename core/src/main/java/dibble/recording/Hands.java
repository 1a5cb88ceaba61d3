package dibble.recording;

import dibble.midi.MidiTrack;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Separates the two hands of a player on one keyboard. Notes that begin together form a chord; its lower notes go to
 * the left hand and the others to the right. Dynamic programming over the chords finds the cheapest split. Costs are: a
 * span beyond a hand's (with notes that it still holds), movement, more so if it is quick, and leaving its half of the
 * keyboard or crossing the other hand. A state has the positions of the hands and their held notes; of equal states the
 * cheapest continues, and of the others a few dozen.
 */
public final class Hands {
    /** Notes within this part of a quarter note are one chord: what fingers that mean to play together are apart. */
    private static final int TOGETHER = 16;

    private static final int MAX_STATES = 32;
    private static final int COMFORTABLE = 12;
    private static final int WIDEST = 16;
    private static final int FINGERS = 5;
    private static final int LEFT_AT_FIRST = 48;
    private static final int RIGHT_AT_FIRST = 70;
    private static final int MIDDLE = 60;

    /** The cost of a key in the way of the other hand. */
    private static final int IN_THE_WAY = 4;

    /** The most notes that a hand holds at once; older ones are held by a pedal, or hang. */
    private static final int MAX_HELD = 8;

    /**
     * Notes that begin together, from low to high.
     *
     * @param events the numbers of their ons on the clip
     */
    private record Chord(long start, int[] keys, long[] ends, int[] events) {
        /** Returns the number of keys at or below a key. */
        int upTo(int key) {
            int low = 0;
            int high = keys.length;
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (keys[middle] <= key) {
                    low = middle + 1;
                } else {
                    high = middle;
                }
            }
            return low;
        }

        double centre(int from, int to) {
            return (keys[from] + keys[to - 1]) / 2.0;
        }
    }

    /** The held keys of a hand, and their ends. */
    private record Held(int[] keys, long[] ends) {
        static final Held NOTHING = new Held(new int[0], new long[0]);

        Held still(long now) {
            int left = (int) Arrays.stream(ends).filter(end -> end > now).count();
            if (left == keys.length) {
                return this;
            }
            int[] stillKeys = new int[left];
            long[] stillEnds = new long[left];
            int n = 0;
            for (int i = 0; i < keys.length; i++) {
                if (ends[i] > now) {
                    stillKeys[n] = keys[i];
                    stillEnds[n++] = ends[i];
                }
            }
            return new Held(stillKeys, stillEnds);
        }

        Held and(Chord chord, int from, int to) {
            int struck = Math.min(MAX_HELD, to - from);
            int kept = Math.min(keys.length, MAX_HELD - struck);
            int[] all = Arrays.copyOfRange(keys, keys.length - kept, keys.length + struck);
            long[] allEnds = Arrays.copyOfRange(ends, ends.length - kept, ends.length + struck);
            System.arraycopy(chord.keys, to - struck, all, kept, struck);
            System.arraycopy(chord.ends, to - struck, allEnds, kept, struck);
            return new Held(all, allEnds);
        }

        int low(int otherwise) {
            int low = otherwise;
            for (int key : keys) {
                low = Math.min(low, key);
            }
            return low;
        }

        int high(int otherwise) {
            int high = otherwise;
            for (int key : keys) {
                high = Math.max(high, key);
            }
            return high;
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof Held that && Arrays.equals(keys, that.keys) && Arrays.equals(ends, that.ends);
        }

        @Override
        public int hashCode() {
            return Arrays.hashCode(keys) * 31 + Arrays.hashCode(ends);
        }
    }

    /** The positions of the hands and their held keys, which identify a state. */
    private record Position(double left, double right, Held leftHolds, Held rightHolds) {}

    /** A state of the search with its cost; the last chord was split at {@code cut}. */
    private record State(State before, double cost, Position at, int cut) {}

    /** A way on from a state. */
    private record Step(State from, Held leftHolds, Held rightHolds, int cut, double cost) {}

    private final long quarter;
    private final long together;

    private Hands(long quarter) {
        this.quarter = quarter;
        together = quarter / TOGETHER;
    }

    /**
     * Finds the notes of the right hand.
     *
     * @param quarter the ticks of a quarter note
     * @return for each event of the track whether it is the on of a note of the right hand
     */
    public static boolean[] right(MidiTrack track, long quarter) {
        return new Hands(quarter).right(track);
    }

    private boolean[] right(MidiTrack track) {
        List<Chord> chords = chords(ClipIndex.of(track));
        List<State> states =
                List.of(new State(null, 0, new Position(LEFT_AT_FIRST, RIGHT_AT_FIRST, Held.NOTHING, Held.NOTHING), 0));
        long last = chords.isEmpty() ? 0 : chords.get(0).start - quarter * 4;
        for (Chord chord : chords) {
            states = next(states, chord, Math.max(1, chord.start - last) / (double) quarter);
            last = chord.start;
        }
        boolean[] right = new boolean[track.size()];
        State state = states.get(0);
        for (int i = chords.size() - 1; i >= 0; i--) {
            int[] events = chords.get(i).events;
            for (int n = state.cut; n < events.length; n++) {
                right[events[n]] = true;
            }
            state = state.before;
        }
        return right;
    }

    /** Chords in the order of time. */
    private List<Chord> chords(ClipIndex notes) {
        List<Chord> chords = new ArrayList<>();
        int first = 0;
        for (int n = 1; n <= notes.noteCount(); n++) {
            if (n == notes.noteCount() || notes.start(n) - notes.start(first) > together) {
                chords.add(chord(notes, first, n));
                first = n;
            }
        }
        return chords;
    }

    private static Chord chord(ClipIndex notes, int from, int to) {
        List<Integer> byKey = new ArrayList<>();
        for (int n = from; n < to; n++) {
            byKey.add(n);
        }
        byKey.sort(Comparator.comparingInt(notes::key));
        return new Chord(
                notes.start(from),
                byKey.stream().mapToInt(notes::key).toArray(),
                byKey.stream().mapToLong(notes::end).toArray(),
                byKey.stream().mapToInt(notes::on).toArray());
    }

    private List<State> next(List<State> states, Chord chord, double quarters) {
        List<Step> steps = new ArrayList<>();
        for (State state : states) {
            Held left = state.at.leftHolds.still(chord.start + together);
            Held right = state.at.rightHolds.still(chord.start + together);
            for (int cut = 0; cut <= chord.keys.length; cut++) {
                // One key is one hand's, however often a file has it there.
                if (cut == 0 || cut == chord.keys.length || chord.keys[cut] != chord.keys[cut - 1]) {
                    steps.add(new Step(
                            state, left, right, cut, state.cost + cost(state.at, left, right, chord, cut, quarters)));
                }
            }
        }
        steps.sort(Comparator.comparingDouble(Step::cost));
        Set<Position> reached = new HashSet<>();
        List<State> best = new ArrayList<>();
        for (Step step : steps) {
            Position to = position(step, chord);
            if (reached.add(to)) {
                best.add(new State(step.from, step.cost, to, step.cut));
            }
            if (best.size() == MAX_STATES) {
                break;
            }
        }
        return best;
    }

    private static Position position(Step step, Chord chord) {
        int count = chord.keys.length;
        return new Position(
                step.cut == 0 ? step.from.at.left : chord.centre(0, step.cut),
                step.cut == count ? step.from.at.right : chord.centre(step.cut, count),
                step.leftHolds.and(chord, 0, step.cut),
                step.rightHolds.and(chord, step.cut, count));
    }

    private static double cost(Position at, Held left, Held right, Chord chord, int cut, double quarters) {
        int count = chord.keys.length;
        double cost = shape(left, chord, 0, cut) + shape(right, chord, cut, count);
        double leftAt = at.left;
        double rightAt = at.right;
        if (cut > 0) {
            leftAt = chord.centre(0, cut);
            cost += move(at.left, leftAt, quarters) + away(leftAt - MIDDLE);
        }
        if (cut < count) {
            rightAt = chord.centre(cut, count);
            cost += move(at.right, rightAt, quarters) + away(MIDDLE - rightAt);
        }
        return cost + across(leftAt, rightAt) + IN_THE_WAY * crossing(left, right, chord, cut);
    }

    /** Returns the cost of a hand that plays some keys of a chord in addition to its held keys. */
    private static double shape(Held held, Chord chord, int from, int to) {
        int size = held.keys.length + to - from;
        if (size < 2) {
            return 0;
        }
        int low = held.low(from < to ? chord.keys[from] : 127);
        int high = held.high(from < to ? chord.keys[to - 1] : 0);
        int span = high - low;
        double cost = Math.max(0, size - FINGERS) * 15.0;
        if (span > WIDEST) {
            return cost + 20 + 4.0 * (span - WIDEST);
        }
        return cost + (span > COMFORTABLE ? 1.5 * (span - COMFORTABLE) : 0);
    }

    /** Returns the number of crossed pairs of a left and a right key. */
    private static int crossing(Held left, Held right, Chord chord, int cut) {
        int pairs = 0;
        for (int key : left.keys) {
            pairs += Math.max(0, chord.upTo(key) - cut);
            for (int other : right.keys) {
                pairs += key >= other ? 1 : 0;
            }
        }
        for (int key : right.keys) {
            pairs += Math.max(0, cut - chord.upTo(key - 1));
        }
        return pairs;
    }

    /** Returns the cost of moving a hand within a number of quarter notes. */
    private static double move(double from, double to, double quarters) {
        double far = Math.abs(to - from);
        return far * (0.10 + 0.05 / Math.max(0.2, quarters));
    }

    /** Returns the cost of a hand beyond the middle of the keyboard. */
    private static double away(double beyond) {
        return Math.max(0, beyond) * 0.06;
    }

    /** Returns the cost of crossed hands. */
    private static double across(double leftAt, double rightAt) {
        return leftAt > rightAt ? 3 + 0.5 * (leftAt - rightAt) : leftAt > rightAt - 3 ? 0.5 : 0;
    }
}
