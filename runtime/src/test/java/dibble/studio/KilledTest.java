package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.files.SessionContent;
import dibble.journals.RecoverableWork;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Processes that are killed at random moments. A recording keeps every note that was written, also in a loop; a saved
 * file is the old one or the new one; edits and undo are recovered as they were at some moment since the last write.
 * {@code ./dibble bench kill} kills two hundred processes and also checks that a recording loses at most half a second.
 */
@Tag("slow")
class KilledTest {
    private static final boolean MEASURES = System.getProperty("dibble.kills") != null;
    private static final int TIMES = Integer.getInteger("dibble.kills", 4);
    private static final int LATEST_KILL_MILLIS = MEASURES ? 2500 : 300;
    /** A line of a take with a note-on. */
    private static final Pattern NOTE_ON = Pattern.compile("\"m\":\\s*\\[\\s*1(4[4-9]|5\\d),");

    private static final long SHORT = TimeUnit.MILLISECONDS.toNanos(500);
    private static final String[] WORK = {"record", "loop", "save", "undo"};

    @TempDir
    private Path folder;

    private long most;

    /** What a process said last before it died: how far it was, and how many notes there were then. */
    private record Said(List<long[]> lines) {
        long last() {
            return lines.isEmpty() ? 0 : lines.get(lines.size() - 1)[0];
        }

        /** How many notes there were so long before. */
        long notesBefore(long nanos) {
            return lines.stream()
                    .filter(line -> line[0] <= last() - nanos)
                    .mapToLong(line -> line[1])
                    .max()
                    .orElse(0);
        }
    }

    @Test
    void whatWasDoneIsThereAfterTheProcessWasKilled() throws Exception {
        Random random = new Random(9);
        for (int i = 0; i < TIMES; i++) {
            String work = WORK[i % WORK.length];
            Path user = Files.createDirectory(folder.resolve("user-" + i));
            Said said = killed(work, user, i, 50 + random.nextInt(LATEST_KILL_MILLIS));
            String what = work + ", kill " + i;
            switch (work) {
                case "save" -> assertSaved(user, said, what);
                case "undo" -> assertUndone(user, said, i, what);
                default -> assertRecorded(user, said, what);
            }
        }
        if (MEASURES) {
            System.out.printf(
                    "%d processes killed while they recorded, looped, saved, undid: recordings %d ms short at most%n",
                    TIMES, most / 1_000_000);
        }
    }

    /** Asked to end, it takes what it has begun to write with it. */
    @Test
    void whatWasBeingSavedIsGoneAfterTheProcessWasAskedToEnd() throws Exception {
        Path user = Files.createDirectory(folder.resolve("asked"));
        Path said = folder.resolve("said");
        Process process = victim("save", user, 1, said);
        await().atMost(Duration.ofSeconds(60)).until(() -> said(said).last() > 1 || !process.isAlive());
        process.destroy();
        process.waitFor();
        try (Stream<Path> files = Files.list(user)) {
            assertThat(files).containsExactly(user.resolve("round.dibble"));
        }
        SessionFile.read(user.resolve("round.dibble"));
    }

    private static RecoverableWork.RecoveredWork broughtBack(Path user, String what) throws IOException {
        List<RecoverableWork> found = RecoverableWork.find(user);
        assertThat(found).as(what).hasSize(1);
        RecoverableWork.RecoveredWork back = found.get(0).open();
        assertThat(back.losses()).as(what).isEmpty();
        return back;
    }

    private void assertRecorded(Path user, Said said, String what) throws IOException {
        long written = notesWritten(user);
        Session session = broughtBack(user, what).session();
        long notes = session.takes().stream().mapToLong(Take::noteCount).sum();
        assertThat(notes).as(what).isGreaterThanOrEqualTo(written);
        if (MEASURES) {
            assertThat(notes).as(what).isGreaterThanOrEqualTo(said.notesBefore(SHORT));
            long missing = 0;
            while (missing < SHORT && notes < said.notesBefore(missing)) {
                missing += 1_000_000;
            }
            most = Math.max(most, missing);
        }
        for (Take take : session.takes()) {
            assertNothingHangs(take);
        }
        for (Track track : session.tracks()) {
            assertNothingHangs(track.sounding());
        }
    }

    /** Counts the notes in whole lines of the recordings that the process left on the disk. */
    private static long notesWritten(Path user) throws IOException {
        long notes = 0;
        try (Stream<Path> files = Files.walk(user)) {
            for (Path file : files.filter(path -> path.getFileName().toString().matches("recording-\\d+\\.jsonl"))
                    .toList()) {
                String text = Files.readString(file);
                notes += text.substring(0, text.lastIndexOf('\n') + 1)
                        .lines()
                        .filter(line -> NOTE_ON.matcher(line).find())
                        .count();
            }
        }
        return notes;
    }

    private static void assertNothingHangs(Take take) {
        Set<Integer> held = new HashSet<>();
        for (int i = 0; i < take.log().size(); i++) {
            hold(held, take.log().message(i));
        }
        assertThat(held).isEmpty();
    }

    private static void assertNothingHangs(MidiTrack clip) {
        Set<Integer> held = new HashSet<>();
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isChannelMessage(i)) {
                hold(held, clip.message(i));
            }
        }
        assertThat(held).isEmpty();
    }

    private static void hold(Set<Integer> held, int message) {
        if (ShortMessage.startsNote(message)) {
            held.add(ShortMessage.channel(message) << 7 | ShortMessage.data1(message));
        } else if (ShortMessage.endsNote(message)) {
            held.remove(ShortMessage.channel(message) << 7 | ShortMessage.data1(message));
        }
    }

    private static void assertSaved(Path user, Said said, String what) throws IOException {
        Path file = user.resolve("round.dibble");
        if (said.lines.isEmpty()) {
            return;
        }
        SessionContent opened = SessionFile.read(file);
        assertThat(List.of("n" + said.last(), "n" + (said.last() + 1)))
                .as(what)
                .contains(opened.session().name());
        assertThat(opened.session().takes()).as(what).hasSize(2);
        // What was being written goes with the next save.
        SessionFile.write(file, opened.session(), opened.performance());
        try (Stream<Path> files = Files.list(user)) {
            assertThat(files).as(what).containsExactly(file);
        }
    }

    /** It is one of the sessions that were on the desk since the last one that was known to be written. */
    private static void assertUndone(Path user, Said said, long seed, String what) throws IOException {
        if (said.lines.isEmpty()) {
            return;
        }
        Session back = broughtBack(user, what).session();
        Document document = new Document(LamplightersRound.session(), Performance.NEW);
        Random random = new Random(seed);
        for (int number = 1; number <= said.last() + 2_000; number++) {
            Victim.step(document, random, number);
            if (number >= said.last() && isSame(document.session(), back)) {
                return;
            }
            // The victim draws once more, for whether it waits.
            random.nextInt(3);
        }
        throw new AssertionError(
                what + ": " + back.name() + " with " + back.takes().size() + " takes was never there");
    }

    private static boolean isSame(Session one, Session other) {
        return one.withTakes(List.of()).equals(other.withTakes(List.of()))
                && one.takes().stream()
                        .map(Take::id)
                        .toList()
                        .equals(other.takes().stream().map(Take::id).toList());
    }

    /** Starts a process that works, kills it when it has got somewhere, and says how far it had got. */
    private static Said killed(String work, Path user, int seed, int millis) throws IOException, InterruptedException {
        Path file = user.resolveSibling("said-" + seed);
        Process process = victim(work, user, seed, file);
        await().atMost(Duration.ofSeconds(60))
                .pollInterval(Duration.ofMillis(3))
                .until(() -> !said(file).lines.isEmpty() || !process.isAlive());
        long dies = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(millis);
        await().atMost(Duration.ofSeconds(60))
                .pollInterval(Duration.ofMillis(3))
                .until(() -> System.nanoTime() > dies || !process.isAlive());
        process.destroyForcibly();
        process.waitFor();
        return said(file);
    }

    /** @param said a file: what it managed to say before it died counts too */
    private static Process victim(String work, Path user, int seed, Path said) throws IOException {
        return new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx128m",
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")),
                        Victim.class.getName(),
                        work,
                        user.toString(),
                        String.valueOf(seed))
                .redirectOutput(said.toFile())
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
    }

    /** What it said in whole lines. */
    private static Said said(Path file) throws IOException {
        String text = Files.readString(file);
        return new Said(text.substring(0, text.lastIndexOf('\n') + 1)
                .lines()
                .filter(line -> line.matches("\\d+ \\d+"))
                .map(line -> new long[] {
                    Long.parseLong(line.substring(0, line.indexOf(' '))),
                    Long.parseLong(line.substring(line.indexOf(' ') + 1))
                })
                .toList());
    }
}
