package dibble.journals;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.disk.AtomicFile;
import dibble.disk.FileStamp;
import dibble.disk.SessionFile;
import dibble.session.Kept;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.testing.disk.FailingDisk;
import dibble.testing.disk.HangingDisk;
import dibble.testing.disk.WatchedProvider;
import dibble.time.HandClock;
import dibble.user.Settings;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Saving on a full or failing disk loses nothing that was saved before, and reports the fault in one line. */
class FaultyDiskTest {
    private static final String FULL = "No space left on device";

    @TempDir
    private Path folder;

    private final FailingDisk faults = new FailingDisk(FULL);
    private final Session demo = LamplightersRound.session();

    private Path watched(String name) {
        return WatchedProvider.watched(folder, faults).resolve(name);
    }

    private List<String> names() throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString()).sorted().toList();
        }
    }

    /** Whichever change is the first that fails, alone or with all after it. */
    @Test
    void aFileThatCannotBeReplacedIsAsItWas() throws IOException {
        Path file = watched("evening.dibble");
        for (int howMany : new int[] {1, Integer.MAX_VALUE}) {
            boolean failed = true;
            for (int after = 0; failed; after++) {
                faults.fail(Integer.MAX_VALUE, 0);
                SessionFile.write(file, demo.withName("old"), Performance.NEW);
                faults.fail(after, howMany);
                failed = fails(() -> SessionFile.write(file, demo.withName("new"), Performance.NEW));
                String there = SessionFile.read(folder.resolve("evening.dibble"))
                        .session()
                        .name();
                assertThat(there).isEqualTo(failed ? "old" : "new");
                assertThat(names()).containsExactly("evening.dibble");
            }
        }
    }

    @Test
    void settingsThatCannotBeWrittenAreAsTheyWere() throws IOException {
        boolean failed = true;
        for (int after = 0; failed; after++) {
            faults.fail(Integer.MAX_VALUE, 0);
            Settings.PLAIN.write(watched("user"));
            faults.fail(after, Integer.MAX_VALUE);
            Settings changed = Settings.PLAIN.withHidden("a", true);
            failed = fails(() -> changed.write(watched("user")));
            assertThat(Settings.read(folder.resolve("user"))).isEqualTo(failed ? Settings.PLAIN : changed);
        }
    }

    private interface Writing {
        void run() throws IOException;
    }

    private static boolean fails(Writing writing) {
        try {
            writing.run();
            return false;
        } catch (IOException e) {
            assertThat(e).hasMessage(FULL);
            return true;
        }
    }

    @Test
    void shortWritesAreGoneOnWith() throws IOException {
        byte[] bytes = new byte[5000];
        for (int i = 0; i < bytes.length; i++) {
            bytes[i] = (byte) i;
        }
        for (int most : new int[] {1, 7, 4096}) {
            faults.writeAtMost(most);
            AtomicFile.write(watched("file"), bytes);
            assertThat(folder.resolve("file")).hasBinaryContent(bytes);
        }
    }

    @Test
    void theJournalSaysWhatIsWrongAndWhenItIsOver() throws IOException {
        boolean failed = true;
        int after = 0;
        while (failed) {
            faults.fail(Integer.MAX_VALUE, 0);
            Path user = watched("user-" + after);
            try (SessionJournal journal = new SessionJournal(user)) {
                journal.changed(Kept.of(demo.withName("first"), Performance.NEW), null, FileStamp.NONE);
                journal.sync();
                faults.fail(after, Integer.MAX_VALUE);
                journal.changed(Kept.of(demo.withName("second"), Performance.NEW), null, FileStamp.NONE);
                journal.sync();
                failed = journal.trouble() != null;
                if (failed) {
                    assertThat(journal.trouble()).contains(FULL);
                    assertThat(journal.trouble().lines()).hasSize(1);
                }
                assertThat(kept(user)).isEqualTo(failed ? "first" : "second");
                faults.fail(Integer.MAX_VALUE, 0);
                journal.changed(Kept.of(demo.withName("third"), Performance.NEW), null, FileStamp.NONE);
                journal.sync();
                assertThat(journal.trouble()).isNull();
                assertThat(kept(user)).isEqualTo("third");
            }
            after++;
        }
        assertThat(after).isGreaterThan(2);
    }

    @Test
    void aDiskThatHangsIsSaidUntilItAnswers() throws IOException {
        HandClock clock = new HandClock();
        HangingDisk disk = new HangingDisk();
        Path user = WatchedProvider.watched(folder, disk).resolve("user");
        try (SessionJournal journal = new SessionJournal(user, clock)) {
            disk.hangAfter(3);
            journal.changed(Kept.of(demo.withName("first"), Performance.NEW), null, FileStamp.NONE);
            await().until(disk::hangs);
            assertThat(journal.trouble()).isNull();
            clock.advance(4_000_000_000L);
            assertThat(journal.trouble()).contains("does not answer");
            journal.changed(Kept.of(demo.withName("second"), Performance.NEW), null, FileStamp.NONE);
            disk.release();
            journal.sync();
            assertThat(journal.trouble()).isNull();
            assertThat(kept(user)).isEqualTo("second");
        }
    }

    /** Returns the name of the session in the only journal, which is in use. */
    private static String kept(Path user) throws IOException {
        try (Stream<Path> files = Files.walk(user)) {
            Path session = files.filter(file -> file.endsWith(SessionJournal.SESSION))
                    .findFirst()
                    .orElseThrow();
            return dibble.files.SessionReader.parse(Files.readAllBytes(session), SessionJournal.SESSION)
                    .path("name")
                    .asText();
        }
    }
}
