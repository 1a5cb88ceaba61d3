package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.files.Unfinished;
import dibble.midi.ShortMessage;
import dibble.recording.Take;
import dibble.recording.Track;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A recording whose process is killed at a random moment is offered, at most half a second short, with no note hanging.
 * {@code ./dibble bench kill} does it two hundred times.
 */
class KilledRecordingTest {
    private static final int TIMES = Integer.getInteger("dibble.kills", 3);
    private static final long SHORT = TimeUnit.MILLISECONDS.toNanos(500);

    @TempDir
    private Path folder;

    private long most;
    private long sum;

    @Test
    void whatWasRecordedIsOfferedAfterTheProcessWasKilled() throws Exception {
        Random random = new Random(9);
        for (int i = 0; i < TIMES; i++) {
            Path user = Files.createDirectory(folder.resolve("user-" + i));
            long recorded = killed(user, i, 50 + random.nextInt(2500));
            List<Unfinished> found = Unfinished.find(user);
            assertThat(found).as("kill " + i).hasSize(1);
            Unfinished.BroughtBack opened = found.get(0).open();
            List<Take> takes = opened.session().takes();
            if (takes.isEmpty()) {
                assertThat(recorded).as("kill " + i).isLessThan(SHORT);
                most = Math.max(most, recorded);
                continue;
            }
            Take take = takes.get(0);
            long missing = recorded - take.log().stamp(take.log().size() - 1);
            most = Math.max(most, missing);
            sum += missing;
            assertThat(missing).as("kill " + i).isLessThanOrEqualTo(SHORT);
            assertNothingHangs(take, opened);
        }
        System.out.printf(
                "%d recordings killed: %d ms short at most, %d ms on the average%n",
                TIMES, most / 1_000_000, sum / TIMES / 1_000_000);
    }

    private static void assertNothingHangs(Take take, Unfinished.BroughtBack opened) {
        Set<Integer> held = new HashSet<>();
        for (int i = 0; i < take.log().size(); i++) {
            int message = take.log().message(i);
            if (ShortMessage.startsNote(message)) {
                held.add(ShortMessage.data1(message));
            } else if (ShortMessage.endsNote(message)) {
                held.remove(ShortMessage.data1(message));
            }
        }
        assertThat(held).isEmpty();
        for (Track track : opened.session().tracks()) {
            Set<Integer> sounding = new HashSet<>();
            for (int i = 0; i < track.clip().size(); i++) {
                int message = track.clip().message(i);
                if (track.clip().isChannelMessage(i) && ShortMessage.startsNote(message)) {
                    sounding.add(message >> 8 & 0x7F);
                } else if (track.clip().isChannelMessage(i) && ShortMessage.endsNote(message)) {
                    sounding.remove(message >> 8 & 0x7F);
                }
            }
            assertThat(sounding).isEmpty();
        }
    }

    /** Starts a process that records, kills it when it has got somewhere, and says how far it had got. */
    private static long killed(Path user, int seed, int millis) throws IOException, InterruptedException {
        // Into a file: what it managed to say before it died counts too.
        Path said = user.resolveSibling("said-" + seed);
        Process process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx128m",
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")),
                        "dibble.studio.RecordingVictim",
                        user.toString(),
                        String.valueOf(seed))
                .redirectOutput(said.toFile())
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        long wanted = TimeUnit.MILLISECONDS.toNanos(millis);
        await().atMost(Duration.ofSeconds(60))
                .pollInterval(Duration.ofMillis(3))
                .until(() -> last(said) >= wanted || !process.isAlive());
        process.destroyForcibly();
        process.waitFor();
        return last(said);
    }

    /** The last number that it said whole. */
    private static long last(Path said) throws IOException {
        List<String> lines = Files.readString(said).lines().toList();
        boolean whole = Files.readString(said).endsWith("\n");
        for (int i = lines.size() - (whole ? 1 : 2); i >= 0; i--) {
            if (lines.get(i).matches("\\d+")) {
                return Long.parseLong(lines.get(i));
            }
        }
        return 0;
    }
}
