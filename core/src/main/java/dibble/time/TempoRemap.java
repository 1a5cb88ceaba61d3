package dibble.time;

import java.util.List;

/**
 * A change of the tempo map under the same music: each tick becomes the tick of the new map at the same time.
 *
 * @param from the map before; its meters are not kept
 * @param to the map after; its meters are not kept
 */
public record TempoRemap(TempoMap from, TempoMap to) {
    private static final List<TempoMap.Meter> NO_METERS = List.of(new TempoMap.Meter(0, 4, 4));

    public TempoRemap {
        from = new TempoMap(from.tempos(), NO_METERS);
        to = new TempoMap(to.tempos(), NO_METERS);
    }

    /** Returns the new place of a tick. Rises with it; rounded once. */
    public long tick(long before) {
        return to.ticks(from.nanos(before));
    }

    /** Returns true if this one leads back to where another one began. */
    public boolean undoes(TempoRemap other) {
        return from.equals(other.to) && to.equals(other.from);
    }
}
