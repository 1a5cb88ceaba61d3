package dibble.work;

import java.util.concurrent.CancellationException;

/**
 * The progress of a long task. The task reports it repeatedly, and learns of a cancellation by an exception; it then
 * leaves everything unchanged.
 */
@FunctionalInterface
public interface Progress {
    /** No observer, and no cancellation. */
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

    /** Returns the progress of a part of this task: 1 there is {@code to} here. */
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
