package dibble.desktop.app;

import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import javafx.application.Platform;

/**
 * Watches the interface's thread: whatever Dibble does there at one go may take 100 ms of a processor at most. Counted is
 * the thread's own work, not what other processes of the machine do meanwhile; what the toolkit does by itself (styles,
 * layout) does not count, and neither does the start, whose measure is another.
 */
final class StallWatch {
    private static final long MOST = TimeUnit.MILLISECONDS.toNanos(100);
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
            if (own > MOST) {
                stalls.add(TimeUnit.NANOSECONDS.toMillis(own) + " ms in " + mostOften(seen));
            }
            LockSupport.parkNanos(LOOK_EVERY);
        }
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
