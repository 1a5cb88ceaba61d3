package dibble.presentation;

import dibble.time.TempoMap;
import java.util.function.LongConsumer;

/**
 * The one time scale of tracks and notes: which ticks are shown, and how wide.
 *
 * @param from the first tick that is shown
 * @param ticks how many are shown
 * @param width how wide they are together, in pixels
 */
public record TimeScale(TempoMap tempo, long from, long ticks, double width) {
    private static final int MIN_BARS = 16;

    /** A number on the ruler takes so many pixels. */
    private static final int MIN_STEP = 44;

    /** The fewest ticks that are shown: a quarter note. */
    private static final long CLOSEST = TempoMap.PPQ;

    /** A scale that shows everything up to a time, in nanoseconds, with a bar of air. */
    public static TimeScale upTo(long nanos, TempoMap tempo, double width) {
        long bars = tempo.place(tempo.ticks(nanos)).bar() + 1;
        return new TimeScale(tempo, 0, tempo.barStart(Math.max(MIN_BARS, (bars + 7) / 8 * 8) + 1), width);
    }

    /** Returns the position of a tick, in pixels from the left edge. */
    public double xOfTick(long tick) {
        return (double) (tick - from) / ticks * width;
    }

    /** The tick at a place, in pixels from the left edge. */
    public long tickAt(double x) {
        return from + Math.round(x / width * ticks);
    }

    /** Returns the position of a time in nanoseconds of the session, in pixels from the left edge. */
    public double xOfNanos(long nanos) {
        return xOfTick(tempo.ticks(nanos));
    }

    /** The tick behind the last that is shown. */
    public long to() {
        return from + ticks;
    }

    /** Returns the bars between numbers on the ruler, so that they do not overlap. */
    public int barStep() {
        long bars = Math.max(1, tempo.place(to()).bar() - tempo.place(from).bar());
        int step = 1;
        while (width / bars * step < MIN_STEP) {
            step *= 2;
        }
        return step;
    }

    /** Goes through the bars that have a number on the ruler. */
    public void eachBar(LongConsumer bar) {
        int step = barStep();
        long first = (tempo.place(from).bar() - 1) / step * step + 1;
        for (long at = first; tempo.barStart(at) <= to(); at += step) {
            bar.accept(at);
        }
    }

    /** The ticks of another scale on this one's width. */
    public TimeScale within(long first, long count) {
        return new TimeScale(tempo, first, count, width);
    }

    /** Zooms around a position. Never shows more than the whole, nor less than a quarter note. */
    public TimeScale zoomed(double times, double x, TimeScale whole) {
        long shown = Math.max(CLOSEST, Math.min(whole.ticks, Math.round(ticks * times)));
        long at = tickAt(x);
        return within(at - Math.round(x / width * shown), shown).inside(whole);
    }

    /** Scrolls to later or earlier music, within the whole. */
    public TimeScale moved(long later, TimeScale whole) {
        return within(from + later, ticks).inside(whole);
    }

    private TimeScale inside(TimeScale whole) {
        return within(Math.max(0, Math.min(from, whole.ticks - ticks)), ticks);
    }
}
