package dibble.sheet;

import static dibble.text.CoreText.say;

import dibble.gear.PartRef;
import dibble.gear.UnknownFields;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
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
import dibble.text.UserException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/** Reads the rows that {@link SheetCsv} writes. Used once. */
final class SheetReader {
    private static final int MAX_ROWS = 100_000;
    private static final int MAX_CHARACTERS = 1 << 24;
    private static final int MAX_SHOWN = 60;
    private static final Pattern ID = Pattern.compile("[a-z0-9-]+");
    private static final Pattern NUMBERS = Pattern.compile("(-?\\d{1,5}) to (-?\\d{1,5})");
    private static final Pattern SEND =
            Pattern.compile("(\\w+)(?: (\\d{1,5}))? (\\d{1,5}) to (\\d{1,5}) > (.+?)(?: rest (\\d{1,3}))?");

    private final Session into;
    private CSVRecord row;
    private Column column;

    /** The content of the rows of one scene, or of none. */
    private static final class Told {
        final List<Zone> zones = new ArrayList<>();
        final List<ControlMap> controls = new ArrayList<>();
    }

    SheetReader(Session into) {
        this.into = into;
    }

    Session read(String text) throws SheetFormatException {
        if (text.length() > MAX_CHARACTERS) {
            throw new SheetFormatException(say("sheet.too-long", text.length(), MAX_CHARACTERS));
        }
        Map<String, Told> told = new LinkedHashMap<>();
        told.put("", new Told());
        into.scenes().forEach(scene -> told.put(scene.id(), new Told()));
        try (CSVParser rows = Csv.rows(text)) {
            checkHeads(rows.getHeaderNames());
            for (CSVRecord each : rows) {
                row = each;
                if (rows.getRecordNumber() > MAX_ROWS) {
                    throw new SheetFormatException(say("sheet.too-many-rows", MAX_ROWS));
                }
                take(told);
            }
        } catch (IOException | UncheckedIOException | IllegalStateException | IllegalArgumentException e) {
            throw new SheetFormatException(say("sheet.no-rows-of-values", row == null ? 1 : row.getRecordNumber() + 2));
        } catch (UserException e) {
            // Zones and control maps reject invalid values with one line.
            throw row == null ? new SheetFormatException(say("sheet.no-rows-of-values", 1)) : wrong(e.getMessage());
        }
        try {
            return with(told);
        } catch (UserException e) {
            // Two with one id, such as a row that was doubled.
            throw new SheetFormatException(e.getMessage());
        }
    }

    private Session with(Map<String, Told> told) {
        List<Scene> scenes = into.scenes().stream()
                .map(scene -> scene.withZones(told.get(scene.id()).zones).withControls(told.get(scene.id()).controls))
                .toList();
        return into.withZones(told.get("").zones)
                .withControls(told.get("").controls)
                .withScenes(scenes);
    }

    private static void checkHeads(List<String> heads) throws SheetFormatException {
        List<String> missing = Stream.of(Column.values())
                .map(each -> each.head)
                .filter(head -> !heads.contains(head))
                .toList();
        if (!missing.isEmpty()) {
            throw new SheetFormatException(say("sheet.missing-columns", String.join(", ", missing)));
        }
    }

    private void take(Map<String, Told> told) throws SheetFormatException {
        String scene = text(Column.SCENE);
        Told there = told.get(scene);
        if (there == null) {
            throw expected(say("sheet.a-scene-of-the-session", String.join(", ", told.keySet())));
        }
        switch (text(Column.KIND)) {
            case SheetCsv.ZONE -> there.zones.add(zone());
            case SheetCsv.CONTROL -> there.controls.add(control());
            default -> {
                column = Column.KIND;
                throw expected(SheetCsv.oneOf(SheetCsv.ZONE, SheetCsv.CONTROL));
            }
        }
    }

    private Zone zone() throws SheetFormatException {
        String id = id();
        UnknownFields extras = into.allZones().stream()
                .filter(zone -> zone.id().equals(id))
                .findFirst()
                .map(Zone::extras)
                .orElse(UnknownFields.NONE);
        Range keys = keys();
        return new Zone(
                id,
                text(Column.NAME),
                source(),
                channels(),
                keys,
                range(Column.VELOCITY),
                flag(Column.KEYSWITCH, SheetCsv.YES, SheetCsv.NO),
                target(),
                number(Column.TRANSPOSE, -127, 127),
                noteMap(),
                flag(Column.OTHER_KEYS, SheetCsv.SILENT, SheetCsv.PLAY),
                flag(Column.FOLD, SheetCsv.YES, SheetCsv.NO),
                velocityTo(),
                pass(),
                new TreeSet<>(numbers(Column.WITHOUT, 0, 127)),
                flag(Column.ENABLED, SheetCsv.YES, SheetCsv.NO),
                extras);
    }

    private ControlMap control() throws SheetFormatException {
        String id = id();
        ControlMap before = into.allControls().stream()
                .filter(map -> map.id().equals(id))
                .findFirst()
                .orElse(null);
        return new ControlMap(
                id,
                text(Column.NAME),
                source(),
                channels(),
                flag(Column.REACHES_ZONES, SheetCsv.YES, SheetCsv.NO),
                flag(Column.OUTSIDE, SheetCsv.NOTHING, SheetCsv.HOLD),
                flag(Column.ENABLED, SheetCsv.YES, SheetCsv.NO),
                trigger(),
                sends(before),
                before == null ? UnknownFields.NONE : before.extras());
    }

    private String text(Column of) throws SheetFormatException {
        column = of;
        if (!row.isSet(of.head)) {
            throw expected(say("sheet.a-value"));
        }
        return Csv.text(row.get(of.head));
    }

    private SheetFormatException expected(String what) {
        String given = (row.isSet(column.head) ? Csv.text(row.get(column.head)) : "").replaceAll("\\s+", " ");
        return wrong(
                say("sheet.expected", given.length() > MAX_SHOWN ? given.substring(0, MAX_SHOWN) + "…" : given, what));
    }

    private SheetFormatException wrong(String what) {
        return new SheetFormatException(say("sheet.row-column", row.getRecordNumber() + 1, column.head, what));
    }

    private String id() throws SheetFormatException {
        String id = text(Column.ID);
        if (!ID.matcher(id).matches()) {
            throw expected(say("sheet.an-id"));
        }
        return id;
    }

    private String source() throws SheetFormatException {
        String source = text(Column.SOURCE);
        if (!source.equals(Zone.ANY_SOURCE) && !ID.matcher(source).matches()) {
            throw expected(say(
                    "sheet.a-source", into.sources().stream().map(it -> it.id()).collect(Collectors.joining(", "))));
        }
        return source;
    }

    private ChannelSet channels() throws SheetFormatException {
        return switch (text(Column.CHANNELS)) {
            case SheetCsv.ALL -> ChannelSet.ALL;
            case SheetCsv.NOTHING -> new ChannelSet(0);
            default ->
                ChannelSet.of(numbers(Column.CHANNELS, 1, 16).stream()
                        .mapToInt(Integer::intValue)
                        .toArray());
        };
    }

    private boolean flag(Column of, String yes, String no) throws SheetFormatException {
        String text = text(of);
        if (!text.equals(yes) && !text.equals(no)) {
            throw expected(SheetCsv.oneOf(yes, no));
        }
        return text.equals(yes);
    }

    private int number(Column of, int low, int high) throws SheetFormatException {
        return number(text(of), of, low, high);
    }

    private int number(String text, Column of, int low, int high) throws SheetFormatException {
        column = of;
        if (text.matches("-?\\d{1,5}")) {
            int value = Integer.parseInt(text);
            if (value >= low && value <= high) {
                return value;
            }
        }
        throw expected(say("sheet.numbers", low, high));
    }

    private List<Integer> numbers(Column of, int low, int high) throws SheetFormatException {
        List<Integer> numbers = new ArrayList<>();
        for (String word : words(text(of))) {
            numbers.add(number(word, of, low, high));
        }
        return numbers;
    }

    private static List<String> words(String text) {
        return Stream.of(text.split(" ")).filter(word -> !word.isEmpty()).toList();
    }

    private int[] pair(Column of, int most) throws SheetFormatException {
        Matcher matcher = NUMBERS.matcher(text(of));
        if (!matcher.matches()) {
            throw expected(say("sheet.from-to", most));
        }
        return new int[] {number(matcher.group(1), of, 0, most), number(matcher.group(2), of, 0, most)};
    }

    private Range range(Column of) throws SheetFormatException {
        int[] pair = pair(of, 127);
        return new Range(pair[0], pair[1]);
    }

    private Range keys() throws SheetFormatException {
        String[] ends = text(Column.KEYS).split(SheetCsv.TO, -1);
        int[] keys = new int[2];
        for (int i = 0; i < 2; i++) {
            keys[i] = ends.length != 2
                    ? -1
                    : NoteNames.parse(ends[i], into.middleC()).orElse(-1);
        }
        if (keys[0] < 0 || keys[1] < 0) {
            throw expected(say("sheet.keys-such-as"));
        }
        return new Range(keys[0], keys[1]);
    }

    private Zone.VelocityMap velocityTo() throws SheetFormatException {
        if (text(Column.VELOCITY_TO).isEmpty()) {
            return null;
        }
        int[] pair = pair(Column.VELOCITY_TO, 127);
        return new Zone.VelocityMap(pair[0], pair[1]);
    }

    private ZoneTarget target() throws SheetFormatException {
        String part = text(Column.PART);
        String channel = text(Column.TO_CHANNEL);
        String instrument = text(Column.INSTRUMENT);
        if (!ID.matcher(instrument).matches()) {
            throw expected(say("sheet.an-instrument"));
        }
        if (!part.isEmpty()) {
            column = Column.PART;
            return new ZoneTarget.ToPart(PartRef.parse(instrument + "/" + part));
        }
        return channel(instrument, channel, Column.TO_CHANNEL);
    }

    private ZoneTarget channel(String instrument, String channel, Column of) throws SheetFormatException {
        return channel.equals(SheetCsv.SAME)
                ? new ZoneTarget.ToSameChannel(instrument)
                : new ZoneTarget.ToChannel(instrument, number(channel, of, 1, 16));
    }

    private Set<EventKind> pass() throws SheetFormatException {
        Set<EventKind> kinds = EnumSet.noneOf(EventKind.class);
        if (!text(Column.PASS).equals(SheetCsv.NOTHING)) {
            for (String word : words(text(Column.PASS))) {
                kinds.add(EventKind.ofWord(word)
                        .orElseThrow(() -> expected(SheetCsv.oneOf(Stream.of(EventKind.values())
                                .map(EventKind::word)
                                .toArray(String[]::new)))));
            }
        }
        return kinds;
    }

    private Map<Integer, List<Integer>> noteMap() throws SheetFormatException {
        Map<Integer, List<Integer>> map = new TreeMap<>();
        for (String word : words(text(Column.NOTE_MAP))) {
            String[] sides = word.split(">", -1);
            if (sides.length != 2) {
                throw expected(say("sheet.a-note-map"));
            }
            List<Integer> notes = new ArrayList<>();
            for (String note : sides[1].split("\\+", -1)) {
                notes.add(number(note, Column.NOTE_MAP, 0, 127));
            }
            map.put(number(sides[0], Column.NOTE_MAP, 0, 127), notes);
        }
        return map;
    }

    private ControlMap.Trigger trigger() throws SheetFormatException {
        List<String> words = words(text(Column.CONTROL));
        ControlKind kind = words.isEmpty() ? null : kind(words.get(0));
        if (kind == null || !kind.isTrigger() || words.size() != (kind.isNumbered() ? 2 : 1)) {
            throw expected(say("sheet.a-control", kinds(ControlKind::isTrigger)));
        }
        int number = kind.isNumbered() ? number(words.get(1), Column.CONTROL, 0, kind.mostNumber()) : 0;
        int[] window = pair(Column.WINDOW, kind.most());
        return new ControlMap.Trigger(kind, number, window[0], window[1]);
    }

    private static ControlKind kind(String word) {
        return ControlKind.ofWord(word).orElse(null);
    }

    private static String kinds(Function<ControlKind, Boolean> which) {
        return Stream.of(ControlKind.values())
                .filter(which::apply)
                .map(ControlKind::word)
                .collect(Collectors.joining(", "));
    }

    private List<ControlMap.Send> sends(ControlMap before) throws SheetFormatException {
        List<ControlMap.Send> sends = new ArrayList<>();
        for (String text : text(Column.SENDS).split(";", -1)) {
            UnknownFields extras =
                    before != null && sends.size() < before.sends().size()
                            ? before.sends().get(sends.size()).extras()
                            : UnknownFields.NONE;
            sends.add(send(text.strip(), extras));
        }
        return sends;
    }

    private ControlMap.Send send(String text, UnknownFields extras) throws SheetFormatException {
        Matcher send = SEND.matcher(text);
        ControlKind kind = send.matches() ? kind(send.group(1)) : null;
        if (kind == null || kind.isNumbered() != (send.group(2) != null)) {
            throw expected(say("sheet.a-send", kinds(each -> true)));
        }
        Column of = Column.SENDS;
        return new ControlMap.Send(
                kind,
                send.group(2) == null ? 0 : number(send.group(2), of, 0, kind.mostNumber()),
                number(send.group(3), of, 0, kind.most()),
                number(send.group(4), of, 0, kind.most()),
                send.group(6) == null ? null : (Integer) number(send.group(6), of, 0, 127),
                aim(kind, send.group(5)),
                extras);
    }

    private SendTarget aim(ControlKind kind, String text) throws SheetFormatException {
        if (kind == ControlKind.SCENE) {
            if (!ID.matcher(text).matches()) {
                throw expected(say("sheet.a-scene"));
            }
            return new SendTarget.ToScene(text);
        }
        if (text.equals(SheetCsv.ALL_PARTS)) {
            return new SendTarget.AllParts();
        }
        String[] sides = text.split(" channel ", -1);
        if (sides.length == 2 && ID.matcher(sides[0]).matches()) {
            return channel(sides[0], sides[1], Column.SENDS);
        }
        return new ZoneTarget.ToPart(PartRef.parse(text));
    }
}
