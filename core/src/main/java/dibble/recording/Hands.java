package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Tells the two hands of one player apart, on one keyboard. Notes that begin together are a chord; of each chord the
 * lower notes go to the left hand and the others to the right, and dynamic programming over the chords finds the parting
 * that costs least: a hand cannot span more than it spans (notes that it still holds counted), moves unwillingly and the
 * more so the quicker it must, and lies in its half of the keyboard and beside the other rather than across it. What a
 * state remembers is where the hands are and what they hold; of states that agree in that the cheapest goes on, and of
 * the others a few hundred.
 */
public final class Hands {
    /** Notes within this part of a quarter note are one chord: what fingers that mean to play together are apart. */
    private static final int TOGETHER = 16;

    private static final int MOST_STATES = 256;
    private static final int COMFORTABLE = 12;
    private static final int WIDEST = 16;
    private static final int FINGERS = 5;
    private static final int LEFT_AT_FIRST = 48;
    private static final int RIGHT_AT_FIRST = 70;
    private static final int MIDDLE = 60;

    /** A note of one of the hands, as long as it sounds. */
    private record Note(int event, long start, long end, int key) {}

    /** How far one has come: where the hands are, what they hold, and what that has cost. */
    private static final class State {
        final State before;
        final double cost;
        final double left;
        final double right;
        final List<Note> leftHolds;
        final List<Note> rightHolds;
        final int cut;

        State(
                State before,
                double cost,
                double left,
                double right,
                List<Note> leftHolds,
                List<Note> rightHolds,
                int cut) {
            this.before = before;
            this.cost = cost;
            this.left = left;
            this.right = right;
            this.leftHolds = leftHolds;
            this.rightHolds = rightHolds;
            this.cut = cut;
        }
    }

    private final long quarter;
    private final long together;

    private Hands(long quarter) {
        this.quarter = quarter;
        together = quarter / TOGETHER;
    }

    /**
     * Which notes the right hand plays.
     *
     * @param quarter how many ticks a quarter note has
     * @return for each event of the track whether it is the on of a note of the right hand
     */
    public static boolean[] right(MidiTrack track, long quarter) {
        return new Hands(quarter).right(track);
    }

    private boolean[] right(MidiTrack track) {
        List<List<Note>> chords = chords(track);
        List<State> states = List.of(new State(null, 0, LEFT_AT_FIRST, RIGHT_AT_FIRST, List.of(), List.of(), 0));
        long last = chords.isEmpty() ? 0 : chords.get(0).get(0).start() - quarter * 4;
        for (List<Note> chord : chords) {
            long now = chord.get(0).start();
            states = next(states, chord, Math.max(1, now - last) / (double) quarter);
            last = now;
        }
        boolean[] right = new boolean[track.size()];
        State state = states.get(0);
        for (int i = chords.size() - 1; i >= 0; i--) {
            List<Note> chord = chords.get(i);
            for (int n = state.cut; n < chord.size(); n++) {
                right[chord.get(n).event()] = true;
            }
            state = state.before;
        }
        return right;
    }

    /** Chords in the order of time, the notes of each from low to high. */
    private List<List<Note>> chords(MidiTrack track) {
        List<List<Note>> chords = new ArrayList<>();
        long[] ends = ends(track);
        List<Note> chord = new ArrayList<>();
        for (int i = 0; i < track.size(); i++) {
            if (track.isChannelMessage(i) && ShortMessage.startsNote(track.message(i))) {
                if (!chord.isEmpty() && track.tick(i) - chord.get(0).start() > together) {
                    chords.add(chord);
                    chord = new ArrayList<>();
                }
                chord.add(new Note(i, track.tick(i), ends[i], ShortMessage.data1(track.message(i))));
            }
        }
        if (!chord.isEmpty()) {
            chords.add(chord);
        }
        chords.forEach(notes -> notes.sort((a, b) -> Integer.compare(a.key(), b.key())));
        return chords;
    }

    private static long[] ends(MidiTrack track) {
        long[] ends = new long[track.size()];
        int[] open = new int[16 * 128];
        Arrays.fill(open, -1);
        for (int i = 0; i < track.size(); i++) {
            if (!track.isChannelMessage(i) || !ShortMessage.isNote(track.message(i))) {
                continue;
            }
            int place = ShortMessage.channel(track.message(i)) << 7 | ShortMessage.data1(track.message(i));
            if (open[place] >= 0) {
                ends[open[place]] = track.tick(i);
            }
            open[place] = ShortMessage.startsNote(track.message(i)) ? i : -1;
        }
        for (int left : open) {
            if (left >= 0) {
                ends[left] = track.endTick();
            }
        }
        return ends;
    }

    private List<State> next(List<State> states, List<Note> chord, double quarters) {
        Map<List<Object>, State> best = new HashMap<>();
        long now = chord.get(0).start();
        for (State state : states) {
            List<Note> leftHeld = still(state.leftHolds, now);
            List<Note> rightHeld = still(state.rightHolds, now);
            for (int cut = 0; cut <= chord.size(); cut++) {
                List<Note> lower = chord.subList(0, cut);
                List<Note> upper = chord.subList(cut, chord.size());
                List<Note> left = both(leftHeld, lower);
                List<Note> right = both(rightHeld, upper);
                double leftAt = lower.isEmpty() ? state.left : centre(lower);
                double rightAt = upper.isEmpty() ? state.right : centre(upper);
                double cost = state.cost
                        + shape(left)
                        + shape(right)
                        + (lower.isEmpty() ? 0 : move(state.left, leftAt, quarters) + away(leftAt - MIDDLE))
                        + (upper.isEmpty() ? 0 : move(state.right, rightAt, quarters) + away(MIDDLE - rightAt))
                        + across(leftAt, rightAt, left, right);
                List<Object> place = List.of(leftAt, rightAt, left, right);
                State known = best.get(place);
                if (known == null || cost < known.cost) {
                    best.put(place, new State(state, cost, leftAt, rightAt, left, right, cut));
                }
            }
        }
        return best.values().stream()
                .sorted((a, b) -> Double.compare(a.cost, b.cost))
                .limit(MOST_STATES)
                .toList();
    }

    private List<Note> still(List<Note> notes, long now) {
        return notes.stream().filter(note -> note.end() > now + together).toList();
    }

    private static List<Note> both(List<Note> held, List<Note> struck) {
        List<Note> all = new ArrayList<>(held);
        all.addAll(struck);
        return all;
    }

    private static double centre(List<Note> notes) {
        return (notes.get(0).key() + notes.get(notes.size() - 1).key()) / 2.0;
    }

    /** What it costs a hand to hold some keys. */
    private static double shape(List<Note> notes) {
        if (notes.size() < 2) {
            return 0;
        }
        int low = 127;
        int high = 0;
        for (Note note : notes) {
            low = Math.min(low, note.key());
            high = Math.max(high, note.key());
        }
        int span = high - low;
        double cost = Math.max(0, notes.size() - FINGERS) * 15.0;
        if (span > WIDEST) {
            return cost + 20 + 4.0 * (span - WIDEST);
        }
        return cost + (span > COMFORTABLE ? 1.5 * (span - COMFORTABLE) : 0);
    }

    /** What it costs a hand to go somewhere in some quarter notes' time. */
    private static double move(double from, double to, double quarters) {
        double far = Math.abs(to - from);
        return far * (0.10 + 0.05 / Math.max(0.2, quarters));
    }

    /** What it costs a hand to lie beyond the middle of the keyboard. */
    private static double away(double beyond) {
        return Math.max(0, beyond) * 0.06;
    }

    /** What it costs the hands to be in each other's way. */
    private static double across(double leftAt, double rightAt, List<Note> left, List<Note> right) {
        double cost = leftAt > rightAt ? 3 + 0.5 * (leftAt - rightAt) : leftAt > rightAt - 3 ? 0.5 : 0;
        for (Note one : left) {
            for (Note other : right) {
                cost += one.key() >= other.key() ? 4 : 0;
            }
        }
        return cost;
    }
}
