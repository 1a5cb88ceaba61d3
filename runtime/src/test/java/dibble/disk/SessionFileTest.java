package dibble.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.demo.LamplightersRound;
import dibble.edits.TakeEdits;
import dibble.edits.TrackEdits;
import dibble.files.DamagedSessionException;
import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import dibble.gear.PartRef;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.PrintMode;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@Tag("slow")
class SessionFileTest {
    @TempDir
    private Path folder;

    private static Session withTake() {
        Session session = TrackEdits.addMissingTracks(LamplightersRound.session());
        EventStore log = new EventStore();
        log.add(0, 0, ShortMessage.noteOn(0, 60, 90));
        log.add(500_000_000, 0, ShortMessage.noteOff(0, 60, 64));
        Take take = new Take(
                "take-1",
                "Take 1",
                List.of("larkspur"),
                log,
                List.of(new Take.Mark(0, 0, session.routing(Performance.NEW))),
                session.tempo(),
                900_000_000,
                0);
        Printer printer = Printer.print(take, session.tracks(), Set.of("celesta"));
        return TakeEdits.keep(session, take, printer, PrintMode.REPLACE_ALL);
    }

    @Test
    void whatIsSavedIsOpenedAgainWithTakesAndTracks() throws Exception {
        Session session = withTake();
        Path file = folder.resolve("round.dibble");
        Performance performance = Performance.NEW
                .withScene("procession")
                .withHeard("tansy", false)
                .withArmed("celesta", true);
        SessionFile.write(file, session, performance);
        SessionContent opened = SessionFile.read(file);
        assertThat(opened.session().zones()).isEqualTo(session.zones());
        assertThat(opened.session().scenes()).isEqualTo(session.scenes());
        assertThat(opened.session().tracks()).isEqualTo(session.tracks());
        assertThat(opened.session().tempo()).isEqualTo(session.tempo());
        assertThat(opened.performance().activeScene()).isEqualTo("procession");
        assertThat(opened.performance().unheard()).containsExactly("tansy");
        assertThat(opened.performance().armed()).containsExactly("celesta");
        Take take = opened.session().takes().get(0);
        assertThat(take.length()).isEqualTo(900_000_000);
        assertThat(take.log().message(0)).isEqualTo(ShortMessage.noteOn(0, 60, 90));
        assertThat(take.marks().get(0).routing().zones())
                .isEqualTo(session.routing(Performance.NEW).zones());
        MidiTrack clip = opened.session()
                .trackOf(new PartRef("sorrel", "celesta"))
                .orElseThrow()
                .sounding();
        assertThat(clip.message(0)).isEqualTo(ShortMessage.noteOn(0, 60, 90));
        assertThat(Files.list(folder)).containsExactly(file);
    }

    /** Takes on top of each other, within each other, and instead of each other. */
    private static Session patched(long seed) {
        Random random = new Random(seed);
        Session session = TrackEdits.readyToRecord(LamplightersRound.session());
        Set<String> all = session.tracks().stream().map(Track::id).collect(Collectors.toSet());
        for (int number = 1; number <= 5; number++) {
            EventStore log = new EventStore();
            long at = 0;
            for (int i = 0; i < 20; i++) {
                int key = 30 + random.nextInt(60);
                log.add(at, 0, ShortMessage.noteOn(0, key, 1 + random.nextInt(127)));
                at += random.nextInt(200_000_000);
                log.add(at, 0, ShortMessage.noteOff(0, key, random.nextInt(128)));
            }
            log.addExclusive(at, 0, new byte[] {(byte) 0xF0, 0x7D, (byte) number, (byte) 0xF7});
            Take take = new Take(
                    "take-" + number,
                    "Take " + number,
                    List.of("larkspur"),
                    log,
                    List.of(new Take.Mark(0, 0, session.routing(Performance.NEW))),
                    TempoMap.of(60 + random.nextInt(90)),
                    at,
                    random.nextInt(4) * 1_000_000_000L);
            PrintMode onto = PrintMode.values()[random.nextInt(3)];
            session = TakeEdits.keep(session, take, Printer.print(take, session.tracks(), all), onto);
        }
        return session;
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void regionsAndPrintsComeBackSoThatTakesCanBePrintedAgain(long seed) throws Exception {
        Session session = patched(seed);
        Path file = folder.resolve("patched.dibble");
        SessionFile.write(file, session, Performance.NEW);
        Session opened = SessionFile.read(file).session();
        assertThat(opened.tracks()).isEqualTo(session.tracks());
        for (int i = 0; i < 5; i++) {
            Take before = session.takes().get(i);
            Take after = opened.takes().get(i);
            assertThat(after.tempo()).isEqualTo(before.tempo());
            assertThat(after.length()).isEqualTo(before.length());
            assertThat(after.start()).isEqualTo(before.start());
            int last = before.log().size() - 1;
            assertThat(after.log().exclusive(last)).isEqualTo(before.log().exclusive(last));
            boolean sounds = session.tracks().stream()
                    .anyMatch(track -> !track.regions().of(before.id()).isEmpty());
            if (sounds) {
                assertThat(TakeEdits.choose(opened, before.id()).tracks()).isEqualTo(session.tracks());
            }
        }
    }

    @Test
    void aClipThatSomebodyEditedInAProgramOfTheirOwnCounts() throws Exception {
        Session session = patched(3);
        Path file = folder.resolve("patched.dibble");
        SessionFile.write(file, session, Performance.NEW);
        Track track = session.tracks().stream()
                .filter(it -> it.regions().prints().size() > 1)
                .findFirst()
                .orElseThrow();
        MidiTrack other = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 61, 1))
                .add(10, ShortMessage.noteOff(0, 61, 2))
                .build();
        try (FileSystem zip = FileSystems.newFileSystem(file)) {
            Files.write(
                    zip.getPath("tracks/" + track.id() + ".mid"),
                    MidiFileWriter.write(new MidiFile(0, TempoMap.PPQ, List.of(other))));
        }
        Track opened = SessionFile.read(file).session().tracks().stream()
                .filter(it -> it.id().equals(track.id()))
                .findFirst()
                .orElseThrow();
        assertThat(opened.sounding()).isEqualTo(other);
        assertThat(opened.regions().byHand()).isPresent();
        assertThat(opened.regions().asPrinted()).isEqualTo(track.regions());
    }

    @Test
    void channelsInUseAreKept() throws Exception {
        Performance performance = new Document(LamplightersRound.session(), Performance.NEW).performance();
        byte[] json = SessionContent.json(LamplightersRound.session(), performance);
        assertThat(SessionContent.readJson(json).performance().channels())
                .containsEntry(new PartRef("sorrel", "kalimba"), 3)
                .containsEntry(new PartRef("sorrel", "hands"), 10);
    }

    @Test
    void unknownFieldsAreWrittenBack() throws Exception {
        String json = """
                {"format":"dibble-session","version":1,"name":"n","hue":{"a":[1,2.5,null]},
                 "sources":[{"id":"a","wheels":[{"name":"x"}]}],
                 "instruments":[{"id":"i","receives":"all","parts":[{"id":"p","outlet":3}]}],
                 "zones":[{"id":"z","source":"a","to":{"part":"i/p"},"note":"mine"}],
                 "strips":[{"id":"c"}],"tracks":[{"id":"t","takes":{"key":41,"part":"i/p"},"level":0.5}]}""";
        SessionContent once = SessionContent.readJson(json.getBytes(StandardCharsets.UTF_8));
        String written = new String(SessionContent.json(once.session(), once.performance()), StandardCharsets.UTF_8);
        assertThat(written).contains("\"hue\"", "2.5", "\"wheels\"", "\"receives\" : \"all\"", "\"outlet\" : 3");
        assertThat(written).contains("\"note\" : \"mine\"", "\"strips\"", "\"level\" : 0.5");
        SessionContent twice = SessionContent.readJson(written.getBytes(StandardCharsets.UTF_8));
        assertThat(twice.session()).isEqualTo(once.session());
    }

    /** In regions and takes, and in files of the container that nobody here knows. */
    @Test
    void whatLiesInAContainerBesideWhatIsKnownComesBack() throws Exception {
        Path file = folder.resolve("s.dibble");
        SessionFile.write(file, patched(3), Performance.NEW);
        try (FileSystem zip = FileSystems.newFileSystem(file)) {
            Path json = zip.getPath("session.json");
            Files.writeString(
                    json,
                    Files.readString(json)
                            .replace("\"printed\" :", "\"x-hue\" : [1E+400], \"printed\" :")
                            .replace("\"file\" : \"takes/", "\"x-mood\" : {\"a\" : null}, \"file\" : \"takes/"));
            Files.createDirectory(zip.getPath("pictures"));
            Files.write(zip.getPath("pictures/stage.png"), new byte[] {1, 2, 3});
            Files.write(zip.getPath("tracks/unnamed.mid"), new byte[] {4});
        }
        SessionContent once = SessionFile.read(file);
        Path again = folder.resolve("again.dibble");
        SessionFile.write(again, once.session().withName("Renamed"), once.performance());
        try (FileSystem before = FileSystems.newFileSystem(file);
                FileSystem after = FileSystems.newFileSystem(again)) {
            com.fasterxml.jackson.databind.ObjectMapper json = new com.fasterxml.jackson.databind.ObjectMapper()
                    .enable(com.fasterxml.jackson.databind.DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS);
            var unknown = FormatTest.unknown(json.readTree(Files.readAllBytes(before.getPath("session.json"))));
            assertThat(unknown).hasSizeGreaterThan(8);
            assertThat(FormatTest.unknown(json.readTree(Files.readAllBytes(after.getPath("session.json")))))
                    .isEqualTo(unknown);
            assertThat(Files.readAllBytes(after.getPath("pictures/stage.png"))).containsExactly(1, 2, 3);
            assertThat(Files.readAllBytes(after.getPath("tracks/unnamed.mid"))).containsExactly(4);
            assertThat(Files.isDirectory(after.getPath("pictures"))).isTrue();
        }
    }

    /** Found by damaging containers: an entry that nothing names, whose name is needed for another. */
    @Test
    void anEntryThatNothingNamesMakesWayAndStays() throws Exception {
        Path file = folder.resolve("s.dibble");
        SessionFile.write(file, withTake(), Performance.NEW);
        byte[] bass;
        try (FileSystem zip = FileSystems.newFileSystem(file)) {
            Path json = zip.getPath("session.json");
            bass = Files.readAllBytes(zip.getPath("tracks/upright-bass.mid"));
            Files.writeString(json, Files.readString(json).replace("tracks/upright-bass.mid", "tracks/celesta.mid"));
        }
        Session opened = SessionFile.read(file).session();
        assertThat(opened.foreign().names()).containsExactly("kept/tracks/upright-bass.mid");
        Path again = folder.resolve("again.dibble");
        SessionFile.write(again, opened, Performance.NEW);
        try (FileSystem zip = FileSystems.newFileSystem(again)) {
            assertThat(Files.readAllBytes(zip.getPath("kept/tracks/upright-bass.mid")))
                    .isEqualTo(bass);
            assertThat(Files.exists(zip.getPath("tracks/upright-bass.mid"))).isTrue();
        }
        assertThat(SessionFile.read(again).session().foreign()).isEqualTo(opened.foreign());
    }

    @Test
    void aBareSessionStaysOneAndKeepsTheNamesOfItsFiles() throws Exception {
        Path file = folder.resolve("session.json");
        Files.write(file, SessionContent.json(withTake(), Performance.NEW));
        SessionContent opened = SessionFile.read(file);
        assertThat(opened.session().takes()).isEmpty();
        List<Track> fewer = opened.session().tracks().subList(1, 3);
        SessionFile.update(file, opened.session().withName("Other").withTracks(fewer), opened.performance());
        assertThat(SessionFile.isBare(file)).isTrue();
        String written = Files.readString(file);
        assertThat(written)
                .contains("takes/take-1.jsonl", "tracks/" + fewer.get(0).id() + ".mid", "\"Other\"");
        assertThat(SessionFile.read(file).session().tracks()).hasSize(2);
    }

    @Test
    void aSessionFromAPipeIsRead() throws Exception {
        Path pipe = folder.resolve("pipe");
        Path idle = folder.resolve("idle");
        org.junit.jupiter.api.Assumptions.assumeTrue(new ProcessBuilder("mkfifo", pipe.toString(), idle.toString())
                        .start()
                        .waitFor()
                == 0);
        assertThatThrownBy(() -> SessionFile.read(idle)).hasMessageContaining("nothing arrives through the pipe");
        Path whole = folder.resolve("s.dibble");
        SessionFile.write(whole, withTake(), Performance.NEW);
        new ProcessBuilder("sh", "-c", "cat '" + whole + "' > '" + pipe + "'").start();
        assertThat(SessionFile.read(pipe).session().takes()).hasSize(1);
    }

    @Test
    void numbersThatAreTooLargeForUsComeBackAsTheyWereWritten() throws Exception {
        String json = """
                {"format":"dibble-session","version":1,"name":"n","far":1e400,"long":123456789012345678901234567890,
                 "fine":0.1000000000000000055511151231257827,"plain":96.0,"money":[1.50]}""";
        SessionContent once = SessionContent.readJson(json.getBytes(StandardCharsets.UTF_8));
        String written = new String(SessionContent.json(once.session(), once.performance()), StandardCharsets.UTF_8);
        assertThat(written)
                .contains("1E+400", "123456789012345678901234567890", "0.1000000000000000055511151231257827")
                .contains("96.0", "1.50")
                .doesNotContain("Infinity");
    }

    @Nested
    class BadFiles {
        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "{'format':'dibble-session','version':2,'name':'n'} | $.version: 2 is newer than this Dibble",
                    "{'format':'dibble-session','version':2.0,'name':'n'} | $.version: 2.0 is newer than this Dibble",
                    "{'format':'dibble-session','version':4294967297,'name':'n'} | $.version: 4294967297 is newer than this Dibble",
                    "{'format':'dibble-session','version':1e300,'name':'n'} | $.version: 1E+300 is newer than this Dibble",
                    "{'format':'other'} | $.format: not a Dibble session",
                    "[] | $.format: not a Dibble session",
                    "{'format' | session.json, line 1",
                    "{'format':'dibble-session','version':1,'name':'n','sources':[{'id':'A B'}]} | $.sources[0].id:",
                    "{'format':'dibble-session','version':1,'name':'n','sources':[{'id':'a','keys':[70,60]}]} | $.sources[0].keys: range 70 to 60",
                    "{'format':'dibble-session','version':1,'name':'n','sources':[{'id':'a','keys':[0,200]}]} | $.sources[0].keys[1]:",
                    "{'format':'dibble-session','version':1,'name':'n','sources':[{'id':'a','keys':[0,1e400]}]} | $.sources[0].keys[1]: 1E+400 (expected 0 to 127)",
                    "{'format':'dibble-session','version':1,'name':'n','sources':[{'id':'a','transpose':99999999999}]} | $.sources[0].transpose: 99999999999 (expected -127 to 127)",
                    "{'format':'dibble-session','version':1,'name':'n','sources':[{'id':'a','kind':'harp'}]} | $.sources[0].kind: \"harp\" (expected one of keyboard, pads, pedals, controls, sequencer, file)",
                    "{'format':'dibble-session','version':1,'name':'n','zones':[{'id':'z','source':'a','to':{'instrument':'i','channel':'any'}}]} | $.zones[0].to.channel: \"any\" (expected \"same\", or 1 to 16)",
                    "{'format':'dibble-session','version':1,'name':5} | $.name: 5 (expected a text)",
                    "{'format':'dibble-session','version':1} | $: no \"name\" (expected one)",
                    "{'format':'dibble-session','version':1,'name':'n','sources':[{'id':'a'},{'id':'a'}]} | $: source \"a\" appears twice",
                    "{'format':'dibble-session','version':1,'name':'n','instruments':[{'id':'i','parts':[{'id':'p','channel':17}]}]} | $.instruments[0].parts[0].channel:",
                    "{'format':'dibble-session','version':1,'name':'n','zones':[{'id':'z','source':'a','to':{'part':'nowhere'}}]} | $.zones[0].to",
                    "{'format':'dibble-session','version':1,'name':'n','zones':[{'id':'z','source':'a','to':{'part':'i/p'},'noteMap':{'300':5}}]} | $.zones[0].noteMap: key 300",
                    "{'format':'dibble-session','version':1,'name':'n','tracks':[{'id':'t','file':'../../etc/passwd'}]} | $.tracks[0].file:",
                    "{'format':'dibble-session','version':1,'name':'n','tempo':[{'at':0,'bpm':1e9}]} | $.tempo[0].bpm:",
                    "{'format':'dibble-session','version':1,'name':'n','tracks':[{'id':'t','regions':[{'from':5,'to':2}]}]} | $.tracks[0].regions[0]: region from tick 5 to 2",
                    "{'format':'dibble-session','version':1,'name':'n','tracks':[{'id':'t','regions':[{'from':0,'to':2,'printed':'beside'}]}]} | $.tracks[0].regions[0].printed:",
                    "{'format':'dibble-session','version':1,'name':'n','version':1} | session.json, line 1"
                })
        void saysInOneLineWhatAndWhere(String json, String message) {
            assertThatThrownBy(() ->
                            SessionContent.readJson(json.replace('\'', '"').getBytes(StandardCharsets.UTF_8)))
                    .isInstanceOf(SessionFormatException.class)
                    .hasMessageStartingWith(message)
                    .satisfies(e -> assertThat(e.getMessage().lines().count()).isEqualTo(1));
        }

        @Test
        void aFileThatIsNeitherContainerNorJsonIsNamedAsSuch() throws Exception {
            Path file = folder.resolve("picture.png");
            Files.write(file, new byte[] {(byte) 0x89, 'P', 'N', 'G'});
            assertThatThrownBy(() -> SessionFile.read(file))
                    .hasMessage("not a session (expected a .dibble file or a session.json)");
        }

        @Test
        void deepNestingIsRefused() {
            String json = "{\"format\":\"dibble-session\",\"version\":1,\"name\":\"n\",\"x\":" + "[".repeat(200_000);
            assertThatThrownBy(() -> SessionContent.readJson(json.getBytes(StandardCharsets.UTF_8)))
                    .isInstanceOf(SessionFormatException.class);
        }

        @Test
        void whatUnpacksToMuchMoreThanASessionIsStopped() throws Exception {
            Path bomb = folder.resolve("bomb.dibble");
            try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(bomb))) {
                zip.putNextEntry(new ZipEntry("session.json"));
                byte[] zeros = new byte[1 << 20];
                for (int i = 0; i < 64; i++) {
                    zip.write(zeros);
                }
            }
            assertThatThrownBy(() -> SessionFile.read(bomb)).hasMessage("session.json is larger than 16 MiB");
            Path other = folder.resolve("other.dibble");
            try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(other))) {
                zip.putNextEntry(new ZipEntry("../../unwanted"));
                byte[] zeros = new byte[1 << 20];
                for (int i = 0; i < 520; i++) {
                    zip.write(zeros);
                }
            }
            assertThatThrownBy(() -> SessionFile.read(other)).hasMessage("../../unwanted is larger than 64 MiB");
        }

        @Test
        void whatCouldNotBeOpenedAgainIsNotSavedOverWhatCan() throws Exception {
            Path file = folder.resolve("s.dibble");
            SessionFile.write(file, withTake(), Performance.NEW);
            byte[] before = Files.readAllBytes(file);
            byte[] block = new byte[1 << 20];
            assertThatThrownBy(() -> AtomicFile.write(file, out -> {
                        try (ContainerWriter container = new ContainerWriter(out)) {
                            container.put("takes/take-1.jsonl", to -> {
                                for (int i = 0; i <= 512; i++) {
                                    to.write(block);
                                }
                            });
                        }
                    }))
                    .hasMessage("the session is larger than 512 MiB, the most that can be opened");
            Session large = withTake()
                    .withSources(withTake().sources().stream()
                            .map(source ->
                                    source.with().name("x".repeat(4 << 20)).build())
                            .toList());
            assertThatThrownBy(() -> SessionFile.write(file, large, Performance.NEW))
                    .hasMessageStartingWith("session.json is larger than 16 MiB");
            assertThat(Files.readAllBytes(file)).isEqualTo(before);
            assertThat(Files.list(folder)).containsExactly(file);
        }

        private Path cutAt(double share) throws Exception {
            Path file = folder.resolve("whole.dibble");
            SessionFile.write(file, withTake(), Performance.NEW);
            byte[] whole = Files.readAllBytes(file);
            Path cut = folder.resolve("cut.dibble");
            Files.write(cut, java.util.Arrays.copyOf(whole, (int) (whole.length * share)));
            return cut;
        }

        @ParameterizedTest
        @ValueSource(doubles = {0.5, 0.7, 0.9, 0.99})
        void aContainerThatWasCutOffIsNeverTakenForWholeAndWhatIsThereCanBeOpened(double share) throws Exception {
            Path cut = cutAt(share);
            byte[] before = Files.readAllBytes(cut);
            assertThatThrownBy(() -> SessionFile.read(cut))
                    .isInstanceOf(DamagedSessionException.class)
                    .hasMessageContaining("cut off");
            SessionFile.Salvaged salvaged = SessionFile.salvage(cut);
            assertThat(salvaged.session().zones()).isEqualTo(withTake().zones());
            assertThat(salvaged.losses()).isNotEmpty();
            assertThat(Files.readAllBytes(cut)).isEqualTo(before);
        }

        @Test
        void whatIsMissingOrDamagedIsNamed() throws Exception {
            Path file = folder.resolve("s.dibble");
            SessionFile.write(file, withTake(), Performance.NEW);
            try (FileSystem zip = FileSystems.newFileSystem(file)) {
                Files.delete(zip.getPath("takes/take-1.jsonl"));
            }
            assertThatThrownBy(() -> SessionFile.read(file))
                    .isInstanceOf(DamagedSessionException.class)
                    .hasMessage("the session is damaged: takes/take-1.jsonl is missing");
            SessionFile.Salvaged salvaged = SessionFile.salvage(file);
            assertThat(salvaged.losses()).containsExactly("takes/take-1.jsonl is missing");
            assertThat(salvaged.session().takes()).isEmpty();
            assertThat(salvaged.session().tracks())
                    .extracting(Track::sounding)
                    .isEqualTo(withTake().tracks().stream().map(Track::sounding).toList());
        }

        @Test
        void everyByteThatIsDamagedInATakeIsNoticed() throws Exception {
            Path file = folder.resolve("s.dibble");
            SessionFile.write(file, withTake(), Performance.NEW);
            byte[] whole = Files.readAllBytes(file);
            String text = new String(whole, StandardCharsets.ISO_8859_1);
            int from = text.indexOf("takes/take-1.jsonl") + "takes/take-1.jsonl".length();
            int to = text.indexOf("PK", from);
            Path bad = folder.resolve("bad.dibble");
            for (int at = from + 1; at < to - 24; at += 11) {
                byte[] damaged = whole.clone();
                damaged[at] ^= 0x55;
                Files.write(bad, damaged);
                assertThatThrownBy(() -> SessionFile.read(bad)).isInstanceOf(SessionFormatException.class);
            }
        }

        @Test
        void damagedContainersNeverEndInAnythingButOneLine() throws Exception {
            Path file = folder.resolve("s.dibble");
            SessionFile.write(file, withTake(), Performance.NEW);
            byte[] whole = Files.readAllBytes(file);
            Random random = new Random(7);
            for (int i = 0; i < 400; i++) {
                byte[] damaged =
                        java.util.Arrays.copyOf(whole, i % 3 == 0 ? random.nextInt(whole.length) : whole.length);
                for (int n = random.nextInt(4); n >= 0 && damaged.length > 0; n--) {
                    damaged[random.nextInt(damaged.length)] = (byte) random.nextInt(256);
                }
                Path bad = folder.resolve("bad.dibble");
                Files.write(bad, damaged);
                try {
                    SessionFile.read(bad);
                } catch (IOException e) {
                    assertThat(e.getMessage().lines().count()).isEqualTo(1);
                }
            }
        }

        @Test
        void savingWhereItCannotBeLeavesTheOldFile() throws Exception {
            Path file = folder.resolve("s.dibble");
            SessionFile.write(file, withTake(), Performance.NEW);
            byte[] before = Files.readAllBytes(file);
            assertThatThrownBy(() -> SessionFile.write(folder.resolve("no/s.dibble"), withTake(), Performance.NEW))
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("no folder");
            assertThat(Files.readAllBytes(file)).isEqualTo(before);
        }
    }
}
