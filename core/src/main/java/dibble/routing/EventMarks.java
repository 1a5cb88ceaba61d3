package dibble.routing;

import java.util.Arrays;

/** Marks the destinations that one event has reached. Belongs to its router's thread. */
final class EventMarks {
    private int[] markedIn = {};
    private int event;

    void open(int destinations) {
        if (destinations > markedIn.length) {
            markedIn = Arrays.copyOf(markedIn, destinations);
        }
    }

    /** Another event: nothing is marked. */
    void begin() {
        event++;
    }

    void mark(int destination) {
        markedIn[destination] = event;
    }

    boolean isMarked(int destination) {
        return markedIn[destination] == event;
    }
}
