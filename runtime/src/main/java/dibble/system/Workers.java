package dibble.system;

import java.util.concurrent.Executor;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * The threads for work in the background, by kind, so that no kind waits for another. Their number is bounded; they are
 * daemons, and end when there is nothing to do.
 *
 * @param computing for what only needs a processor
 * @param files for reading and writing files
 * @param disk for forced writes to disk, one at a time
 * @param jobs for long work that a user sees; more than one, since a cancelled job may take a while to notice
 */
public record Workers(Executor computing, Executor files, Executor disk, Executor jobs) {
    private static final int MAX_FILES = 4;
    private static final int MAX_JOBS = 8;
    private static final long KEEP_SECONDS = 10;
    private static final Workers SHARED = new Workers(
            pool("dibble-work", Math.max(2, Runtime.getRuntime().availableProcessors() - 1)),
            pool("dibble-files", MAX_FILES),
            pool("dibble-disk", 1),
            pool("dibble-jobs", MAX_JOBS));

    /** Returns the workers of the application. */
    public static Workers shared() {
        return SHARED;
    }

    private static Executor pool(String name, int threads) {
        AtomicInteger number = new AtomicInteger();
        ThreadPoolExecutor pool = new ThreadPoolExecutor(
                threads, threads, KEEP_SECONDS, TimeUnit.SECONDS, new LinkedBlockingQueue<>(), task -> {
                    Thread thread = new Thread(task, name + "-" + number.incrementAndGet());
                    thread.setDaemon(true);
                    return thread;
                });
        pool.allowCoreThreadTimeOut(true);
        return pool;
    }
}
