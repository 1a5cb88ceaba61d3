package dibble.fuzzing;

import static java.nio.charset.StandardCharsets.UTF_8;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.edits.TakeEdits;
import dibble.files.NamesFile;
import dibble.files.SessionContent;
import dibble.files.ShelfFile;
import dibble.files.TakeLines;
import dibble.gear.SoundNames;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionSet;
import dibble.session.ShelfItem;
import dibble.sheet.SheetCsv;
import dibble.user.SetFile;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** Inputs that are in order, from which others are made. */
final class Seeds {
    private static final String TABLE = "bank,msb,lsb,program,name\nWarm,0,1,0,Strings\nCold,1,0,0,\"Frost\"\n";
    private static final byte[] CUT = "\n--\n".getBytes(UTF_8);

    private Seeds() {}

    static List<byte[]> midi() {
        MidiFile played = LamplightersRound.played();
        return List.of(
                MidiFileWriter.write(played),
                MidiFileWriter.write(new MidiFile(
                        played.type(), played.division(), played.tracks().subList(0, 1))));
    }

    static List<byte[]> sessions() {
        return List.of(
                SessionContent.json(LamplightersRound.session(), LamplightersRound.performance()),
                SessionContent.json(Session.empty("Empty"), Performance.NEW));
    }

    static List<byte[]> containers() throws IOException {
        Path file = Places.file("seed.dibble");
        SessionFile.write(file, recorded(), LamplightersRound.performance());
        return List.of(Files.readAllBytes(file));
    }

    static List<byte[]> takes() throws IOException {
        List<byte[]> all = new ArrayList<>();
        for (Take take : recorded().takes()) {
            all.add(TakeLines.write(take));
        }
        return all;
    }

    static List<byte[]> journals() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(sessions().get(0));
        out.write(CUT);
        out.write(takes().get(0));
        return List.of(out.toByteArray());
    }

    static List<byte[]> midnam() throws IOException {
        SoundNames names = NamesFile.read(TABLE.getBytes(UTF_8), "names.csv", remark -> {});
        return List.of(NamesFile.midnam(names));
    }

    static List<byte[]> tables() {
        return List.of(TABLE.getBytes(UTF_8), "0 Warm strings\n1 Frost\n".getBytes(UTF_8));
    }

    static List<byte[]> sheets() {
        return List.of(SheetCsv.of(LamplightersRound.session()).getBytes(UTF_8));
    }

    static List<byte[]> sets() throws IOException {
        Path file = Places.file("seed" + SetFile.ENDING);
        SessionSet set = SessionSet.empty("Evening")
                .with(new SessionSet.Entry("one.dibble").withNotes("Lamps lit").withTempo(72.5))
                .with(new SessionSet.Entry("two.dibble"));
        SetFile.write(set.withPedals(82, 83), file);
        return List.of(Files.readAllBytes(file));
    }

    static List<byte[]> shelf() {
        Session demo = LamplightersRound.session();
        Performance performance = LamplightersRound.performance();
        return List.of(
                ShelfFile.write(ShelfItem.ofSource(demo, performance, "larkspur", true)),
                ShelfFile.write(ShelfItem.ofInstrument(demo, performance, "sorrel", true)));
    }

    static List<byte[]> settings() {
        return List.of("{\"middleC\":\"C4\",\"night\":true,\"hiddenPorts\":[\"a\"],\"soundFolders\":[\"/a\"]}"
                .getBytes(UTF_8));
    }

    static List<byte[]> sounds() throws IOException {
        List<byte[]> all = new ArrayList<>();
        for (String name : List.of("glass.sf2", "glass.dls")) {
            try (InputStream in = Seeds.class.getResourceAsStream(name)) {
                all.add(in.readAllBytes());
            }
        }
        return all;
    }

    static List<byte[]> commands() {
        return List.of(midi().get(0), sessions().get(0));
    }

    static List<byte[]> ports() {
        return List.of("Larkspur 73\nTansy 32\nLarkspur 73\nGläser\n".getBytes(UTF_8));
    }

    private static Session recorded() {
        Session demo = LamplightersRound.session();
        Session session = demo;
        Random random = new Random(4);
        for (int take = 1; take <= 2; take++) {
            EventStore log = new EventStore();
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
}
