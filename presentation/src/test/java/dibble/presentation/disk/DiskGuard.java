package dibble.presentation.disk;

import dibble.testing.disk.WatchedProvider;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/** Records calls that may wait for a disk, made by the thread that plays the interface thread in a test. */
public final class DiskGuard {
    private static final List<String> CALLS = new CopyOnWriteArrayList<>();
    private static final ThreadLocal<Boolean> GUARDED = ThreadLocal.withInitial(() -> false);

    private DiskGuard() {}

    /** Returns whether the process runs with the guarded file system. */
    public static boolean isActive() {
        return WatchedProvider.isDefault(DiskGuard::disk);
    }

    /** Runs an action as the interface thread would. */
    public static void onInterfaceThread(Runnable action) {
        boolean was = GUARDED.get();
        GUARDED.set(true);
        try {
            action.run();
        } finally {
            GUARDED.set(was);
        }
    }

    private static void disk(Path path) {
        if (GUARDED.get()) {
            // Classes and texts are read when they are first used.
            boolean isOurs = StackWalker.getInstance()
                    .walk(frames ->
                            frames.noneMatch(frame -> frame.getClassName().startsWith("java.lang.ClassLoader")
                                    || frame.getClassName().startsWith("jdk.internal.loader")
                                    || frame.getClassName().startsWith("java.util.ResourceBundle")));
            if (isOurs) {
                String by = StackWalker.getInstance()
                        .walk(frames -> frames.map(StackWalker.StackFrame::toString)
                                .filter(frame -> frame.startsWith("dibble.")
                                        && !frame.startsWith("dibble.presentation.disk.")
                                        && !frame.startsWith("dibble.testing."))
                                .findFirst()
                                .orElse("?"));
                CALLS.add(path + " by " + by);
            }
        }
    }

    /** Returns the calls since this was asked last. */
    public static List<String> takeCalls() {
        List<String> calls = List.copyOf(CALLS);
        CALLS.clear();
        return calls;
    }
}
