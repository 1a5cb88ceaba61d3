package dibble.sheet;

import static dibble.text.CoreText.say;

import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import dibble.text.Csv;
import dibble.text.PlainText;
import dibble.text.UserException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Collection;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/**
 * The zones and control maps of a session as comma-separated values (RFC 4180), a row each, in their order: to be looked
 * through and changed in a table, and brought back in by {@link #read}.
 */
public final class SheetCsv {
    static final String TO = " to ";
    static final String ZONE = "zone";
    static final String CONTROL = "control";
    static final String YES = "yes";
    static final String NO = "no";
    static final String ALL = "all";
    static final String SAME = "same";
    static final String SILENT = "silent";
    static final String PLAY = "play";
    static final String HOLD = "hold";
    static final String NOTHING = "nothing";
    static final String ALL_PARTS = "all parts";

    private SheetCsv() {}

    /** All rows, with a head. */
    public static String of(Session session) {
        StringBuilder text = new StringBuilder();
        String[] heads = Stream.of(Column.values()).map(column -> column.head).toArray(String[]::new);
        CSVFormat format = CSVFormat.RFC4180.builder().setHeader(heads).get();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            write(printer, "", session.zones(), session.controls(), session.middleC());
            for (Scene scene : session.scenes()) {
                write(printer, scene.id(), scene.zones(), scene.controls(), session.middleC());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }

    /**
     * Returns a session with the zones and control maps of a sheet instead of its own. Existing objects keep properties
     * that a sheet does not have.
     *
     * @throws SheetFormatException if the sheet cannot be read, or names an object that the session does not have
     */
    public static Session read(byte[] bytes, Session into) throws SheetFormatException {
        try {
            return read(PlainText.decode(bytes), into);
        } catch (UserException e) {
            throw new SheetFormatException(e.getMessage());
        }
    }

    /** Reads the text of a sheet. */
    public static Session read(String text, Session into) throws SheetFormatException {
        return new SheetReader(into).read(text);
    }

    private static void write(CSVPrinter to, String scene, List<Zone> zones, List<ControlMap> controls, MiddleC middleC)
            throws IOException {
        for (Zone zone : zones) {
            print(to, zone(scene, zone, middleC));
        }
        for (ControlMap map : controls) {
            print(to, control(scene, map));
        }
    }

    private static void print(CSVPrinter to, Map<Column, String> row) throws IOException {
        to.printRecord(Stream.of(Column.values())
                .map(column -> Csv.cell(row.getOrDefault(column, "")))
                .toArray());
    }

    private static Map<Column, String> zone(String scene, Zone zone, MiddleC middleC) {
        Map<Column, String> row = new EnumMap<>(Column.class);
        row.put(Column.KIND, ZONE);
        row.put(Column.SCENE, scene);
        row.put(Column.ID, zone.id());
        row.put(Column.NAME, zone.name());
        row.put(Column.SOURCE, zone.source());
        row.put(Column.CHANNELS, channels(zone.channels()));
        row.put(
                Column.KEYS,
                NoteNames.nameAndNumber(zone.keys().low(), middleC)
                        + TO
                        + NoteNames.nameAndNumber(zone.keys().high(), middleC));
        row.put(Column.VELOCITY, range(zone.velocity()));
        if (zone.velocityTo() != null) {
            row.put(
                    Column.VELOCITY_TO,
                    zone.velocityTo().first() + TO + zone.velocityTo().last());
        }
        row.put(Column.TRANSPOSE, String.valueOf(zone.transpose()));
        row.put(Column.INSTRUMENT, zone.to().instrument());
        if (zone.to() instanceof ZoneTarget.ToPart part) {
            row.put(Column.PART, part.part().part());
        } else {
            row.put(
                    Column.TO_CHANNEL,
                    zone.to() instanceof ZoneTarget.ToChannel channel ? String.valueOf(channel.channel()) : SAME);
        }
        row.put(Column.KEYSWITCH, word(zone.keyswitch()));
        row.put(
                Column.PASS,
                zone.pass().isEmpty()
                        ? NOTHING
                        : EnumSet.copyOf(zone.pass()).stream()
                                .map(EventKind::word)
                                .collect(Collectors.joining(" ")));
        row.put(Column.WITHOUT, numbers(zone.blockControllers()));
        row.put(
                Column.NOTE_MAP,
                zone.noteMap().entrySet().stream()
                        .map(entry -> entry.getKey() + ">"
                                + entry.getValue().stream().map(String::valueOf).collect(Collectors.joining("+")))
                        .collect(Collectors.joining(" ")));
        row.put(Column.OTHER_KEYS, zone.dropUnmapped() ? SILENT : PLAY);
        row.put(Column.FOLD, word(zone.fold()));
        row.put(Column.ENABLED, word(zone.enabled()));
        return row;
    }

    private static Map<Column, String> control(String scene, ControlMap map) {
        Map<Column, String> row = new EnumMap<>(Column.class);
        row.put(Column.KIND, CONTROL);
        row.put(Column.SCENE, scene);
        row.put(Column.ID, map.id());
        row.put(Column.NAME, map.name());
        row.put(Column.SOURCE, map.source());
        row.put(Column.CHANNELS, channels(map.channels()));
        row.put(Column.CONTROL, kind(map.when().kind(), map.when().number()));
        row.put(Column.WINDOW, map.when().low() + TO + map.when().high());
        row.put(Column.OUTSIDE, map.ignoreOutside() ? NOTHING : HOLD);
        row.put(Column.REACHES_ZONES, word(map.keep()));
        row.put(Column.SENDS, map.sends().stream().map(SheetCsv::send).collect(Collectors.joining("; ")));
        row.put(Column.ENABLED, word(map.enabled()));
        return row;
    }

    private static String send(ControlMap.Send send) {
        return kind(send.kind(), send.number()) + " " + send.first() + TO + send.last() + " > " + aim(send.to())
                + (send.rest() == null ? "" : " rest " + send.rest());
    }

    private static String aim(SendTarget to) {
        if (to instanceof SendTarget.AllParts) {
            return ALL_PARTS;
        }
        if (to instanceof SendTarget.ToScene scene) {
            return scene.scene();
        }
        if (to instanceof ZoneTarget.ToPart part) {
            return part.part().toString();
        }
        return ((ZoneTarget) to).instrument() + " channel "
                + (to instanceof ZoneTarget.ToChannel channel ? String.valueOf(channel.channel()) : SAME);
    }

    private static String kind(ControlKind kind, int number) {
        return kind.isNumbered() ? kind.word() + " " + number : kind.word();
    }

    private static String channels(ChannelSet set) {
        return set.isAll() ? ALL : set.isEmpty() ? NOTHING : numbers(set.numbers());
    }

    private static String numbers(Collection<Integer> numbers) {
        return numbers.stream().map(String::valueOf).collect(Collectors.joining(" "));
    }

    private static String range(Range range) {
        return range.low() + TO + range.high();
    }

    private static String word(boolean is) {
        return is ? YES : NO;
    }

    /** Returns the words of a choice, for a message with the expected value. */
    static String oneOf(String... words) {
        return say("sheet.one-of", String.join(", ", words));
    }
}
