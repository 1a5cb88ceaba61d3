package dibble.desktop.app;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryUsage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.management.JMException;
import javax.management.ObjectName;

/** Samples the resources of this process, writes them as CSV and as a plot, and checks their trends. */
final class SoakSamples {
    private static final double MEGABYTE = 1e6;
    private static final int WIDTH = 900;
    private static final int HEIGHT = 150;
    private static final int LEFT = 70;
    private static final int TOP = 26;
    private static final int GAP = 18;
    private static final int COLLECTIONS = 3;

    /**
     * One sample.
     *
     * @param minute since the start
     * @param heap megabytes in use after a collection
     * @param machine megabytes of classes and compiled code
     * @param rest megabytes of resident memory of the process's own that are neither of these
     * @param median of the latencies since the last sample, in microseconds
     * @param p99 99 % of the latencies were less
     * @param events sent since the last sample
     * @param violations so far
     */
    record Sample(
            double minute,
            double heap,
            double machine,
            double rest,
            int threads,
            int files,
            double median,
            double p99,
            double longest,
            long events,
            int violations) {
        String row() {
            return String.format(
                    Locale.ROOT,
                    "%.2f,%.2f,%.1f,%.1f,%d,%d,%.0f,%.0f,%.0f,%d,%d",
                    minute,
                    heap,
                    machine,
                    rest,
                    threads,
                    files,
                    median,
                    p99,
                    longest,
                    events,
                    violations);
        }
    }

    /**
     * A column that must not rise.
     *
     * @param share the allowed rise over the second half, as a share of the median
     */
    private record Column(String name, double share, ToDoubleFunction<Sample> value) {}

    private static final String HEADER =
            "minute,heap_mb,machine_mb,rest_mb,threads,files,latency_median_us,latency_p99_us,latency_max_us,events,violations";

    private static final List<Column> COLUMNS = List.of(
            new Column("heap after collection, MB", 0.02, Sample::heap),
            new Column("classes and compiled code, MB", 0.05, Sample::machine),
            new Column("other memory, MB", 0.03, Sample::rest),
            new Column("threads", 0, Sample::threads),
            new Column("open files", 0, Sample::files),
            new Column("latency, 99 %, µs", 0.25, Sample::p99));

    private final List<Sample> samples = new ArrayList<>();
    private final Path folder;
    private boolean hasBaseline;

    SoakSamples(Path folder) throws IOException {
        this.folder = Files.createDirectories(folder);
    }

    /** Measures the process, and writes all samples so far. */
    void take(double minute, SoakWire wire, int violations) throws IOException {
        // The toolkit frees its pictures in frames after they have been collected.
        for (int i = 0; i < COLLECTIONS; i++) {
            System.gc();
            Hand.settle();
        }
        MemoryUsage heap = ManagementFactory.getMemoryMXBean().getHeapMemoryUsage();
        long machine =
                ManagementFactory.getMemoryMXBean().getNonHeapMemoryUsage().getCommitted();
        long events = wire.takeCount();
        samples.add(new Sample(
                minute,
                heap.getUsed() / MEGABYTE,
                machine / MEGABYTE,
                Math.max(0, resident() - heap.getCommitted() - machine) / MEGABYTE,
                ManagementFactory.getThreadMXBean().getThreadCount(),
                openFiles(),
                wire.latency(0.5),
                wire.latency(0.99),
                wire.latency(1),
                events,
                violations));
        wire.forgetLatencies();
        write();
    }

    /** Writes which parts of the Java machine grew since the first call. */
    void explain() throws IOException {
        if (hasBaseline) {
            Files.writeString(folder.resolve("memory.txt"), nativeMemory("summary.diff"));
        } else {
            nativeMemory("baseline");
            hasBaseline = true;
        }
    }

    private static String nativeMemory(String option) {
        try {
            return ManagementFactory.getPlatformMBeanServer()
                    .invoke(
                            new ObjectName("com.sun.management:type=DiagnosticCommand"),
                            "vmNativeMemory",
                            new Object[] {new String[] {option}},
                            new String[] {String[].class.getName()})
                    .toString();
        } catch (JMException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Without what it shares with others, such as the memory of a server of ports. */
    private static long resident() throws IOException {
        try (Stream<String> lines = Files.lines(Path.of("/proc/self/status"))) {
            return lines.filter(line -> line.startsWith("RssAnon:"))
                    .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) * 1024)
                    .findFirst()
                    .orElse(0);
        }
    }

    private static int openFiles() throws IOException {
        try (Stream<Path> files = Files.list(Path.of("/proc/self/fd"))) {
            return (int) files.count();
        }
    }

    private void write() throws IOException {
        List<String> lines = new ArrayList<>(List.of(HEADER));
        samples.forEach(sample -> lines.add(sample.row()));
        Files.write(folder.resolve("soak.csv"), lines);
        Files.writeString(folder.resolve("soak.svg"), plot());
    }

    /** Returns the columns that rise, with their trends. */
    List<String> rising() {
        return COLUMNS.stream()
                .filter(column -> trend(column).rises(column.share))
                .map(column -> column.name + ": " + trend(column))
                .toList();
    }

    private Trend trend(Column column) {
        return Trend.ofSecondHalf(samples.stream().mapToDouble(column.value).toArray());
    }

    private String plot() {
        StringBuilder svg = new StringBuilder("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%d\" height=\"%d\" "
                .formatted(WIDTH, COLUMNS.size() * (HEIGHT + GAP) + TOP));
        svg.append(
                "font-family=\"sans-serif\" font-size=\"12\">\n<rect width=\"100%\" height=\"100%\" fill=\"#fff\"/>\n");
        for (int i = 0; i < COLUMNS.size(); i++) {
            panel(svg, COLUMNS.get(i), i * (HEIGHT + GAP));
        }
        double last = samples.get(samples.size() - 1).minute;
        svg.append(text(LEFT, COLUMNS.size() * (HEIGHT + GAP) + 14, "0"));
        svg.append(text(WIDTH - 90, COLUMNS.size() * (HEIGHT + GAP) + 14, "%.0f minutes".formatted(last)));
        return svg.append("</svg>\n").toString();
    }

    /** One column over time, from zero, with the trend of its second half. */
    private void panel(StringBuilder svg, Column column, int top) {
        double highest = samples.stream().mapToDouble(column.value).max().orElse(1) * 1.05;
        double scale = highest == 0 ? 0 : (HEIGHT - TOP) / highest;
        double last = Math.max(1e-9, samples.get(samples.size() - 1).minute);
        int foot = top + HEIGHT;
        Trend trend = trend(column);
        svg.append(text(
                LEFT, top + 18, String.format(Locale.ROOT, "%s: trend %+.4f a sample", column.name, trend.slope())));
        svg.append(text(4, top + TOP + 10, String.format(Locale.ROOT, "%.1f", highest)));
        svg.append(text(4, foot, "0"));
        svg.append("<path d=\"M%d %dV%dH%d\" fill=\"none\" stroke=\"#999\"/>\n"
                .formatted(LEFT, top + TOP, foot, WIDTH - 10));
        String points = samples.stream()
                .map(sample -> String.format(
                        Locale.ROOT,
                        "%.1f,%.1f",
                        LEFT + sample.minute / last * (WIDTH - 10 - LEFT),
                        foot - column.value.applyAsDouble(sample) * scale))
                .collect(Collectors.joining(" "));
        svg.append(
                "<polyline points=\"%s\" fill=\"none\" stroke=\"#2a5d84\" stroke-width=\"1.5\"/>\n".formatted(points));
    }

    private static String text(int x, int y, String words) {
        return "<text x=\"%d\" y=\"%d\">%s</text>%n".formatted(x, y, words);
    }
}
