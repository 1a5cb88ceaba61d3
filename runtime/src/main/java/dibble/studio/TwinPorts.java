package dibble.studio;

import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * Notices two sources that keep sending the same within a few milliseconds on two ports: one device that is seen
 * twice. Belongs to the one thread that reads the monitor.
 */
public final class TwinPorts {
    private static final long WITHIN = TimeUnit.MILLISECONDS.toNanos(5);

    /** The number of equal events in a row that is no coincidence. */
    private static final int IN_A_ROW = 8;

    private static final int WAITING = 64;

    /** Two sources, by their slots, the lower first. */
    public record Twins(int first, int second) {}

    /** The recent events of one source, each until it is too old for a twin. */
    private static final class Line {
        private final long[] stamps = new long[WAITING];
        private final int[] messages = new int[WAITING];
        private final boolean[] met = new boolean[WAITING];
        private int from;
        private int size;
    }

    private final List<Line> lines = new ArrayList<>();
    private final List<int[]> runs = new ArrayList<>();
    private final List<Twins> found = new ArrayList<>();

    /**
     * Receives an event of a source. Sources that share a port receive the same event at the same time and are not
     * twins.
     */
    public void take(long stamp, int source, int message) {
        if (!isTelling(message)) {
            return;
        }
        while (lines.size() <= source) {
            lines.add(new Line());
            runs.add(new int[0]);
        }
        Line own = lines.get(source);
        expire(source, stamp);
        boolean met = false;
        for (int other = 0; other < lines.size(); other++) {
            if (other != source && meet(lines.get(other), stamp, message)) {
                met = true;
                count(Math.min(source, other), Math.max(source, other));
            }
        }
        if (own.size == WAITING) {
            own.from = (own.from + 1) % WAITING;
            own.size--;
        }
        int at = (own.from + own.size) % WAITING;
        own.stamps[at] = stamp;
        own.messages[at] = message;
        own.met[at] = met;
        own.size++;
    }

    private static boolean meet(Line line, long stamp, int message) {
        for (int i = 0; i < line.size; i++) {
            int at = (line.from + i) % WAITING;
            long apart = stamp - line.stamps[at];
            if (!line.met[at] && line.messages[at] == message && apart > 0 && apart <= WITHIN) {
                line.met[at] = true;
                return true;
            }
        }
        return false;
    }

    /** An event that expires without a twin resets the count with all other sources. */
    private void expire(int source, long now) {
        Line line = lines.get(source);
        while (line.size > 0 && now - line.stamps[line.from] > WITHIN) {
            if (!line.met[line.from]) {
                breakRows(source);
            }
            line.from = (line.from + 1) % WAITING;
            line.size--;
        }
    }

    private void breakRows(int source) {
        for (int first = 0; first < runs.size(); first++) {
            int[] row = runs.get(first);
            if (first == source) {
                Arrays.fill(row, 0);
            } else if (source < row.length) {
                row[source] = 0;
            }
        }
    }

    private void count(int first, int second) {
        int[] row = runs.get(first);
        if (row.length <= second) {
            row = Arrays.copyOf(row, second + 1);
            runs.set(first, row);
        }
        Twins twins = new Twins(first, second);
        if (++row[second] >= IN_A_ROW && !found.contains(twins)) {
            found.add(twins);
        }
    }

    /** The pairs that were found so far. */
    public List<Twins> found() {
        return List.copyOf(found);
    }

    /** Clears all results, since the gear has changed. */
    public void reset() {
        lines.clear();
        runs.clear();
        found.clear();
    }

    /** Offs and sweeps without a number are alike anywhere; a key or a knob is not. */
    private static boolean isTelling(int message) {
        return ShortMessage.startsNote(message) || ShortMessage.kind(message) == ShortMessage.CONTROLLER;
    }
}
