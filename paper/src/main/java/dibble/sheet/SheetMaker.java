package dibble.sheet;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.recording.Track;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.SceneSwitch;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Makes a {@link Sheet}: a page for the whole, and one for each scene. */
final class SheetMaker {
    private static final int LETTERS = 26;

    /** So few sounds that a scene sets are said in a sentence. */
    private static final int IN_A_SENTENCE = 2;

    private final Session session;
    private final Performance performance;
    private final Routing routing;
    private final SheetFormatter words;

    SheetMaker(Session session, Performance performance) {
        this.session = session;
        this.performance = performance;
        routing = session.routing(performance);
        words = new SheetFormatter(session);
    }

    Sheet sheet(LocalDate date) {
        List<Sheet.Page> pages = new ArrayList<>();
        pages.add(whole());
        if (session.scenes().isEmpty()) {
            pages.add(new Sheet.Page(say("sheet.keys"), "", keysAndControls(routing, null)));
        }
        for (Scene scene : session.scenes()) {
            Routing there = session.routing(inScene(scene));
            pages.add(
                    new Sheet.Page(say("sheet.scene", scene.name()), switching(scene), keysAndControls(there, scene)));
        }
        return new Sheet(session.name(), date, pages);
    }

    private Performance inScene(Scene scene) {
        return performance.withScene(scene.id());
    }

    private Sheet.Page whole() {
        List<Sheet.Block> blocks = new ArrayList<>();
        blocks.add(sources());
        blocks.addAll(instruments());
        if (!session.scenes().isEmpty()) {
            blocks.add(scenes());
        }
        if (!session.controls().isEmpty()) {
            blocks.add(controls(say("sheet.control-maps-in-every-scene"), session.controls()));
        }
        return new Sheet.Page(
                say("sheet.the-whole"),
                say("sheet.tempo", SessionFormatter.tempo(session.tempo())),
                blocks.stream().filter(SheetMaker::saysAnything).toList());
    }

    private static boolean saysAnything(Sheet.Block block) {
        return !(block instanceof Sheet.Table table) || !table.rows().isEmpty();
    }

    private static Sheet.Table table(String title, List<List<Sheet.Cell>> rows, String... heads) {
        return new Sheet.Table(title, Arrays.asList(heads), rows);
    }

    private static List<Sheet.Cell> row(Object... cells) {
        return Stream.of(cells)
                .map(cell -> cell instanceof Sheet.Cell made ? made : Sheet.Cell.of((String) cell))
                .toList();
    }

    private Sheet.Table sources() {
        List<List<Sheet.Cell>> rows = new ArrayList<>();
        for (Source source : session.sources()) {
            rows.add(row(
                    source.name(),
                    words.keys(source.keys()),
                    words.about(source),
                    source.lanes().stream().map(SequencerLane::name).collect(Collectors.joining(", "))));
        }
        return table(
                say("sheet.played-by"),
                rows,
                say("sheet.source"),
                say("sheet.keys"),
                say("sheet.port-and-channels"),
                say("sheet.lanes"));
    }

    /** Returns a table for each instrument: its parts by channel, their sources, and their tracks. */
    private List<Sheet.Block> instruments() {
        List<Sheet.Block> blocks = new ArrayList<>();
        for (Instrument instrument : session.instruments()) {
            List<List<Sheet.Cell>> rows = instrument.parts().stream()
                    .sorted(Comparator.comparingInt(part -> channel(instrument.ref(part))))
                    .map(part -> part(instrument, part))
                    .toList();
            String port = SessionFormatter.port(instrument.port(), session);
            String title = say(
                    "sheet.instrument",
                    instrument.name(),
                    port.equals(instrument.name()),
                    port,
                    SheetFormatter.receives(instrument.receives()));
            blocks.add(table(
                    title,
                    rows,
                    say("sheet.part"),
                    say("sheet.program-head"),
                    say("sheet.played-by"),
                    say("sheet.output"),
                    say("sheet.tracks")));
        }
        return blocks;
    }

    private int channel(PartRef ref) {
        return routing.channels().channel(ref).orElse(Integer.MAX_VALUE);
    }

    private List<Sheet.Cell> part(Instrument instrument, Part part) {
        PartRef ref = instrument.ref(part);
        List<Zone> zones = session.allZones().stream()
                .filter(zone -> zone.to().equals(new ZoneTarget.ToPart(ref)))
                .toList();
        // Those who play the same keys, or channels, stand together.
        Map<String, Set<String>> players = new LinkedHashMap<>();
        for (Zone zone : zones) {
            String where = zone.channels().isAll()
                    ? SessionFormatter.keys(zone.keys(), session.middleC())
                    : SheetFormatter.channels(zone.channels());
            players.computeIfAbsent(where, it -> new LinkedHashSet<>())
                    .add(SessionFormatter.source(zone.source(), session));
        }
        String tracks = session.tracks().stream()
                .filter(track -> track.part().filter(ref::equals).isPresent())
                .map(Track::name)
                .collect(Collectors.joining(", "));
        return row(
                new Sheet.Cell(part.colour(), SessionFormatter.channel(ref, routing), part.name()),
                words.program(ref, part),
                players.entrySet().stream()
                        .map(at -> String.join(", ", at.getValue()) + " " + at.getKey())
                        .collect(Collectors.joining("; ")),
                output(instrument, part),
                tracks);
    }

    private String output(Instrument instrument, Part part) {
        String level = SheetFormatter.level(part.strip().levelNow());
        if (!instrument.builtIn()) {
            return level;
        }
        int output = part.strip().output();
        return say(
                "sheet.output-at", session.outputs().getOrDefault(output, say("sheet.output-number", output)), level);
    }

    private Sheet.Table scenes() {
        List<List<Sheet.Cell>> rows = new ArrayList<>();
        for (int i = 0; i < session.scenes().size(); i++) {
            Scene scene = session.scenes().get(i);
            rows.add(row(
                    (i + 1) + " " + scene.name(),
                    switching(scene),
                    scene.zones().stream()
                            .map(zone -> SessionFormatter.zone(zone, session))
                            .collect(Collectors.joining(", "))));
        }
        return table(
                say("sheet.scenes"),
                rows,
                say("sheet.scene-head"),
                say("sheet.switched-by"),
                say("sheet.zones-of-its-own"));
    }

    /** Returns the calls of a scene; empty if only the user can activate it. */
    private String switching(Scene scene) {
        SceneSwitch by = session.sceneSwitch();
        return by == null || scene.program() == null
                ? ""
                : say(
                        "sheet.program-change-of",
                        scene.program() + 1,
                        SessionFormatter.source(by.source(), session),
                        by.channel());
    }

    private Sheet.Table controls(String title, List<ControlMap> maps) {
        List<List<Sheet.Cell>> rows = new ArrayList<>();
        for (ControlMap map : maps) {
            List<String> does =
                    new ArrayList<>(map.sends().stream().map(words::send).toList());
            does.addAll(SheetFormatter.manner(map));
            rows.add(row(
                    SessionFormatter.controlMap(map, session),
                    SessionFormatter.source(map.source(), session) + ", " + words.when(map),
                    String.join("; ", does)));
        }
        return table(title, rows, say("sheet.control-map"), say("sheet.moved-by"), say("sheet.does"));
    }

    private List<Sheet.Block> keysAndControls(Routing there, Scene scene) {
        List<Sheet.Block> blocks = new ArrayList<>();
        List<String> silent = new ArrayList<>();
        for (Source source : session.sources()) {
            List<Zone> zones = there.zones().stream()
                    .filter(zone -> zone.isPlayedBy(source.id()))
                    .toList();
            if (zones.isEmpty()) {
                silent.add(source.name());
            } else if (source.lanes().isEmpty()) {
                blocks.add(board(source, zones, there, scene));
            } else {
                blocks.add(lanes(source, zones, there));
            }
        }
        if (!silent.isEmpty()) {
            blocks.add(new Sheet.Remark(
                    say("sheet.plays-nothing-here", SessionFormatter.list(silent), silent.size() == 1)));
        }
        blocks.add(controls(say("sheet.control-maps"), there.controlMaps()));
        if (scene != null) {
            blocks.add(sounds(scene, there));
        }
        return onOneRuler(blocks).filter(SheetMaker::saysAnything).toList();
    }

    /** All keyboards of a page on one ruler, so that the same note is at the same place. */
    private static Stream<Sheet.Block> onOneRuler(List<Sheet.Block> blocks) {
        List<Range> all = blocks.stream()
                .filter(Sheet.Board.class::isInstance)
                .map(block -> ((Sheet.Board) block).keys())
                .toList();
        int low = all.stream().mapToInt(Range::low).min().orElse(0);
        int high = all.stream().mapToInt(Range::high).max().orElse(127);
        return blocks.stream()
                .map(block -> block instanceof Sheet.Board board ? board.withRuler(new Range(low, high)) : block);
    }

    /** Returns the sounds of a scene: a sentence for a few, else a table. */
    private Sheet.Block sounds(Scene scene, Routing there) {
        List<List<Sheet.Cell>> rows = new ArrayList<>();
        for (SceneSound sound : scene.sounds()) {
            Part part = session.part(sound.part()).orElse(null);
            rows.add(row(
                    new Sheet.Cell(
                            part == null ? 0 : part.colour(),
                            SessionFormatter.channel(sound.part(), there),
                            part == null ? sound.part().toString() : part.name()),
                    words.sound(sound.part(), sound.sound())));
        }
        if (rows.isEmpty() || rows.size() > IN_A_SENTENCE) {
            return table(say("sheet.sounds-that-the-scene-sets"), rows, say("sheet.part"), say("sheet.is-set-to"));
        }
        return new Sheet.Remark(say(
                "sheet.this-scene-sets",
                rows.stream()
                        .map(row -> say(
                                "sheet.sets-to", row.get(0).text(), row.get(1).text()))
                        .collect(Collectors.joining("; "))));
    }

    /** A sequencer has no keyboard: its zones by channel. */
    private Sheet.Table lanes(Source source, List<Zone> zones, Routing there) {
        List<List<Sheet.Cell>> rows = new ArrayList<>();
        for (Zone zone : zones) {
            String names = source.lanes().stream()
                    .filter(lane -> zone.channels().holds(lane.channel() - 1)
                            && !zone.channels().isAll())
                    .map(SequencerLane::name)
                    .collect(Collectors.joining(", "));
            rows.add(row(
                    cell(zone, there),
                    zone.channels().isAll() ? say("sheet.all-channels") : SheetFormatter.channels(zone.channels()),
                    names,
                    details(zone, cell(zone, there)).stream()
                            .filter(text -> !text.equals(SheetFormatter.channels(zone.channels())))
                            .collect(Collectors.joining(" · "))));
        }
        return table(
                source.name() + " · " + words.about(source),
                rows,
                say("sheet.sound"),
                say("sheet.channel"),
                say("sheet.lane"),
                say("sheet.how"));
    }

    private Sheet.Cell cell(Zone zone, Routing there) {
        return new Sheet.Cell(
                SessionFormatter.colour(zone, session),
                zone.to() instanceof ZoneTarget.ToPart to ? SessionFormatter.channel(to.part(), there) : "·",
                SessionFormatter.target(zone.to(), session));
    }

    private Sheet.Board board(Source source, List<Zone> zones, Routing there, Scene scene) {
        List<Integer> laneEnds = new ArrayList<>();
        List<Sheet.Band> bands = new ArrayList<>();
        int low = source.keys().low();
        int high = source.keys().high();
        List<Zone> rising = zones.stream()
                .sorted(Comparator.comparingInt(zone -> zone.keys().low()))
                .toList();
        for (Zone zone : rising) {
            int lane = 0;
            while (lane < laneEnds.size() && laneEnds.get(lane) >= zone.keys().low()) {
                lane++;
            }
            if (lane == laneEnds.size()) {
                laneEnds.add(0);
            }
            laneEnds.set(lane, zone.keys().high());
            Sheet.Cell cell = cell(zone, there);
            boolean isAll = zone.keys().equals(Range.ALL);
            low = isAll ? low : Math.min(low, zone.keys().low());
            high = isAll ? high : Math.max(high, zone.keys().high());
            bands.add(new Sheet.Band(
                    letter(bands.size()),
                    zone.keys(),
                    lane,
                    cell.colour(),
                    cell.chip(),
                    SessionFormatter.zone(zone, session),
                    details(zone, cell),
                    scene == null || scene.zones().stream().noneMatch(zone::equals)));
        }
        Range keys = new Range(low, high);
        return new Sheet.Board(source.name(), words.about(source), keys, keys, laneEnds.size(), bands);
    }

    /** Returns the details of a zone, its address first, and its target if the zone has another name. */
    private List<String> details(Zone zone, Sheet.Cell cell) {
        List<String> details = new ArrayList<>(words.details(zone));
        if (zone.to() instanceof ZoneTarget.ToPart) {
            String instrument = session.instrument(zone.to().instrument())
                    .map(Instrument::name)
                    .orElse(zone.to().instrument());
            boolean named = SessionFormatter.zone(zone, session).equals(cell.text());
            details.add(0, (named ? "" : cell.text() + ", ") + instrument + " " + cell.chip());
        }
        return details;
    }

    /** A, B … Z, AA, AB … */
    private static String letter(int number) {
        String last = String.valueOf((char) ('A' + number % LETTERS));
        return number < LETTERS ? last : letter(number / LETTERS - 1) + last;
    }
}
