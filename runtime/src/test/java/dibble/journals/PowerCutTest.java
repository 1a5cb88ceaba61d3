package dibble.journals;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.disk.FileStamp;
import dibble.disk.SessionFile;
import dibble.edits.TakeEdits;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.session.Kept;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.testing.disk.WatchedProvider;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * Cuts the power at random points while a user edits, records and saves; the disk may have lost any unforced write. Every remaining state opens, and has everything that was saved, journaled or forced.
 */
@Tag("slow")
class PowerCutTest {
    private static final int SEQUENCES = Integer.getInteger("dibble.cuts", 6);
    private static final int ACTIONS = 10;
    private static final int CUTS = 8;
    private static final String FILE = "evening.dibble";

    private Path root;

    @Test
    void whatIsLeftOpensWithAllThatWasPromised() throws IOException {
        Path memory = Path.of("/dev/shm");
        Path place = Files.isWritable(memory)
                ? Files.createTempDirectory(memory, "dibble-cuts")
                : Files.createTempDirectory("dibble-cuts");
        try {
            for (int seed = 0; seed < SEQUENCES; seed++) {
                root = Files.createDirectories(place.resolve("disk-" + seed));
                Random random = new Random(seed);
                try (Course course = new Course(root, random)) {
                    for (int i = 0; i < ACTIONS; i++) {
                        course.act();
                    }
                    for (int i = 0; i < CUTS; i++) {
                        Path left = place.resolve("left-" + seed + "-" + i);
                        int count = random.nextInt(course.log.size() + 1);
                        course.log.leave(count, root, left, random);
                        course.check(left, count, "seed " + seed + ", after " + count + " steps");
                        remove(left);
                    }
                }
                remove(root);
            }
        } finally {
            remove(place);
        }
    }

    private static void remove(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(path);
            }
        }
    }

    /** One user at one disk. Each session is known by the number in its name, each take by its first key. */
    private static final class Course implements AutoCloseable {
        final WriteLog log = new WriteLog();
        private final Random random;
        private final Path user;
        private final Path file;
        private final SessionJournal journal;
        private Session session = LamplightersRound.session().withName("0").withScenes(List.of());
        private int number;
        private int takes;

        /** Pairs of step count and session number: from that step on, the file or the journal has at least that session. */
        private final List<int[]> saved = new ArrayList<>();

        private final List<int[]> kept = new ArrayList<>();

        /** Triples of step count, take and event count: from that step on, the take has at least that many events. */
        private final List<int[]> recorded = new ArrayList<>();

        Course(Path root, Random random) {
            this.random = random;
            user = WatchedProvider.watched(root, log);
            file = user.resolve(FILE);
            journal = new SessionJournal(user);
        }

        void act() throws IOException {
            switch (random.nextInt(5)) {
                case 0, 1 -> change(session);
                case 2 -> sync();
                case 3 -> save();
                default -> record();
            }
        }

        private void change(Session next) {
            session = next.withName(String.valueOf(++number));
            journal.changed(Kept.of(session, Performance.NEW), file.toString(), FileStamp.NONE);
        }

        private void sync() {
            journal.sync();
            assertThat(journal.trouble()).isNull();
            if (number > 0) {
                kept.add(new int[] {log.size(), number});
            }
        }

        private void save() throws IOException {
            SessionFile.write(file, session, Performance.NEW);
            saved.add(new int[] {log.size(), number});
            journal.settled();
            journal.sync();
        }

        private void record() {
            int key = ++takes;
            EventStore events = new EventStore();
            TakeJournal recording = journal.takes();
            recording.begin(session.tempo(), 0);
            int count = 2 + random.nextInt(20);
            for (int i = 0; i < count; i++) {
                events.add(i * 1_000_000L, 0, ShortMessage.noteOn(0, i == 0 ? key : 60, 80));
                if (random.nextInt(4) == 0) {
                    recording.follow(events, List.of("larkspur"), List.of());
                }
            }
            recording.follow(events, List.of("larkspur"), List.of());
            TakeJournal.TakeFile written = recording.end(count * 1_000_000L);
            await().until(written::isClosed);
            assertThat(recording.trouble()).isNull();
            assertThat(log.isForced(written.path())).isTrue();
            recorded.add(new int[] {log.size(), key, count});
            if (random.nextInt(4) > 0) {
                Take take = new Take(
                        "take-" + key,
                        "Take",
                        List.of("larkspur"),
                        events,
                        List.of(new Take.Mark(0, 0, session.routing(Performance.NEW))),
                        session.tempo(),
                        count * 1_000_000L,
                        0);
                change(TakeEdits.keep(session, Performance.NEW, TakeEdits.closed(take)));
                journal.takes().kept(written);
            }
        }

        /** The last promise that was made by then. */
        private static int promised(List<int[]> promises, int count) {
            return promises.stream()
                    .filter(promise -> promise[0] <= count)
                    .mapToInt(promise -> promise[1])
                    .max()
                    .orElse(-1);
        }

        void check(Path left, int count, String as) throws IOException {
            int inFile = promised(saved, count);
            int onDisk = -1;
            Map<Integer, Integer> events = new HashMap<>();
            if (inFile >= 0 || Files.exists(left.resolve(FILE))) {
                Session opened = SessionFile.read(left.resolve(FILE)).session();
                onDisk = Integer.parseInt(opened.name());
                assertThat(onDisk).as("saved, " + as).isGreaterThanOrEqualTo(inFile);
                count(opened, events);
            }
            for (RecoverableWork unfinished : RecoverableWork.find(left)) {
                Session recovered = unfinished.open().session();
                if (recovered.name().matches("\\d+")) {
                    onDisk = Math.max(onDisk, Integer.parseInt(recovered.name()));
                }
                count(recovered, events);
            }
            assertThat(onDisk).as("kept, " + as).isGreaterThanOrEqualTo(promised(kept, count));
            for (int[] promise : recorded) {
                if (promise[0] <= count) {
                    assertThat(events.getOrDefault(promise[1], 0))
                            .as("events of take " + promise[1] + ", " + as)
                            .isGreaterThanOrEqualTo(promise[2]);
                }
            }
        }

        private static void count(Session session, Map<Integer, Integer> events) {
            for (Take take : session.takes()) {
                EventStore log = take.log();
                int ons = 0;
                for (int i = 0; i < log.size(); i++) {
                    ons += ShortMessage.startsNote(log.message(i)) ? 1 : 0;
                }
                events.merge(ShortMessage.data1(log.message(0)), ons, Math::max);
            }
        }

        @Override
        public void close() {
            journal.close();
        }
    }
}
