package dibble.desktop.takes;

import dibble.time.TempoMap;

/**
 * The one time scale of the view.
 *
 * @param bars how many bars are shown
 * @param width how wide they are together
 */
record TimeScale(TempoMap tempo, long bars, double width) {
    static final int LEAST_BARS = 16;

    /** A scale that shows everything up to a time, in nanoseconds, with a bar of air. */
    static TimeScale upTo(long nanos, TempoMap tempo, double width) {
        long bars = tempo.place(tempo.ticks(nanos)).bar() + 1;
        return new TimeScale(tempo, Math.max(LEAST_BARS, (bars + 7) / 8 * 8), width);
    }

    double xOfTick(long tick) {
        return (double) tick / tempo.barStart(bars + 1) * width;
    }

    long tickAt(double x) {
        return Math.round(x / width * tempo.barStart(bars + 1));
    }

    double xOfNanos(long nanos) {
        return xOfTick(tempo.ticks(nanos));
    }

    /** How many bars from one number on the ruler to the next, so that they do not run into each other. */
    int barStep() {
        int step = 1;
        while (width / bars * step < 44) {
            step *= 2;
        }
        return step;
    }
}
