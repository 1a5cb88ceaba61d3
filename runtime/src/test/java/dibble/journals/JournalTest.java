package dibble.journals;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.disk.FileStamp;
import dibble.edits.TakeEdits;
import dibble.files.SessionFormatException;
import dibble.files.SessionReader;
import dibble.files.TakeReader;
import dibble.gear.UnknownFields;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.session.Kept;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import dibble.work.Progress;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is in the user's folder while nothing is saved, and what comes back from there. */
class JournalTest {
    @TempDir
    private Path user;

    private final Session demo = LamplightersRound.session();
    private final Routing routing = demo.routing(Performance.NEW);

    private EventStore log(long seed) {
        Random random = new Random(seed);
        EventStore log = new EventStore();
        for (int i = 0; i < 500; i++) {
            int key = 50 + random.nextInt(10);
            log.add(
                    i * 10_000_000L,
                    random.nextInt(2),
                    random.nextBoolean() ? ShortMessage.noteOn(0, key, 80) : ShortMessage.noteOff(0, key, 64));
        }
        return log;
    }

    private static Take recovered(byte[] bytes, TempoMap otherwise) throws IOException {
        return TakeReader.readJournal("take-1", "Take 1", bytes, "recording-1.jsonl", otherwise)
                .take();
    }

    private List<Take.Mark> marks() {
        return List.of(new Take.Mark(0, 0, routing), new Take.Mark(250, 2_500_000_000L, routing.withScene("snow")));
    }

    private Path onlyFile(Path folder) throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(file -> file.toString().endsWith(".jsonl"))
                    .findFirst()
                    .orElseThrow();
        }
    }

    /** At every single place, the last one included. */
    @Tag("slow")
    @Test
    void aJournalThatWasCutOffAnywhereIsATakeWithNothingHanging() throws Exception {
        Session small = demo.withScenes(demo.scenes().subList(0, 2)).withControls(List.of());
        Routing first = small.routing(Performance.NEW);
        List<Take.Mark> marks = List.of(
                new Take.Mark(0, 0, first),
                new Take.Mark(
                        15, 150_000_000L, first.withScene(small.scenes().get(1).id())));
        EventStore log = new EventStore();
        for (int i = 0; i < 30; i++) {
            log.copy(log(3), i);
        }
        TakeJournal journal = new TakeJournal(() -> user, Runnable::run);
        journal.begin(demo.tempo(), 1_000);
        journal.follow(log, List.of("larkspur", "tansy"), marks);
        journal.end(6_000_000_000L);
        assertThat(journal.trouble()).isNull();
        byte[] whole = Files.readAllBytes(onlyFile(user));
        for (int cut = 0; cut <= whole.length; cut++) {
            byte[] left = Arrays.copyOf(whole, cut);
            TakeReader.Recovered recovered =
                    TakeReader.readJournal("take-1", "Take 1", left, "recording-1.jsonl", demo.tempo());
            assertThat(recovered.losses()).isEmpty();
            String text = new String(left, StandardCharsets.UTF_8);
            int events = (int) text.substring(0, text.lastIndexOf('\n') + 1)
                    .lines()
                    .filter(line -> line.contains("\"m\":"))
                    .count();
            Take take = recovered.take();
            assertThat(take.log().size()).as("cut at " + cut).isEqualTo(events);
            for (int i = 0; i < events; i++) {
                assertThat(take.log().message(i)).isEqualTo(log.message(i));
                assertThat(take.log().stamp(i)).isEqualTo(log.stamp(i));
            }
            assertNothingHangs(TakeEdits.closed(take));
        }
        Take take = recovered(whole, demo.tempo());
        assertThat(take.log().size()).isEqualTo(30);
        assertThat(take.start()).isEqualTo(1_000);
        assertThat(take.length()).isEqualTo(6_000_000_000L);
        assertThat(take.marks()).isEqualTo(marks);
        Printer.print(take, List.of(Track.of("rest", "Rest", new Track.Rest())), Set.of());
    }

    private static void assertNothingHangs(Take take) {
        Set<String> sounding = new java.util.HashSet<>();
        for (int i = 0; i < take.log().size(); i++) {
            int message = take.log().message(i);
            String key = take.sources().get(take.log().source(i)) + " " + ShortMessage.data1(message);
            if (ShortMessage.startsNote(message)) {
                sounding.add(key);
            } else {
                sounding.remove(key);
            }
        }
        assertThat(sounding).isEmpty();
    }

    /** Its nanoseconds are those of its own tempo, however the music goes on after it. */
    @Test
    void aTakeThatWasCutOffEndsWhenItWasCutOff() throws Exception {
        TempoMap slower = new TempoMap(
                List.of(new TempoMap.Tempo(0, 120), new TempoMap.Tempo(400 * 3840, 30)),
                List.of(new TempoMap.Meter(0, 4, 4)));
        TakeJournal journal = new TakeJournal(() -> user, Runnable::run);
        EventStore log = new EventStore();
        log.add(1_000_000_000L, 0, ShortMessage.noteOn(0, 60, 80));
        log.add(10_000_000_000L, 0, ShortMessage.controller(0, 64, 127));
        journal.begin(slower, 2_000_000_000L);
        journal.follow(log, List.of("larkspur"), marks().subList(0, 1));
        Take take = TakeEdits.closed(recovered(Files.readAllBytes(onlyFile(user)), TempoMap.of(60)));
        assertThat(take.length()).isEqualTo(10_000_000_000L);
        assertThat(take.tempo()).isEqualTo(slower);
        assertThat(take.start()).isEqualTo(2_000_000_000L);
        assertThat(take.log().stamp(2)).isEqualTo(10_000_000_000L);
        Session kept = TakeEdits.keep(demo, Performance.NEW, take);
        assertThat(kept.tracks().stream()
                        .mapToLong(track -> track.sounding().endTick())
                        .max())
                .hasValue(slower.ticks(12_000_000_000L));
    }

    @Test
    void aFolderThatIsNotThereIsMadeAndOneThatCannotBeIsSaid() throws Exception {
        TakeJournal journal = new TakeJournal(() -> user.resolve("deep/down"), Runnable::run);
        journal.begin(demo.tempo(), 0);
        assertThat(journal.trouble()).isNull();
        Path file = Files.createFile(user.resolve("file"));
        TakeJournal nowhere = new TakeJournal(() -> file, Runnable::run);
        nowhere.begin(demo.tempo(), 0);
        nowhere.follow(log(1), List.of("larkspur", "tansy"), marks());
        assertThat(nowhere.trouble()).contains(file.toString()).contains("goes on in memory");
    }

    /** What a run that was ended in the middle leaves: its folder, which nobody has in use. */
    private Path leftBehind() throws IOException {
        Path unfinished = user.resolve("unfinished");
        Path other = Files.createDirectories(user.resolve("other/unfinished"));
        try (Stream<Path> files = Files.walk(unfinished)) {
            for (Path path : (Iterable<Path>) files::iterator) {
                Path to = other.resolve(unfinished.relativize(path).toString());
                if (Files.isDirectory(path)) {
                    Files.createDirectories(to);
                } else {
                    Files.copy(path, to);
                }
            }
        }
        return user.resolve("other");
    }

    @Test
    void editsAndARecordingComeBack() throws Exception {
        try (SessionJournal journal = new SessionJournal(user)) {
            Take old = new Take(
                    "take-1", "Take 1", List.of("larkspur", "tansy"), log(7), marks(), demo.tempo(), 6_000_000_000L, 0);
            Session edited =
                    TakeEdits.keep(demo.withName("Edited"), Performance.NEW.withScene("dusk"), TakeEdits.closed(old));
            journal.changed(
                    Kept.of(edited, Performance.NEW.withScene("snow")), "/somewhere/round.dibble", FileStamp.NONE);
            journal.sync();
            journal.takes().begin(demo.tempo(), 0);
            journal.takes().follow(log(8), List.of("larkspur", "tansy"), marks());
            journal.sync();
            assertThat(RecoverableWork.find(user)).as("in use").isEmpty();

            List<RecoverableWork> found = RecoverableWork.find(leftBehind());
            assertThat(found).hasSize(1);
            assertThat(found.get(0).file()).isEqualTo("/somewhere/round.dibble");
            assertThat(found.get(0).recordings()).hasSize(1);
            RecoverableWork.RecoveredWork opened = found.get(0).open();
            assertThat(opened.losses()).isEmpty();
            assertThat(opened.session().name()).isEqualTo("Edited");
            assertThat(opened.performance().activeScene()).isEqualTo("snow");
            assertThat(opened.session().takes()).hasSize(2);
            assertThat(opened.session().takes().get(0).log().size())
                    .isEqualTo(edited.takes().get(0).log().size());
            assertThat(opened.session().tracks().stream()
                            .mapToInt(Track::noteCount)
                            .sum())
                    .isPositive();
            found.get(0).discard();
            assertThat(RecoverableWork.find(user.resolve("other"))).isEmpty();
        }
    }

    @Test
    void whatIsSavedOrLeftOnPurposeLeavesNothingBehind() throws Exception {
        SessionJournal journal = new SessionJournal(user);
        journal.changed(Kept.of(demo, Performance.NEW), null, FileStamp.NONE);
        journal.sync();
        journal.settled();
        journal.close();
        try (Stream<Path> left = Files.list(user.resolve("unfinished"))) {
            assertThat(left).isEmpty();
        }
    }

    @Test
    void aRecordingThatTheSessionHasIsNotKeptTwice() throws Exception {
        try (SessionJournal journal = new SessionJournal(user)) {
            journal.changed(Kept.of(demo, Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            journal.takes().begin(demo.tempo(), 0);
            journal.takes().follow(log(8), List.of("larkspur", "tansy"), marks());
            TakeJournal.TakeFile ended = journal.takes().end(6_000_000_000L);
            // Until the session that has it is written, its file stays.
            journal.changed(Kept.of(demo.withName("Edited"), Performance.NEW), null, FileStamp.NONE);
            journal.sync();
            assertThat(ended.path()).exists();
            Take take = new Take(
                    "take-1", "Take 1", List.of("larkspur", "tansy"), log(8), marks(), demo.tempo(), 6_000_000_000L, 0);
            journal.changed(
                    Kept.of(TakeEdits.keep(demo, Performance.NEW, take), Performance.NEW), null, FileStamp.NONE);
            journal.takes().kept(ended);
            journal.sync();
            assertThat(RecoverableWork.find(leftBehind()).get(0).recordings()).isEmpty();
        }
    }

    private static Take lines(String... lines) throws IOException {
        return TakeReader.read(
                new SessionReader.SaidOfTake("take-1", "One", "takes/take-1.jsonl", UnknownFields.NONE),
                String.join("\n", lines).getBytes(),
                TempoMap.of(120),
                Progress.NONE);
    }

    @Test
    void linesThatOthersWroteAreReadLikeOnesOwn() throws Exception {
        Take take = lines(
                "{\"t\":5,\"n\":0,\"from\":\"b\",\"m\":[144,60,80]}",
                "{ \"n\": 1, \"m\": [128, 60, 64], \"t\": 9, \"from\": \"b\", \"more\": {\"x\": [1]} }",
                "",
                "{\"t\":9,\"n\":2,\"from\":\"a\",\"m\":[192,5],\"echo\":true}",
                "{\"t\":12,\"n\":3,\"from\":\"a\",\"m\":[192,5], \"echo\":false}",
                "{\"t\":20,\"end\":true}");
        assertThat(take.log().size()).isEqualTo(4);
        assertThat(take.sources()).containsExactly("b", "a");
        assertThat(take.log().message(1)).isEqualTo(ShortMessage.noteOff(0, 60, 64));
        assertThat(take.log().isEcho(2)).isTrue();
        assertThat(take.log().isEcho(3)).isFalse();
        assertThat(take.length()).isEqualTo(20);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"t\":5,\"n\":0,\"from\":\"b\",\"m\":[144,60,200]}",
                "{\"t\":5,\"n\":0,\"from\":\"b\",\"m\":[144,60]}",
                "{\"t\":5,\"n\":0,\"from\":\"b\",\"m\":[144,60,80,1]}",
                "{\"t\":5,\"n\":0,\"from\":\"b\",\"m\":[240,60,80]}",
                "{\"t\":99999999999999999999,\"n\":0,\"from\":\"b\",\"m\":[144,60,80]}",
                "{\"n\":0,\"from\":\"b\",\"m\":[144,60,80]}",
                "{\"t\":5,\"n\":0,\"from\":\"b\",\"m\":[144,60,80]} {}",
                "{\"t\":5",
                "[]"
            })
    void aBadLineIsSaidWithItsNumber(String bad) {
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> lines("{\"t\":1,\"tempo\":96.0}", bad))
                .isInstanceOf(SessionFormatException.class)
                .hasMessageStartingWith("takes/take-1.jsonl, line 2: ")
                .hasMessageNotContaining("\n");
    }
}
