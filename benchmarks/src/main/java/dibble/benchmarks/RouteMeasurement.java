package dibble.benchmarks;

import dibble.demo.LamplightersRound;
import dibble.files.SessionContent;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiSystem;

/**
 * {@code dibble route} on 1,000,000 events beside the JDK's reading and writing of the same file: each as a process of
 * its own, so that both pay for their start, which is measured too and taken off.
 *
 * <p>Needs {@code dibble.command}, the launcher; the {@code bench} command sets it.
 */
public final class RouteMeasurement {
    private static final int EVENTS = 1_000_000;
    private static final int ROUNDS = 7;

    private RouteMeasurement() {}

    /** Without arguments: measures. With {@code jdk IN OUT}: reads and writes by the JDK's own means. */
    public static void main(String[] args) throws Exception {
        if (args.length == 3) {
            readAndWrite(new File(args[1]), new File(args[2]));
            return;
        }
        Path folder = Files.createTempDirectory("route");
        Path session = folder.resolve("session.json");
        Path in = folder.resolve("in.mid");
        Path small = folder.resolve("small.mid");
        String out = folder.resolve("out.mid").toString();
        Files.write(session, SessionContent.json(LamplightersRound.session(), LamplightersRound.performance()));
        Files.write(in, MidiFileWriter.write(played(EVENTS)));
        Files.write(small, MidiFileWriter.write(played(10)));
        String dibble = System.getProperty("dibble.command");
        String java = ProcessHandle.current().info().command().orElse("java");
        List<String> jdk = List.of(
                java,
                "-Xmx448m",
                "-XX:+UseSerialGC",
                "-cp",
                System.getProperty("java.class.path"),
                RouteMeasurement.class.getName(),
                "jdk");
        double[] routes = new double[ROUNDS];
        double[] routeStarts = new double[ROUNDS];
        double[] jdks = new double[ROUNDS];
        double[] jdkStarts = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            routes[i] = run(List.of(dibble, "route", session.toString(), in.toString(), "-o", out));
            routeStarts[i] = run(List.of(dibble, "route", session.toString(), small.toString(), "-o", out));
            jdks[i] = run(with(jdk, in.toString(), out));
            jdkStarts[i] = run(with(jdk, small.toString(), out));
        }
        for (Path made : List.of(session, in, small, Path.of(out), folder)) {
            Files.delete(made);
        }
        double route = median(routes) - median(routeStarts);
        double plain = median(jdks) - median(jdkStarts);
        System.out.printf(
                "route %.2f s (start %.2f), JDK read and write %.2f s (start %.2f): beyond the start %.2f : %.2f = %.2f%n",
                median(routes), median(routeStarts), median(jdks), median(jdkStarts), route, plain, route / plain);
    }

    private static List<String> with(List<String> command, String... more) {
        return IntStream.range(0, command.size() + more.length)
                .mapToObj(i -> i < command.size() ? command.get(i) : more[i - command.size()])
                .toList();
    }

    private static double run(List<String> command) throws IOException, InterruptedException {
        long start = System.nanoTime();
        Process process = new ProcessBuilder(command).inheritIO().start();
        if (process.waitFor() != 0) {
            throw new IOException("failed: " + command);
        }
        return (System.nanoTime() - start) / 1e9;
    }

    private static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    private static void readAndWrite(File in, File out) throws IOException, InvalidMidiDataException {
        MidiSystem.write(MidiSystem.getSequence(in), 1, out);
    }

    /** Two keyboards, playing notes, wheels and pedals. */
    private static MidiFile played(int events) {
        Random random = new Random(1);
        List<MidiTrack> tracks =
                List.of(played("larkspur", 0, events / 2, random), played("tansy", 1, events / 2, random));
        return new MidiFile(1, 480, tracks);
    }

    private static MidiTrack played(String name, int channel, int events, Random random) {
        MidiTrack.Builder track = new MidiTrack.Builder().text(0, MidiTrack.META_TRACK_NAME, name);
        for (int i = 0; i < events; i++) {
            int key = 53 + random.nextInt(32);
            track.add(
                    i * 12L,
                    switch (random.nextInt(10)) {
                        case 0 -> ShortMessage.controller(channel, 1, random.nextInt(128));
                        case 1 -> ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, random.nextInt(128));
                        case 2, 3, 4, 5 -> ShortMessage.noteOff(channel, key, 64);
                        default -> ShortMessage.noteOn(channel, key, 1 + random.nextInt(127));
                    });
        }
        return track.build();
    }
}
