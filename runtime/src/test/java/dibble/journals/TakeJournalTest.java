package dibble.journals;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.files.TakeReader;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.testing.disk.HangingDisk;
import dibble.testing.disk.WatchedProvider;
import dibble.time.TempoMap;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.List;
import java.util.Queue;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Recordings whose disk is slow or does not answer. */
class TakeJournalTest {
    private static final TempoMap TEMPO = TempoMap.of(120);
    private static final List<String> SOURCES = List.of("larkspur");

    @TempDir
    private Path folder;

    private final Session demo = LamplightersRound.session();
    private final List<Take.Mark> marks = List.of(new Take.Mark(0, 0, demo.routing(Performance.NEW)));

    /** Records a take in pieces of random length. Returns its file. */
    private TakeJournal.TakeFile record(TakeJournal journal, EventStore log, int count, Random random) {
        journal.begin(TEMPO, 0);
        for (int i = 0; i < count; i++) {
            log.add(i * 1_000_000L, 0, ShortMessage.noteOn(0, random.nextInt(128), 80));
            if (random.nextInt(4) == 0) {
                journal.follow(log, SOURCES, marks);
            }
        }
        journal.follow(log, SOURCES, marks);
        return journal.end(count * 1_000_000L);
    }

    private static Take read(Path file) throws IOException {
        return TakeReader.readJournal("take-1", "Take 1", Files.readAllBytes(file), "recording-1.jsonl", TEMPO)
                .take();
    }

    private static void assertSame(EventStore actual, EventStore expected, int size) {
        assertThat(actual.size()).isEqualTo(size);
        for (int i = 0; i < size; i++) {
            assertThat(actual.stamp(i)).isEqualTo(expected.stamp(i));
            assertThat(actual.message(i)).isEqualTo(expected.message(i));
        }
    }

    private static void runAll(Queue<Runnable> tasks) {
        while (!tasks.isEmpty()) {
            tasks.remove().run();
        }
    }

    /** The test's thread is the recorder, so no call may wait for the disk. */
    @Test
    void recordsWholeTakesWhileTheDiskHangsAtAnyChange() throws IOException {
        boolean hung = true;
        for (int changes = 0; hung; changes++) {
            Random random = new Random(changes);
            HangingDisk disk = new HangingDisk();
            Path user = Files.createDirectories(folder.resolve("user-" + changes));
            try (SessionJournal journal = new SessionJournal(WatchedProvider.watched(user, disk))) {
                EventStore first = new EventStore();
                EventStore second = new EventStore();
                disk.hangAfter(changes);
                TakeJournal.TakeFile one = record(journal.takes(), first, random.nextInt(40), random);
                TakeJournal.TakeFile two = record(journal.takes(), second, random.nextInt(40), random);
                await().until(() -> disk.hangs() || two.isClosed());
                hung = disk.hangs();
                disk.release();
                journal.sync();
                assertThat(journal.trouble()).isNull();
                assertSame(read(one.path()).log(), first, first.size());
                assertSame(read(two.path()).log(), second, second.size());
                assertThat(read(two.path()).length()).isEqualTo(second.size() * 1_000_000L);
            }
            assertThat(changes).isLessThan(1_000);
        }
    }

    @Test
    void writesNothingAfterAGapWhenTooMuchWaits() throws IOException {
        Queue<Runnable> tasks = new ArrayDeque<>();
        TakeJournal journal = new TakeJournal(() -> folder, tasks::add, 40_000);
        EventStore log = new EventStore();
        Random random = new Random(1);
        journal.begin(TEMPO, 0);
        journal.follow(log, SOURCES, marks);
        log.add(0, 0, ShortMessage.noteOn(0, 60, 80));
        journal.follow(log, SOURCES, marks);
        runAll(tasks);
        assertThat(journal.trouble()).isNull();
        for (int i = 1; i < 5_000; i++) {
            log.add(i, 0, ShortMessage.noteOn(0, 60, 80));
            journal.follow(log, SOURCES, marks);
        }
        TakeJournal.TakeFile file = journal.end(5_000);
        runAll(tasks);
        assertThat(journal.trouble()).contains("did not answer").contains("goes on in memory");
        assertSame(read(file.path()).log(), log, 1);

        EventStore next = new EventStore();
        TakeJournal.TakeFile whole = record(journal, next, 20, random);
        runAll(tasks);
        assertThat(journal.trouble()).isNull();
        assertSame(read(whole.path()).log(), next, 20);
    }

    @Test
    void leavesNothingOfATakeThatCouldNotBeFormattedInTheNext() throws IOException {
        TakeJournal journal = new TakeJournal(() -> folder, Runnable::run);
        EventStore unknownSource = new EventStore();
        unknownSource.add(0, 7, ShortMessage.noteOn(0, 60, 80));
        List<Take.Mark> later =
                List.of(new Take.Mark(0, 123_456_789, marks.get(0).routing()));
        journal.begin(TEMPO, 0);
        assertThatThrownBy(() -> journal.follow(unknownSource, SOURCES, later))
                .isInstanceOf(IndexOutOfBoundsException.class);
        EventStore next = new EventStore();
        TakeJournal.TakeFile whole = record(journal, next, 20, new Random(1));
        assertThat(Files.readString(whole.path())).doesNotContain("123456789");
        assertSame(read(whole.path()).log(), next, 20);
    }
}
