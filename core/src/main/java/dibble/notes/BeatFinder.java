package dibble.notes;

import static dibble.text.CoreText.say;

import dibble.recording.ClipIndex;
import dibble.text.UserException;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Estimates a beat grid for a free performance. The autocorrelation of note onsets gives the typical beat interval.
 * Dynamic programming over positions and intervals then finds the series of beats that meets the most onsets with the
 * least change of interval. A beat without an onset is bridged.
 */
public final class BeatFinder {
    /** The length of a place, in nanoseconds. */
    private static final long FRAME = 5_000_000;

    /** A standard deviation, in positions: onsets with a larger distance do not sound like the beat. */
    private static final double WIDTH = 5;

    /** The quickest and the slowest beats, in places. */
    private static final int SHORTEST = 50;

    private static final int LONGEST = 300;

    /** The least ratio of a beat interval to the typical one. */
    private static final double QUICKER = 0.62;

    private static final double SLOWER = 1.55;

    /** The cost of a change of interval, a factor for the square of the change of its logarithm. */
    private static final double STEADINESS = 70;

    /** By how much the distance can change from one beat to the next. */
    private static final double MAX_CHANGE = 0.09;

    /** A beat moves to an onset within this distance, in nanoseconds. */
    private static final long NEAR = 45_000_000;

    /** Beats a minute that are likeliest, where nothing is known; how far others may be from it, in octaves. */
    private static final double LIKELIEST = 105;

    private static final double OCTAVES = 0.75;

    private BeatFinder() {}

    /**
     * The beats of some clips that were played together.
     *
     * @param tempo by which their ticks are times
     * @param bpm how many beats a minute are expected; 0 where that is not known
     * @return when each beat comes, in nanoseconds, rising
     * @throws UserException where there are too few notes to tell
     */
    public static long[] find(List<ClipIndex> clips, TempoMap tempo, double bpm) {
        Onsets onsets = Onsets.of(clips, tempo);
        if (onsets.size() < 4) {
            throw new UserException(say("beat-finder.too-few", onsets.size()));
        }
        long first = onsets.nanos()[0];
        int places = (int) ((onsets.nanos()[onsets.size() - 1] - first) / FRAME) + LONGEST / 3;
        double[] strength = strength(onsets, first, places);
        int period = period(strength, bpm == 0 ? LIKELIEST : bpm, bpm == 0 ? OCTAVES : OCTAVES / 3);
        int[] beats = beats(strength, period);
        long[] nanos = new long[beats.length];
        for (int i = 0; i < beats.length; i++) {
            nanos[i] = first + beats[i] * FRAME;
        }
        return onto(nanos, onsets);
    }

    /** Moves taps to nearby onsets: tapping is less exact than playing. */
    public static long[] taps(long[] taps, List<ClipIndex> clips, TempoMap tempo) {
        return onto(taps, Onsets.of(clips, tempo));
    }

    private static double[] strength(Onsets onsets, long first, int places) {
        double[] strength = new double[places];
        double mean = Arrays.stream(onsets.weights()).average().orElse(1);
        int reach = (int) (3 * WIDTH);
        for (int i = 0; i < onsets.size(); i++) {
            double at = (double) (onsets.nanos()[i] - first) / FRAME;
            double weight = Math.min(2, onsets.weights()[i] / mean);
            for (int place = Math.max(0, (int) at - reach); place <= Math.min(places - 1, (int) at + reach); place++) {
                double off = (place - at) / WIDTH;
                strength[place] = Math.max(strength[place], weight * Math.exp(-off * off / 2));
            }
        }
        return strength;
    }

    /** Returns the typical beat interval, in positions. */
    private static int period(double[] strength, double bpm, double octaves) {
        int best = SHORTEST;
        double most = -1;
        double likeliest = 60e9 / bpm / FRAME;
        for (int lag = SHORTEST; lag <= LONGEST; lag++) {
            double sum = 0;
            // Also one and two beats later: a beat repeats.
            for (int place = 0; place + lag < strength.length; place++) {
                double later = place + 2 * lag < strength.length ? strength[place + 2 * lag] : 0;
                sum += strength[place] * (strength[place + lag] + later / 2);
            }
            double off = Math.log(lag / likeliest) / Math.log(2) / octaves;
            double score = sum / strength.length * Math.exp(-off * off / 2);
            if (score > most) {
                most = score;
                best = lag;
            }
        }
        return best;
    }

    private static int[] beats(double[] strength, int whole) {
        int shortest = (int) Math.max(SHORTEST, whole * QUICKER);
        int longest = (int) Math.min(LONGEST, whole * SLOWER);
        int periods = longest - shortest + 1;
        double[] costs = costs(shortest, longest, whole);
        // By how much the distance grows, in places: what that costs.
        float[][] turns = new float[periods][];
        for (int p = 0; p < periods; p++) {
            int reach = reach(shortest + p);
            turns[p] = new float[2 * reach + 1];
            for (int by = -reach; by <= reach; by++) {
                double ratio = Math.log((double) (shortest + p) / Math.max(1, shortest + p + by));
                turns[p][by + reach] = (float) (STEADINESS * ratio * ratio);
            }
        }
        // By place and distance: the best row of beats that ends there, having come from so far.
        float[] score = new float[strength.length * periods];
        byte[] change = new byte[strength.length * periods];
        for (int place = 0; place < strength.length; place++) {
            for (int p = 0; p < periods; p++) {
                int from = place - (shortest + p);
                float best = 0;
                int changed = 0;
                if (from >= 0) {
                    best = Float.NEGATIVE_INFINITY;
                    int reach = reach(shortest + p);
                    float[] turn = turns[p];
                    for (int q = Math.max(0, p - reach); q <= Math.min(periods - 1, p + reach); q++) {
                        float next = score[from * periods + q] - turn[q - p + reach];
                        if (next > best) {
                            best = next;
                            changed = q - p;
                        }
                    }
                }
                score[place * periods + p] = (float) (best + strength[place] - costs[p]);
                change[place * periods + p] = (byte) changed;
            }
        }
        return row(score, change, strength, shortest, periods);
    }

    private static int reach(int period) {
        return (int) Math.ceil(period * MAX_CHANGE);
    }

    /** Returns the costs of intervals: those far from the typical one are more expensive. */
    private static double[] costs(int shortest, int longest, int whole) {
        double[] costs = new double[longest - shortest + 1];
        for (int p = 0; p < costs.length; p++) {
            double off = Math.log((double) (shortest + p) / whole);
            // Many short beats would fall on more than few long ones.
            costs[p] = 0.35 + 0.6 * off * off;
        }
        return costs;
    }

    private static int[] row(float[] score, byte[] change, double[] strength, int shortest, int periods) {
        int end = strength.length - 1;
        int from = Math.max(0, end - shortest - periods);
        int place = end;
        int p = 0;
        float best = Float.NEGATIVE_INFINITY;
        for (int at = from; at <= end; at++) {
            for (int q = 0; q < periods; q++) {
                if (score[at * periods + q] > best) {
                    best = score[at * periods + q];
                    place = at;
                    p = q;
                }
            }
        }
        List<Integer> beats = new ArrayList<>();
        while (place >= 0) {
            beats.add(0, place);
            int next = p + change[place * periods + p];
            place -= shortest + p;
            p = next;
        }
        return beats.stream().mapToInt(Integer::intValue).toArray();
    }

    private static long[] onto(long[] beats, Onsets onsets) {
        long[] on = beats.clone();
        for (int i = 0; i < on.length; i++) {
            int found = Arrays.binarySearch(onsets.nanos(), beats[i]);
            int after = found >= 0 ? found : -found - 1;
            long nearest = Long.MAX_VALUE;
            for (int near = Math.max(0, after - 1); near <= Math.min(onsets.size() - 1, after); near++) {
                if (Math.abs(onsets.nanos()[near] - beats[i]) < Math.abs(nearest - beats[i])) {
                    nearest = onsets.nanos()[near];
                }
            }
            on[i] = nearest != Long.MAX_VALUE && Math.abs(nearest - beats[i]) <= NEAR ? nearest : beats[i];
        }
        for (int i = 1; i < on.length; i++) {
            on[i] = Math.max(on[i], on[i - 1] + FRAME);
        }
        return on;
    }

    /**
     * Returns the tempo map of given beats. Before the first beat, it continues backwards at about the initial tempo.
     *
     * @param beats the times in nanoseconds, ascending; at least two
     * @param perBar the beats of a bar, in quarter notes each
     * @param first the index of a beat that begins a bar
     */
    public static TempoMap map(long[] beats, int perBar, int first) {
        double period = (double) (beats[beats.length - 1] - beats[0]) / (beats.length - 1);
        long before = Math.floorMod(-first, perBar);
        // A beat that begins a bar comes after whole bars, however they are filled before the first that was found.
        long lead = before;
        while (lead * period < beats[0] - period * perBar / 2.0) {
            lead += perBar;
        }
        if (lead == 0 && beats[0] > 0) {
            lead = perBar;
        }
        List<TempoMap.Anchor> anchors = new ArrayList<>();
        for (int i = 0; i < beats.length; i++) {
            anchors.add(new TempoMap.Anchor((lead + i) * TempoMap.PPQ, beats[i]));
        }
        return TempoMap.through(anchors, List.of(new TempoMap.Meter(0, perBar, 4)));
    }

    /** Returns the index of the first beat that begins a bar: most loud, low and long notes begin there. */
    public static int firstOfBar(long[] beats, int perBar, List<ClipIndex> clips, TempoMap tempo) {
        Onsets onsets = Onsets.of(clips, tempo);
        double[] sums = new double[perBar];
        int at = 0;
        for (int i = 0; i < beats.length; i++) {
            while (at < onsets.size() && onsets.nanos()[at] < beats[i] - NEAR) {
                at++;
            }
            if (at < onsets.size() && onsets.nanos()[at] <= beats[i] + NEAR) {
                sums[i % perBar] += onsets.weights()[at];
            }
        }
        int best = 0;
        for (int i = 1; i < perBar; i++) {
            best = sums[i] > sums[best] * 1.02 ? i : best;
        }
        return best;
    }
}
