package dibble.presentation.app;

import dibble.time.TempoMap;

/** The wording of the position. */
public final class TransportWords {
    private TransportWords() {}

    /**
     * Returns {@code 12 · 3} for bar and beat; the remaining beats of a count-in as {@code −3}.
     *
     * @param position in nanoseconds of the session
     * @param countsIn the remaining count-in, in nanoseconds
     */
    public static String place(TempoMap tempo, long position, long countsIn) {
        long tick = tempo.ticks(position);
        if (countsIn > 0) {
            long beat = tempo.nanos(tick + tempo.meter(tick).ticksPerBeat()) - tempo.nanos(tick);
            return "−" + (countsIn + beat - 1) / beat;
        }
        TempoMap.Place place = tempo.place(tick);
        return place.bar() + " · " + place.beat();
    }
}
