package dibble.journals;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.demo.LamplightersRound;
import dibble.disk.EditedTracksTest;
import dibble.disk.FileStamp;
import dibble.edits.TakeEdits;
import dibble.files.SessionContent;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.session.Document;
import dibble.session.Kept;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.UnknownEntries;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whatever was done before the end came is there afterwards, and what cannot be is said and kept. */
class RecoverableWorkTest {
    private static final Session DEMO = LamplightersRound.session();

    @TempDir
    private Path user;

    private static Take take(Session session, long seed) {
        Random random = new Random(seed);
        EventStore log = new EventStore();
        for (int i = 0; i < 20; i++) {
            log.add(i * 50_000_000L, 0, ShortMessage.noteOn(0, 40 + random.nextInt(40), 1 + random.nextInt(127)));
        }
        return TakeEdits.closed(new Take(
                TakeEdits.freshTakeId(session),
                "Take",
                List.of("larkspur"),
                log,
                List.of(new Take.Mark(0, 0, session.routing(Performance.NEW))),
                session.tempo(),
                1_000_000_000L,
                0));
    }

    private static Session recorded(Session session, long seed) {
        return TakeEdits.keep(session, Performance.NEW, take(session, seed));
    }

    /** What a run that is ended now leaves: a copy of its folder, which nobody has in use. */
    private static Path leftBehind(Path user, Path other) throws IOException {
        Path from = user.resolve("unfinished");
        try (Stream<Path> files = Files.walk(from)) {
            for (Path path : (Iterable<Path>) files::iterator) {
                Path to = other.resolve("unfinished")
                        .resolve(from.relativize(path).toString());
                if (Files.isDirectory(path)) {
                    Files.createDirectories(to);
                } else {
                    Files.copy(path, to, StandardCopyOption.REPLACE_EXISTING);
                }
            }
        }
        return other;
    }

    private RecoverableWork.RecoveredWork broughtBack() throws IOException {
        List<RecoverableWork> found = RecoverableWork.find(leftBehind(user, Files.createTempDirectory(user, "other")));
        assertThat(found).hasSize(1);
        return found.get(0).open();
    }

    private static void assertSame(Session back, Session session) {
        assertThat(back.tracks()).isEqualTo(session.tracks());
        assertThat(back.zones()).isEqualTo(session.zones());
        assertThat(back.name()).isEqualTo(session.name());
        assertThat(back.foreign()).isEqualTo(session.foreign());
        assertThat(back.takes()).hasSameSizeAs(session.takes());
        for (int i = 0; i < back.takes().size(); i++) {
            assertThat(events(back.takes().get(i)))
                    .isEqualTo(events(session.takes().get(i)));
        }
    }

    private static List<String> events(Take take) {
        List<String> events = new ArrayList<>(List.of(take.id()));
        for (int i = 0; i < take.log().size(); i++) {
            events.add(take.log().stamp(i) + " " + take.log().message(i));
        }
        return events;
    }

    @Test
    void ofATakeThatWasUndoneAndRecordedAgainTheSecondComesBack() throws IOException {
        try (SessionJournal journal = new SessionJournal(user)) {
            journal.changed(Kept.of(recorded(DEMO, 1), Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            journal.changed(Kept.of(DEMO, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            Session second = recorded(DEMO, 2);
            journal.changed(Kept.of(second, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            assertSame(broughtBack().session(), second);
        }
    }

    /** Tracks with their mutes and origins, after a crash between any two edits. */
    @Test
    void editedTracksComeBackAsTheyWere() throws IOException {
        for (int seed = 0; seed < 25; seed++) {
            Random random = new Random(seed);
            Path folder = Files.createDirectory(user.resolve("edited-" + seed));
            Session session = EditedTracksTest.session(random);
            try (SessionJournal journal = new SessionJournal(folder)) {
                for (int i = 0; i < 6; i++) {
                    session = EditedTracksTest.edited(random, session);
                    journal.changed(Kept.of(session, Performance.NEW), null, FileStamp.NONE);
                    journal.sync();
                }
                Path left = leftBehind(folder, Files.createDirectory(folder.resolve("other")));
                assertThat(RecoverableWork.find(left).get(0).open().session().tracks())
                        .as("seed " + seed)
                        .isEqualTo(session.tracks());
            }
        }
    }

    @Test
    void whatAFailedWriteLeftOutTheNextOneWrites() throws IOException {
        try (SessionJournal journal = new SessionJournal(user)) {
            journal.changed(Kept.of(DEMO, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            Path folder;
            try (Stream<Path> folders = Files.list(user.resolve("unfinished"))) {
                folder = folders.findFirst().orElseThrow();
            }
            // The folder of takes cannot be made: a file has its name.
            RecoverableWork.delete(folder.resolve("takes"));
            Files.createFile(folder.resolve("takes"));
            Session edited = recorded(DEMO, 1);
            journal.changed(Kept.of(edited, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            assertThat(journal.trouble()).contains("cannot be kept");
            Files.delete(folder.resolve("takes"));
            journal.sync();
            assertThat(journal.trouble()).isNull();
            assertSame(broughtBack().session(), edited);
        }
    }

    @Test
    void twoRecordingsOfOneLengthAreTwo() throws IOException {
        Session session = recorded(DEMO, 1);
        try (SessionJournal journal = new SessionJournal(user)) {
            journal.changed(Kept.of(session, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            Take again = session.takes().get(0);
            journal.takes().begin(again.tempo(), again.start());
            journal.takes().follow(again.log(), again.sources(), again.marks());
            journal.takes().end(again.length());
            journal.sync();
            assertThat(broughtBack().session().takes()).hasSize(2);
        }
    }

    /** The end came after the session was written, and before its recording was deleted. */
    @Test
    void aRecordingThatTheSessionHasIsNotOfferedTwice() throws IOException {
        try (SessionJournal journal = new SessionJournal(user)) {
            journal.changed(Kept.of(DEMO, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            Take take = take(DEMO, 1);
            journal.takes().begin(take.tempo(), take.start());
            journal.takes().follow(take.log(), take.sources(), take.marks());
            TakeJournal.TakeFile recording = journal.takes().end(take.length());
            journal.sync();
            byte[] lines = Files.readAllBytes(recording.path());
            journal.changed(
                    Kept.of(TakeEdits.keep(DEMO, Performance.NEW, take), Performance.NEW), null, FileStamp.NONE);
            journal.takes().kept(recording);
            journal.sync();
            Files.write(recording.path(), lines);
            assertThat(broughtBack().session().takes()).hasSize(1);
        }
    }

    private Path folder(String name) throws IOException {
        return Files.createDirectories(user.resolve("unfinished").resolve(name));
    }

    private static String note(long nanos, int key) {
        return "{\"t\":" + nanos + ",\"n\":0,\"from\":\"larkspur\",\"m\":[144," + key + ",80]}\n";
    }

    @Test
    void aBadLineAStrangeNameAndAnUnreadableFolderCostNothingElse() throws IOException {
        Path folder = folder("session-1");
        Files.writeString(
                folder.resolve("recording-1.jsonl"),
                note(5_000, 60) + note(3_000, 61) + "{\"t\":oops}\n" + note(9_000, 62) + "{\"t\":9,\"n");
        Files.writeString(folder.resolve("recording-99999999999999999999.jsonl"), note(1, 1));
        Files.writeString(folder.resolve("recording-2.jsonl"), note(1_000, 50));
        Files.createDirectories(folder.resolve("recording-3.jsonl"));
        Path other = folder("session-2");
        Files.writeString(other.resolve("recording-1.jsonl"), note(1, 1));
        // Its takes cannot be listed.
        Files.writeString(other.resolve("session.json"), "no session at all");
        List<RecoverableWork> found = RecoverableWork.find(user);
        assertThat(found).hasSize(2);
        RecoverableWork first = found.stream()
                .filter(it -> it.folder().equals(folder))
                .findFirst()
                .orElseThrow();
        RecoverableWork.RecoveredWork back = first.open();
        assertThat(back.losses()).singleElement().asString().startsWith("recording-1.jsonl, line 3: ");
        assertThat(back.session().takes()).hasSize(2);
        Take take = back.session().takes().get(0);
        assertThat(List.of(take.log().stamp(0), take.log().stamp(1), take.log().stamp(2)))
                .containsExactly(5_000L, 5_000L, 9_000L);
        Path aside = first.putAside();
        assertThat(aside.resolve("recording-1.jsonl")).exists();
        assertThat(RecoverableWork.find(user)).hasSize(1);
        RecoverableWork second = RecoverableWork.find(user).get(0);
        assertThat(second.open().losses()).singleElement().asString().startsWith("the edits: session.json, line 1");
        assertThat(second.open().session().takes()).hasSize(1);
    }

    /** Found by damaging journals: no first line, system exclusive, and a routing that says an earlier time. */
    @Test
    void aRecordingIsPrintedWhateverItsRoutingsSay() throws IOException {
        Session listening = DEMO.withSources(DEMO.sources().stream()
                .map(source -> source.withSysexTo(List.of("sorrel")))
                .toList());
        try (SessionJournal journal = new SessionJournal(user)) {
            journal.changed(Kept.of(listening, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            Path other = leftBehind(user, user.resolve("other"));
            Path folder = RecoverableWork.find(other).get(0).folder();
            String routing = "{\"t\":%d,\"n\":0,\"routing\":"
                    + new String(SessionContent.json(listening, Performance.NEW)).replace("\n", "") + "}\n";
            Files.writeString(
                    folder.resolve("recording-1.jsonl"),
                    "{\"t\":1000,\"n\":0,\"from\":\"larkspur\",\"m\":[240,125,1,247]}\n" + note(2_000_000, 60));
            Files.writeString(
                    folder.resolve("recording-2.jsonl"),
                    String.format(routing, 0)
                            + note(3_000_000_000L, 60)
                            + String.format(routing, 5)
                            + note(3_100_000_000L, 62)
                            + note(3_200_000_000L, 64));
            RecoverableWork.RecoveredWork back =
                    RecoverableWork.find(other).get(0).open();
            assertThat(back.losses()).isEmpty();
            assertThat(back.session().takes()).hasSize(2);
            assertThat(back.session().tracks().stream()
                            .mapToInt(track -> track.noteCount())
                            .sum())
                    .isGreaterThan(3);
        }
    }

    @Test
    void aTakeThatCannotBeReadCostsNoOther() throws IOException {
        Session session = recorded(recorded(DEMO, 1), 2);
        try (SessionJournal journal = new SessionJournal(user)) {
            journal.changed(Kept.of(session, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            Path other = leftBehind(user, user.resolve("other"));
            Path takes = RecoverableWork.find(other).get(0).folder().resolve("takes");
            try (Stream<Path> files = Files.list(takes)) {
                Files.writeString(files.sorted().findFirst().orElseThrow(), "{\"t\":5,\"m\":7}\n");
            }
            RecoverableWork.RecoveredWork back =
                    RecoverableWork.find(other).get(0).open();
            assertThat(back.losses()).singleElement().asString().contains("takes/take-1.jsonl, line 1: $.m: 7");
            assertThat(back.session().takes()).hasSize(1);
            assertThat(back.session().tracks())
                    .extracting("id")
                    .isEqualTo(
                            session.tracks().stream().map(track -> track.id()).toList());
        }
    }

    @Test
    void aFolderThatSomebodyHasIsLeftAloneAlsoByAnotherLookFromHere() throws IOException {
        try (SessionJournal journal = new SessionJournal(user)) {
            journal.changed(Kept.of(DEMO, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            assertThat(RecoverableWork.find(user)).isEmpty();
            // To look must not let the lock go.
            assertThat(RecoverableWork.find(user)).isEmpty();
            assertThat(lockedElsewhere(user)).isTrue();
        }
    }

    /** Returns true if another process finds the folder in use. */
    private static boolean lockedElsewhere(Path user) throws IOException {
        Process process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-cp",
                        System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")),
                        RecoverableWorkTest.class.getName(),
                        user.toString())
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        return new String(process.getInputStream().readAllBytes()).strip().endsWith("found 0");
    }

    /** Another Dibble that starts. */
    public static void main(String[] args) {
        System.out.println("found " + RecoverableWork.find(Path.of(args[0])).size());
    }

    @Test
    void twoThatStartAtOnceNeverDeleteEachOthersFolders() throws Exception {
        AtomicReference<Throwable> failed = new AtomicReference<>();
        CountDownLatch done = new CountDownLatch(4);
        for (int i = 0; i < 4; i++) {
            int seed = i;
            new Thread(() -> {
                        try {
                            for (int n = 0; n < 15; n++) {
                                RecoverableWork.find(user);
                                try (SessionJournal journal = new SessionJournal(user)) {
                                    journal.changed(
                                            Kept.of(DEMO.withName("n" + seed), Performance.NEW), null, FileStamp.NONE);
                                    journal.sync();
                                    assertThat(journal.trouble()).isNull();
                                }
                            }
                        } catch (Throwable e) {
                            failed.set(e);
                        } finally {
                            done.countDown();
                        }
                    })
                    .start();
        }
        assertThat(done.await(60, TimeUnit.SECONDS)).isTrue();
        assertThat(failed.get()).isNull();
    }

    @Test
    void whatSomebodyElseBroughtBackIsSaid() throws IOException {
        Files.writeString(folder("session-1").resolve("recording-1.jsonl"), note(1, 1));
        RecoverableWork left = RecoverableWork.find(user).get(0);
        RecoverableWork.find(user).get(0).discard();
        assertThatThrownBy(left::open).hasMessageContaining("meanwhile");
    }

    /** After any sequence of recording, undo, redo and edits, with one write that fails, it is all there. */
    @net.jqwik.api.Tag("slow")
    @Property(tries = 25)
    void afterWhateverWasDoneTheSessionThatWasOnTheDeskComesBack(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        Path own = Files.createTempDirectory("dibble-unfinished");
        Session start = DEMO.with()
                .foreign(new UnknownEntries(Map.of("notes/read me.txt", new byte[] {1, 2, 3})))
                .build();
        Document document = new Document(start, Performance.NEW);
        try (SessionJournal journal = new SessionJournal(own)) {
            int steps = 3 + random.nextInt(8);
            int fails = random.nextInt(steps);
            for (int step = 0; step < steps; step++) {
                switch (random.nextInt(5)) {
                    case 0 -> document.undo();
                    case 1 -> document.redo();
                    case 2 -> document.edit("name", session -> session.withName("n" + random.nextInt()));
                    default -> {
                        long take = random.nextInt(3);
                        document.edit("record", session -> recorded(session, take));
                    }
                }
                journal.changed(document.kept(), null, FileStamp.NONE);
                if (step == fails) {
                    failOnce(own, journal);
                    journal.changed(document.kept(), null, FileStamp.NONE);
                } else if (random.nextBoolean()) {
                    journal.sync();
                }
            }
            journal.sync();
            assertThat(journal.trouble()).isNull();
            RecoverableWork.RecoveredWork back = RecoverableWork.find(leftBehind(own, own.resolve("other")))
                    .get(0)
                    .open();
            assertThat(back.losses()).isEmpty();
            assertSame(back.session(), document.session());
        } finally {
            RecoverableWork.delete(own);
        }
    }

    /** The next write finds the folder that it writes into in the way of a file. */
    private static void failOnce(Path user, SessionJournal journal) throws IOException {
        journal.sync();
        for (String name : Set.of("takes", "tracks")) {
            try (Stream<Path> folders = Files.list(user.resolve("unfinished"))) {
                Path folder = folders.findFirst().orElseThrow();
                Path real = folder.resolve(name);
                Path hidden = folder.resolve("hidden-" + name);
                Files.move(real, hidden);
                Files.createFile(real);
                journal.changed(Kept.of(recorded(DEMO, 99), Performance.NEW), null, FileStamp.NONE);
                journal.sync();
                assertThat(journal.trouble()).isNotNull();
                Files.delete(real);
                Files.move(hidden, real);
            }
        }
    }
}
