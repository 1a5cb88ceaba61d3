package dibble.desktop.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Whole processes, from their start until their window has been seen and they have ended, in turns: Dibble with the demo,
 * and a JavaFX window with one label. Then what Dibble holds in memory when it has rested. No test: {@code ./dibble bench
 * start} runs it and prints what it measures.
 */
class StartMeasurement {
    private static final int RUNS = 7;
    private static final int RESTS_SECONDS = 90;

    @TempDir
    Path data;

    @Test
    void measure() throws Exception {
        Path root = Processes.root();
        String own = "-Ddibble.data=" + data;
        List<String> dibble = Processes.demo();
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        String classes = root.resolve("desktop/target/test-classes") + ":" + root.resolve("target/lib") + "/*";
        List<String> label = List.of(java, "-cp", classes, LabelWindow.Start.class.getName());
        List<Double> of = new ArrayList<>();
        List<Double> beside = new ArrayList<>();
        seconds(dibble, own + " -Ddibble.ends-when-shown=true");
        for (int i = 0; i < RUNS; i++) {
            of.add(seconds(dibble, own + " -Ddibble.ends-when-shown=true"));
            beside.add(seconds(label, ""));
        }
        System.out.printf(
                "demo shown: %.2f s in the median (%.2f to %.2f); a window with one label: %.2f (%.2f to %.2f); %.2f"
                        + " times%n",
                median(of),
                of.get(0),
                last(of),
                median(beside),
                beside.get(0),
                last(beside),
                median(of) / median(beside));
        System.out.println(memory(dibble, own));
    }

    private static double median(List<Double> seconds) {
        seconds.sort(Comparator.naturalOrder());
        return seconds.get(seconds.size() / 2);
    }

    private static double last(List<Double> seconds) {
        return seconds.get(seconds.size() - 1);
    }

    private static double seconds(List<String> command, String options) throws Exception {
        long from = System.nanoTime();
        int code = Processes.start(command, options).waitFor();
        if (code != 0) {
            throw new IOException(command + " ended with " + code);
        }
        return (System.nanoTime() - from) / 1e9;
    }

    /** Where the system tells: the resident memory of the process when nothing has played for a while. */
    private static String memory(List<String> command, String options) throws Exception {
        Process process = Processes.start(command, options + " -Ddibble.rests=KEYS");
        try {
            TimeUnit.SECONDS.sleep(RESTS_SECONDS);
            Path status = Processes.system(process, "status");
            return Files.readAllLines(status).stream()
                    .filter(line -> line.startsWith("VmRSS") || line.startsWith("VmHWM"))
                    .reduce("demo, " + RESTS_SECONDS + " s after its start:", (a, b) -> a + " " + b);
        } finally {
            Processes.end(process);
        }
    }
}
