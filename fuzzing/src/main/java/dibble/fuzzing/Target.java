package dibble.fuzzing;

import static java.nio.charset.StandardCharsets.UTF_8;

import dibble.cli.Main;
import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.edits.FileImport;
import dibble.files.NamesFile;
import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import dibble.files.ShelfFile;
import dibble.files.TakeLines;
import dibble.files.TakeReader;
import dibble.gear.Instrument;
import dibble.gear.SoundNames;
import dibble.gear.Source;
import dibble.journals.RecoverableWork;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.PortId;
import dibble.midi.Range;
import dibble.programs.NotesPort;
import dibble.programs.OwnPorts;
import dibble.programs.SoundPair;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionSet;
import dibble.session.ShelfItem;
import dibble.sheet.SheetCsv;
import dibble.sheet.SheetFormatException;
import dibble.sound.FuzzedSounds;
import dibble.text.UserException;
import dibble.time.TempoMap;
import dibble.user.SetFile;
import dibble.user.Settings;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * A reader of external input. It either refuses an input with one line in our own words, or reads it; writing and rereading gives an equal value. Anything else that {@link #run} throws is a defect.
 */
public enum Target {
    /** Standard MIDI files, which are imported too. */
    MIDI(Target::midi, Seeds::midi),

    /** The JSON of a session. */
    SESSION(Target::session, Seeds::sessions),

    /** Sessions with their takes, in a container. */
    CONTAINER(Target::container, Seeds::containers),

    /** The lines of a take, read as a journal after a crash. */
    TAKE(Target::take, Seeds::takes),

    /** A journal's folder: its files, one after the other, between lines that say only {@code --}. */
    JOURNAL(Target::journal, Seeds::journals),

    /** MIDNAM documents. */
    MIDNAM(bytes -> names(bytes, "names.midnam"), Seeds::midnam),

    /** Tables of names, and lists, which begin with a number. */
    NAMES(Target::tables, Seeds::tables),

    /** Routing sheets. */
    SHEET(Target::sheet, Seeds::sheets),

    /** Sets of sessions. */
    SET(Target::set, Seeds::sets),

    /** Items of the gear shelf. */
    SHELF(Target::shelf, Seeds::shelf),

    /** The user's settings. */
    SETTINGS(Target::settings, Seeds::settings),

    /** SoundFont and DLS files, which are played too. */
    SOUNDS(Target::sounds, Seeds::sounds),

    /** Names of gear, a line each, as other programs see them. */
    PORTS(Target::ports, Seeds::ports),

    /** A session or a MIDI file that commands are given. */
    COMMANDS(Target::commands, Seeds::commands);

    /** Words that only a library or a machine says. */
    private static final List<String> FOREIGN_WORDS =
            List.of("Exception", "Stream", "regex", "Cannot ", "com.", "java.", "mistake in Dibble");

    /** The longest name that a server of ports takes, in bytes: with the program's name before it, and a zero behind. */
    private static final int LONGEST_NAME = 320 - "Dibble:".length() - 1;

    private static final int MAX_IMPORTED = 3000;

    /** Reads an input; throws an exception that tells the user what is wrong. */
    private interface Reading {
        void read(byte[] bytes) throws IOException, UserException;
    }

    /** Makes inputs that are in order. */
    interface Making {
        List<byte[]> make() throws IOException;
    }

    private final Reading reading;
    private final Making seeds;

    Target(Reading reading, Making seeds) {
        this.reading = reading;
        this.seeds = seeds;
    }

    /** Returns the name used on the command line. */
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Inputs that are in order. */
    public List<byte[]> seeds() throws IOException {
        return seeds.make();
    }

    /**
     * Reads an input.
     *
     * @return whether it was read rather than refused
     */
    public boolean run(byte[] bytes) {
        try {
            reading.read(bytes);
            return true;
        } catch (IOException | UserException e) {
            String line = String.valueOf(e.getMessage());
            if (line.lines().count() != 1 || FOREIGN_WORDS.stream().anyMatch(line::contains)) {
                throw new AssertionError("not a line of our own: " + line, e);
            }
            return false;
        }
    }

    private static void same(Object before, Object after) {
        if (!before.equals(after)) {
            throw new AssertionError("what was written is not what is read");
        }
    }

    private static void midi(byte[] bytes) throws IOException {
        MidiFile midi = MidiFileReader.read(bytes);
        same(midi.tracks(), MidiFileReader.read(MidiFileWriter.write(midi)).tracks());
        if (midi.tracks().stream().mapToInt(track -> track.size()).sum() < MAX_IMPORTED) {
            Session demo = LamplightersRound.session();
            FileImport.of(demo, midi, "File").into(demo, Performance.NEW, FileImport.Tempo.OF_THE_FILE);
        }
    }

    private static void session(byte[] bytes) throws IOException {
        SessionContent opened = SessionContent.readJson(bytes);
        byte[] written = SessionContent.json(opened.session(), opened.performance());
        same(opened.session(), SessionContent.readJson(written).session());
    }

    /** Opens, saves and reopens a session; salvages a damaged one. */
    private static void container(byte[] bytes) throws IOException {
        Path file = Places.file("input.dibble");
        Files.write(file, bytes);
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
        Path again = Places.file("again.dibble");
        SessionFile.write(again, opened.session(), opened.performance());
        Session same = SessionFile.read(again).session();
        same(opened.session().withTakes(List.of()), same.withTakes(List.of()));
        same(opened.session().takes().size(), same.takes().size());
    }

    private static void take(byte[] bytes) throws IOException {
        Take take = TakeReader.readJournal("take-1", "Take", bytes, "recording-1.jsonl", TempoMap.of(96))
                .take();
        byte[] written = TakeLines.write(take);
        TakeReader.Recovered again =
                TakeReader.readJournal("take-1", "Take", written, "recording-1.jsonl", TempoMap.of(96));
        same(List.of(), again.losses());
        if (!Arrays.equals(written, TakeLines.write(again.take()))) {
            throw new AssertionError("what was written is not what is read");
        }
    }

    private static void journal(byte[] bytes) throws IOException {
        Path user = Places.folder("user");
        Path folder = Files.createDirectories(user.resolve("unfinished").resolve("session-1"));
        int number = 0;
        for (byte[] part : parts(bytes)) {
            String name = number == 0 ? "session.json" : "recording-" + number + ".jsonl";
            Files.write(folder.resolve(name), part);
            number++;
        }
        for (RecoverableWork left : RecoverableWork.find(user)) {
            List<String> losses = left.open().losses();
            left.discard();
            if (losses.stream().anyMatch(loss -> loss.endsWith("could not be printed"))) {
                throw new AssertionError("a recording that was read could not be printed");
            }
        }
    }

    /** Cuts an input at lines that say only {@code --}. */
    private static List<byte[]> parts(byte[] bytes) {
        List<byte[]> parts = new ArrayList<>();
        int from = 0;
        for (int at = 0; at + 3 < bytes.length; at++) {
            if (bytes[at] == '\n' && bytes[at + 1] == '-' && bytes[at + 2] == '-' && bytes[at + 3] == '\n') {
                parts.add(Arrays.copyOfRange(bytes, from, at + 1));
                from = at + 4;
            }
        }
        parts.add(Arrays.copyOfRange(bytes, Math.min(from, bytes.length), bytes.length));
        return parts;
    }

    private static void tables(byte[] bytes) throws IOException {
        names(bytes, bytes.length > 0 && Character.isDigit(bytes[0]) ? "names.txt" : "names.csv");
    }

    private static void names(byte[] bytes, String name) throws IOException {
        SoundNames names = NamesFile.read(bytes, name, remark -> {});
        SoundNames again = NamesFile.read(NamesFile.midnam(names), "again.midnam", remark -> {});
        same(names.count(), again.count());
    }

    private static void sheet(byte[] bytes) throws IOException {
        try {
            Session session = SheetCsv.read(bytes, LamplightersRound.session());
            Session again = SheetCsv.read(SheetCsv.of(session), session);
            same(session, again);
        } catch (SheetFormatException e) {
            throw new SessionFormatException(e.getMessage());
        }
    }

    private static void set(byte[] bytes) throws IOException {
        Path file = Places.file("input" + SetFile.ENDING);
        Files.write(file, bytes);
        SessionSet set = SetFile.read(file);
        SetFile.write(set, file);
        same(set, SetFile.read(file));
    }

    private static void shelf(byte[] bytes) throws IOException {
        ShelfItem item = ShelfFile.read(bytes, "shelf.json");
        same(item, ShelfFile.read(ShelfFile.write(item), "shelf.json"));
    }

    private static void settings(byte[] bytes) throws IOException {
        Path folder = Places.folder("settings");
        Files.write(folder.resolve("settings.json"), bytes);
        Settings settings = Settings.read(folder);
        settings.write(folder);
        same(settings, Settings.read(folder));
    }

    private static void sounds(byte[] bytes) throws IOException {
        Path file = Places.file("input.sf2");
        Files.write(file, bytes);
        FuzzedSounds.play(file);
    }

    private static void ports(byte[] bytes) {
        Session session = Session.empty("Ports");
        List<Source> sources = new ArrayList<>();
        List<Instrument> instruments = new ArrayList<>();
        for (String name : new String(bytes, UTF_8).split("\n")) {
            int number = sources.size();
            if (number < 20) {
                String port = new PortId.Program(String.valueOf(number)).text();
                sources.add(Source.keyboard("s" + number, name, port, Range.ALL));
                instruments.add(
                        Instrument.of("i" + number, name, false, new PortId.Program("to" + number).text(), List.of()));
            }
        }
        OwnPorts own = OwnPorts.of(session.withSources(sources).withInstruments(instruments), Performance.NEW);
        Set<String> taken = new HashSet<>();
        own.notes().stream().map(NotesPort::name).forEach(name -> check(name, taken));
        for (SoundPair pair : own.sound()) {
            check(pair.leftName(), taken);
            check(pair.rightName(), taken);
        }
    }

    private static void commands(byte[] bytes) throws IOException {
        boolean isMidi = bytes.length > 0 && bytes[0] == 'M';
        String input = Places.file(isMidi ? "input.mid" : "input.json").toString();
        String demo = Places.file("demo.json").toString();
        String out = Places.file("out.mid").toString();
        Files.write(Path.of(input), bytes);
        Files.write(Path.of(demo), Seeds.sessions().get(0));
        List<List<String>> commands = isMidi
                ? List.of(
                        List.of("route", demo, input, "-o", out),
                        List.of("sort", input, "-o", out, "--by", "hand"),
                        List.of("sort", input, "-o", out, "--by", "channel-and-key"))
                : List.of(List.of("check", input), List.of("trace", input, "--source", "larkspur", "--note", "60"));
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

    private static void check(String name, Set<String> taken) {
        boolean isPlain = name.codePoints()
                .noneMatch(letter -> letter == ':'
                        || Character.isISOControl(letter)
                        || Character.getType(letter) == Character.SURROGATE);
        if (name.isBlank() || !isPlain || name.getBytes(UTF_8).length > LONGEST_NAME || !taken.add(name)) {
            throw new AssertionError("no name for a port: " + name);
        }
    }
}
