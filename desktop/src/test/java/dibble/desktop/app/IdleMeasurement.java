package dibble.desktop.app;

import dibble.presentation.app.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The processor's work while nothing plays, in each view, of a process of its own under a display. No test:
 * {@code ./dibble bench idle} runs it and prints what it measures.
 */
class IdleMeasurement {
    private static final int SETTLES_SECONDS = 15;
    private static final int MEASURED_SECONDS = 20;

    @TempDir
    Path data;

    @Test
    void measure() throws Exception {
        for (Page page : Page.values()) {
            Process process = Processes.start(Processes.demo(), "-Ddibble.data=" + data + " -Ddibble.rests=" + page);
            try {
                TimeUnit.SECONDS.sleep(SETTLES_SECONDS);
                Path stat = Processes.system(process, "stat");
                long before = ticks(stat);
                TimeUnit.SECONDS.sleep(MEASURED_SECONDS);
                System.out.printf(
                        "%s: %.1f %% of a core%n", page.title(), (double) (ticks(stat) - before) / MEASURED_SECONDS);
            } finally {
                Processes.end(process);
            }
        }
    }

    /** The hundredths of a second that a process has used, its own and the system's. */
    private static long ticks(Path stat) throws IOException {
        String[] fields = Files.readString(stat).replaceFirst(".*\\) ", "").split(" ");
        return Long.parseLong(fields[11]) + Long.parseLong(fields[12]);
    }
}
