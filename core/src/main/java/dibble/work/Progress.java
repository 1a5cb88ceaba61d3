package dibble.work;

import java.util.concurrent.CancellationException;

/**
 * How far something long has come. Who does it says so now and then, and learns there whether it is still wanted; it
 * leaves everything as it was where it is not.
 */
@FunctionalInterface
public interface Progress {
    /** Nobody looks, and nobody cancels. */
    Progress NONE = share -> {};

    /**
     * Says how far it has come.
     *
     * @param share 0 to 1
     * @throws CancellationException where it is not wanted any more
     */
    void at(double share);

    /**
     * Announces the step after which the work has had an effect: from here on it can no longer be cancelled.
     *
     * @throws CancellationException where it was cancelled before
     */
    default void commit() {}

    /** The progress of a stretch of this: what comes to 1 there has come to {@code to} here. */
    default Progress within(double from, double to) {
        return new Progress() {
            @Override
            public void at(double share) {
                Progress.this.at(from + share * (to - from));
            }

            @Override
            public void commit() {
                Progress.this.commit();
            }
        };
    }
}
