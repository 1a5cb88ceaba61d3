package dibble.desktop.app;

import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import javafx.application.Platform;

/**
 * Watches the interface's thread: whatever Dibble does there at one go may take as much of a processor as {@value #MAX}
 * sortings of {@value #NUMBERS} numbers at most, which is a tenth of a second or two, each machine by its own measure and
 * at its speed of that moment. Counted is the thread's own work, not what other processes of the machine do meanwhile; what
 * the toolkit does by itself (styles, layout) does not count, and neither does the start, whose measure is another.
 */
final class StallWatch {
    private static final int MAX = 80;
    private static final int NUMBERS = 20_000;
    private static final int ROUNDS_UNTIL_COMPILED = 60;
    private static final int[] UNSORTED = new Random(7).ints(NUMBERS).toArray();
    private static final long LOOK_EVERY = TimeUnit.MILLISECONDS.toNanos(5);
    private static final long LATE = 4 * LOOK_EVERY;

    private final AtomicLong beats = new AtomicLong();
    private final List<String> stalls = new ArrayList<>();
    private final ThreadMXBean threads = ManagementFactory.getThreadMXBean();
    private Thread watched;
    private volatile boolean ends;
    private Thread watcher;

    /** On the interface's thread. */
    void begin() {
        watched = Thread.currentThread();
        watcher = new Thread(this::watch, "stall-watch");
        watcher.setDaemon(true);
        watcher.start();
    }

    /** What took too long, each with where it was most of the time; ends the watch. */
    List<String> end() {
        ends = true;
        if (watcher == null) {
            return stalls;
        }
        try {
            watcher.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return stalls;
    }

    private void watch() {
        long yardstick = yardstick(ROUNDS_UNTIL_COMPILED);
        while (!ends) {
            long beat = beats.get();
            Platform.runLater(beats::incrementAndGet);
            long began = threads.getThreadCpuTime(watched.getId());
            long own = 0;
            List<String> seen = new ArrayList<>();
            long before = began;
            long looked = System.nanoTime();
            while (!ends && beats.get() == beat) {
                LockSupport.parkNanos(LOOK_EVERY);
                long now = threads.getThreadCpuTime(watched.getId());
                String where = where(watched.getStackTrace());
                long at = System.nanoTime();
                // On a busy machine this thread may come late: then nobody knows what was done meanwhile.
                if (!where.isEmpty() && at - looked < LATE) {
                    own += now - before;
                    seen.add(where);
                }
                before = now;
                looked = at;
            }
            if (own > MAX * yardstick && own > MAX * Math.max(yardstick, yardstick(3))) {
                stalls.add(own / yardstick + " sortings (" + TimeUnit.NANOSECONDS.toMillis(own) + " ms) in "
                        + mostOften(seen));
            }
            LockSupport.parkNanos(LOOK_EVERY);
        }
    }

    /** What one sorting takes of a processor now, the last of some rounds. */
    private long yardstick(int rounds) {
        long took = 0;
        for (int i = 0; i < rounds; i++) {
            long before = threads.getCurrentThreadCpuTime();
            Arrays.sort(UNSORTED.clone());
            took = threads.getCurrentThreadCpuTime() - before;
        }
        return took;
    }

    private static String mostOften(List<String> seen) {
        return seen.stream()
                .max((a, b) -> Long.compare(count(seen, a), count(seen, b)))
                .orElse("");
    }

    private static long count(List<String> seen, String one) {
        return seen.stream().filter(one::equals).count();
    }

    /** The innermost methods of Dibble, outermost first; nothing where the toolkit is at work, or classes are loaded. */
    private static String where(StackTraceElement[] stack) {
        List<String> own = new ArrayList<>();
        for (StackTraceElement frame : stack) {
            String name = frame.getClassName();
            boolean isOwn = name.startsWith("dibble.") && !name.endsWith("Test") && !name.contains("WindowTest");
            if (isOwn && own.size() < 4) {
                own.add(0, name.substring(name.lastIndexOf('.') + 1) + "." + frame.getMethodName());
            } else if (own.isEmpty() && isToolkit(name + "." + frame.getMethodName())) {
                return "";
            }
        }
        return String.join(" > ", own);
    }

    private static boolean isToolkit(String method) {
        return Arrays.asList(
                        "javafx.scene.Scene.doCSSPass",
                        "javafx.scene.Scene.doLayoutPass",
                        "javafx.scene.Node.processCSS",
                        "javafx.scene.Node.applyCss",
                        "javafx.scene.Node.reapplyCss",
                        "javafx.scene.Node.reapplyCSS",
                        "javafx.scene.Parent.layout",
                        "javafx.application.Application.setUserAgentStylesheet",
                        "java.lang.ClassLoader.loadClass",
                        "java.lang.invoke.MethodHandleNatives.linkCallSite")
                .contains(method);
    }
}
