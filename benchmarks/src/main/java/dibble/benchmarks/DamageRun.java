package dibble.benchmarks;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_8;

import dibble.cli.Main;
import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.edits.FileImport;
import dibble.edits.TakeEdits;
import dibble.files.NamesFile;
import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import dibble.files.ShelfFile;
import dibble.gear.SoundNames;
import dibble.journals.Unfinished;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.ShortMessage;
import dibble.recording.EventLog;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.ShelfItem;
import dibble.sheet.SheetCsv;
import dibble.sheet.SheetFormatException;
import dibble.user.Settings;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;

/**
 * Damages sessions, takes, journals, MIDI files, names of sounds, routing sheets, shelf items and settings, and has
 * everything read them that reads any.
 * A defect is whatever is neither read nor refused in one line of our own within five seconds, and what is read and
 * cannot be saved and opened again. Run by {@code ./dibble bench damage [CASES [SEED]]}; each defect's file is kept.
 */
public final class DamageRun {
    private static final long MOST_SECONDS = 5;
    private static final String TABLE = "bank,msb,lsb,program,name\nWarm,0,1,0,Strings\nCold,1,0,0,\"Frost\"\n";

    /** Words that only a library or a machine says. */
    private static final List<String> FOREIGN_WORDS =
            List.of("Exception", "Stream", "regex", "Cannot ", "com.", "java.", "mistake in Dibble");

    /** Reads a file; throws what is wrong with it. */
    private interface Reading {
        void read(Path file) throws IOException;
    }

    /** Makes a damaged file. */
    private interface Making {
        byte[] make(Damage damage, Random random) throws IOException;
    }

    private record Kind(Making making, Reading reading) {}

    private final Path folder;
    private final Map<String, Kind> kinds = new LinkedHashMap<>();
    private ExecutorService worker = Executors.newSingleThreadExecutor();
    private int defects;
    private long slowest;

    private DamageRun(Path folder) throws IOException {
        this.folder = folder;
        byte[] midi = MidiFileWriter.write(LamplightersRound.played());
        byte[] bare = SessionContent.json(LamplightersRound.session(), LamplightersRound.performance());
        byte[] container = container();
        byte[] lines = entry(container, "takes/take-1.jsonl");
        byte[] shelf = ShelfFile.write(
                ShelfItem.ofSource(LamplightersRound.session(), LamplightersRound.performance(), "larkspur", false));
        Path whole = folder.resolve("whole.json");
        Files.write(whole, bare);
        kinds.put("container.dibble", new Kind((damage, random) -> damage.bytes(container), DamageRun::session));
        kinds.put("entries.dibble", new Kind((damage, random) -> damage.container(container), DamageRun::session));
        kinds.put("bare.json", new Kind((damage, random) -> damage.json(bare), DamageRun::session));
        kinds.put("bytes.json", new Kind((damage, random) -> damage.bytes(bare), DamageRun::session));
        kinds.put(
                "recording-1.jsonl",
                new Kind(
                        (damage, random) -> random.nextBoolean() ? damage.lines(lines) : damage.bytes(lines),
                        this::journal));
        kinds.put("played.mid", new Kind((damage, random) -> damage.bytes(midi), DamageRun::midi));
        kinds.put("command.mid", new Kind((damage, random) -> damage.bytes(midi), file -> commands(whole, file)));
        kinds.put("command.json", new Kind((damage, random) -> damage.json(bare), file -> commands(file, null)));
        kinds.put("shelf.json", new Kind((damage, random) -> damage.json(shelf), file -> {
            ShelfFile.read(Files.readAllBytes(file), "shelf.json");
        }));
        byte[] names = NamesFile.midnam(tabled());
        kinds.put("names.midnam", new Kind((damage, random) -> damage.bytes(names), file -> {
            NamesFile.read(file, remark -> {});
        }));
        kinds.put("names.csv", new Kind((damage, random) -> damage.bytes(TABLE.getBytes(UTF_8)), file -> {
            NamesFile.read(file, remark -> {});
        }));
        byte[] rows = SheetCsv.of(LamplightersRound.session()).getBytes(UTF_8);
        kinds.put("sheet.csv", new Kind((damage, random) -> damage.bytes(rows), DamageRun::sheet));
        byte[] settings = "{\"middleC\":\"C4\",\"night\":true,\"hiddenPorts\":[\"a\"]}".getBytes();
        kinds.put(
                "settings.json",
                new Kind(
                        (damage, random) -> random.nextBoolean() ? damage.json(settings) : damage.bytes(settings),
                        file -> Settings.read(file.getParent())));
    }

    /** @param args how many cases, and the seed of the first */
    public static void main(String[] args) throws IOException {
        int cases = args.length > 0 ? Integer.parseInt(args[0]) : 100_000;
        long seed = args.length > 1 ? Long.parseLong(args[1]) : 1;
        Path folder = Files.createTempDirectory("dibble-damage");
        int defects = new DamageRun(folder).run(cases, seed);
        delete(folder);
        System.exit(defects == 0 ? 0 : 1);
    }

    private static Session recorded() {
        Session demo = LamplightersRound.session();
        Session session = demo;
        Random random = new Random(4);
        for (int take = 1; take <= 2; take++) {
            EventLog log = new EventLog();
            for (int i = 0; i < 60; i++) {
                log.add(i * 40_000_000L, 0, ShortMessage.noteOn(0, 40 + random.nextInt(40), 1 + random.nextInt(127)));
            }
            log.addExclusive(3_000_000_000L, 0, new byte[] {(byte) 0xF0, 0x7D, 1, (byte) 0xF7});
            Session before = session;
            session = TakeEdits.keep(
                    before,
                    LamplightersRound.performance(),
                    TakeEdits.closed(new Take(
                            "take-" + take,
                            "Take",
                            List.of("larkspur"),
                            log,
                            List.of(
                                    new Take.Mark(0, 0, before.routing(Performance.NEW)),
                                    new Take.Mark(
                                            30, 1_200_000_000L, before.routing(Performance.NEW.withScene("snow")))),
                            demo.tempo(),
                            4_000_000_000L,
                            take * 1_000_000_000L)));
        }
        return session;
    }

    private byte[] container() throws IOException {
        Path file = folder.resolve("whole.dibble");
        SessionFile.write(file, recorded(), LamplightersRound.performance());
        return Files.readAllBytes(file);
    }

    private static byte[] entry(byte[] zip, String name) throws IOException {
        try (var in = new java.util.zip.ZipInputStream(new ByteArrayInputStream(zip))) {
            for (var entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                if (entry.getName().equals(name)) {
                    return in.readAllBytes();
                }
            }
        }
        throw new IllegalStateException("no " + name);
    }

    private int run(int cases, long seed) throws IOException {
        Map<String, int[]> counts = new LinkedHashMap<>();
        List<String> names = List.copyOf(kinds.keySet());
        for (int i = 0; i < cases; i++) {
            String name = names.get(i % names.size());
            int[] count = counts.computeIfAbsent(name, key -> new int[2]);
            Random random = new Random(seed + i);
            Path file = folder.resolve(name);
            Files.write(file, kinds.get(name).making.make(new Damage(random), random));
            count[one(name, file, seed + i) ? 1 : 0]++;
        }
        worker.shutdown();
        counts.forEach((name, count) -> System.out.printf("%-20s %7d read, %7d refused%n", name, count[1], count[0]));
        System.out.printf(
                "%d cases, slowest %d ms, heap of %d MiB: %d defects%n",
                cases, slowest / 1_000_000, Runtime.getRuntime().maxMemory() >> 20, defects);
        return defects;
    }

    /** Whether it was read. */
    private boolean one(String name, Path file, long seed) throws IOException {
        long started = System.currentTimeMillis();
        Future<String> reading = worker.submit(() -> refusal(kinds.get(name).reading, file));
        String refusal;
        try {
            refusal = reading.get(MOST_SECONDS, TimeUnit.SECONDS);
        } catch (TimeoutException e) {
            worker.shutdownNow();
            worker = Executors.newSingleThreadExecutor();
            defect(name, file, seed, "not done within " + MOST_SECONDS + " s");
            return false;
        } catch (ExecutionException e) {
            defect(name, file, seed, e.getCause().toString());
            return false;
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        slowest = Math.max(slowest, (System.currentTimeMillis() - started) * 1_000_000);
        if (refusal != null
                && (refusal.lines().count() != 1 || FOREIGN_WORDS.stream().anyMatch(refusal::contains))) {
            defect(name, file, seed, refusal);
        }
        return refusal == null;
    }

    private static String refusal(Reading reading, Path file) {
        try {
            reading.read(file);
            return null;
        } catch (IOException e) {
            return String.valueOf(e.getMessage());
        }
    }

    private void defect(String name, Path file, long seed, String what) throws IOException {
        defects++;
        Path kept = Files.createDirectories(Path.of("target", "damage")).resolve(seed + "-" + name);
        Files.copy(file, kept, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        System.out.println("defect, " + kept + ": " + what.lines().findFirst().orElse(""));
    }

    /** Opened, saved and opened again; what is damaged is opened as far as it is there. */
    private static void session(Path file) throws IOException {
        SessionContent opened;
        try {
            opened = SessionFile.read(file);
        } catch (IOException e) {
            try {
                SessionFile.salvage(file);
            } catch (IOException none) {
                // Nothing is there.
            }
            throw e;
        }
        Path again = file.resolveSibling("again.dibble");
        SessionFile.write(again, opened.session(), opened.performance());
        Session same = SessionFile.read(again).session();
        if (!same.withTakes(List.of()).equals(opened.session().withTakes(List.of()))
                || same.takes().size() != opened.session().takes().size()) {
            throw new IllegalStateException("what was saved is not what is opened");
        }
    }

    private void journal(Path file) throws IOException {
        Path user = Files.createDirectories(folder.resolve("user/unfinished/session-1"));
        Files.copy(file, user.resolve("recording-1.jsonl"), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        for (Unfinished left : Unfinished.find(folder.resolve("user"))) {
            List<String> losses = left.open().losses();
            left.discard();
            if (losses.stream().anyMatch(loss -> loss.endsWith("could not be printed"))) {
                throw new IllegalStateException("a recording that was read could not be printed");
            }
        }
    }

    private static void sheet(Path file) throws IOException {
        try {
            SheetCsv.read(Files.readString(file, ISO_8859_1), LamplightersRound.session());
        } catch (SheetFormatException e) {
            throw new IOException(e.getMessage());
        }
    }

    private static SoundNames tabled() {
        try {
            return NamesFile.read(TABLE.getBytes(UTF_8), "names.csv", remark -> {});
        } catch (SessionFormatException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void midi(Path file) throws IOException {
        MidiFile midi = MidiFileReader.read(file);
        MidiFile again = MidiFileReader.read(MidiFileWriter.write(midi));
        if (!again.tracks().equals(midi.tracks())) {
            throw new IllegalStateException("what was written is not what is read");
        }
        FileImport.of(LamplightersRound.session(), midi, "File")
                .into(LamplightersRound.session(), Performance.NEW, FileImport.Tempo.OF_THE_FILE);
    }

    private static void commands(Path session, Path midi) throws IOException {
        String out = session.resolveSibling("out.mid").toString();
        List<List<String>> commands = midi == null
                ? List.of(
                        List.of("check", session.toString()),
                        List.of("trace", session.toString(), "--source", "larkspur", "--note", "60"))
                : List.of(
                        List.of("route", session.toString(), midi.toString(), "-o", out),
                        List.of("sort", midi.toString(), "-o", out, "--by", "hand"),
                        List.of("sort", midi.toString(), "-o", out, "--by", "channel-and-key"));
        for (List<String> command : commands) {
            StringWriter err = new StringWriter();
            int code = Main.run(
                    new ByteArrayInputStream(new byte[0]),
                    OutputStream.nullOutputStream(),
                    new PrintWriter(err, true),
                    command.toArray(String[]::new));
            if (code == 2) {
                throw new IOException(err.toString().strip());
            }
        }
    }

    private static void delete(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path path : (Iterable<Path>) files.sorted(java.util.Comparator.reverseOrder())::iterator) {
                Files.delete(path);
            }
        }
    }
}
