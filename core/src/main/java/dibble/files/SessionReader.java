package dibble.files;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.exc.StreamConstraintsException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.cfg.JsonNodeFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import dibble.gear.Instrument;
import dibble.gear.PartRef;
import dibble.gear.SoundFile;
import dibble.gear.Source;
import dibble.gear.UnknownFields;
import dibble.midi.MiddleC;
import dibble.recording.PrintMode;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.session.AcceptedFinding;
import dibble.session.ClockPlan;
import dibble.session.Colours;
import dibble.session.Connection;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.text.UserException;
import dibble.time.Marker;
import dibble.time.TempoMap;
import java.io.IOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A reader of {@code session.json}. It rejects everything that the shipped JSON Schema rejects, with its own messages,
 * and some things that a schema cannot express. {@link SessionContent} reads takes and clips from the container.
 */
public final class SessionReader {
    /** The version of the format that this program writes, and the newest that it reads. */
    static final int VERSION = 1;

    /** The last tick that a file may name: whole numbers up to here are exact wherever JSON is read. */
    public static final long LAST_TICK = (1L << 53) - 1;

    /** The maximum number of items in a list. */
    public static final int MAX_ITEMS = 100_000;

    /** The maximum number of tracks. */
    public static final int MAX_TRACKS = 10_000;

    private static final int MAX_OUTPUTS = 64;

    private static final ObjectMapper JSON = JsonMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .disable(JsonNodeFeature.STRIP_TRAILING_BIGDECIMAL_ZEROES)
            .enable(JsonParser.Feature.STRICT_DUPLICATE_DETECTION)
            .build();
    private static final Map<String, MiddleC> MIDDLE_C =
            RoutingReader.words(Stream.of(MiddleC.values()), MiddleC::name);
    private static final Map<String, PrintMode> PRINTED =
            RoutingReader.words(Stream.of(PrintMode.values()), PrintMode::word);

    /** The fields of a take in the session; its events are in a separate file. */
    public record SaidOfTake(String id, String name, String file, UnknownFields extras) {}

    /** A session without takes and clips, with their fields in the session. */
    public record Read(
            Session session, Performance performance, Map<String, TrackFiles.Said> tracks, List<SaidOfTake> takes) {
        /** The files that it names beside itself. */
        public Set<String> files() {
            Set<String> files = takes.stream().map(SaidOfTake::file).collect(Collectors.toCollection(HashSet::new));
            for (TrackFiles.Said said : tracks.values()) {
                Stream.of(said.clip(), said.prints()).filter(Objects::nonNull).forEach(files::add);
            }
            return files;
        }
    }

    private final RoutingReader routing = new RoutingReader();
    private final Map<String, TrackFiles.Said> tracks = new LinkedHashMap<>();

    private SessionReader() {}

    /** Parses JSON; the message of the exception names the file. */
    public static JsonNode parse(byte[] bytes, String file) throws SessionFormatException {
        try {
            JsonNode node = JsonTree.read(JSON, bytes);
            if (node == null || node.isMissingNode()) {
                throw new SessionFormatException(say("session-reader.is-empty-expected-a-session", file));
            }
            return node;
        } catch (JsonProcessingException e) {
            throw new SessionFormatException(file + place(e.getLocation()) + ": " + whatIsWrong(e));
        } catch (IOException e) {
            throw new SessionFormatException(say("session-reader.not-utf-8-text-expected", file));
        }
    }

    private static String place(JsonLocation at) {
        return at == null || at.getLineNr() < 1
                ? ""
                : say("session-reader.line-column", at.getLineNr(), at.getColumnNr());
    }

    /** Returns a message for a parser error: the parser's own text is about the parser. */
    static String whatIsWrong(JsonProcessingException e) {
        String said = String.valueOf(e.getOriginalMessage());
        if (e instanceof StreamConstraintsException) {
            return said.contains("depth")
                    ? say("session-reader.nested-too-deep-expected-at")
                    : say("session-reader.a-text-name-or-number");
        }
        if (said.startsWith("Duplicate field")) {
            return say(
                    "session-reader.appears-twice-expected-once",
                    SingleLineText.of(said.replaceFirst("^Duplicate field", "field")));
        }
        if (said.startsWith("Trailing token")) {
            return say("session-reader.text-after-the-end-expected");
        }
        return say("session-reader.not-json-expected-a-value");
    }

    /** Reads everything that {@code session.json} has. */
    public static Read read(JsonNode node) throws SessionFormatException {
        if (!node.isObject() || !"dibble-session".equals(node.path("format").asText())) {
            throw new SessionFormatException(say("session-reader.format-not-a-dibble-session"));
        }
        JsonNode version = node.path("version");
        if (version.isNumber() && version.decimalValue().compareTo(BigDecimal.valueOf(VERSION)) > 0) {
            throw new SessionFormatException(
                    say("session-reader.version-is-newer-than-this", version.asText(), VERSION));
        }
        return Fields.of(node, "$").make(new SessionReader()::session);
    }

    private Read session(Fields f) throws SessionFormatException {
        f.get("$schema");
        f.get("format");
        f.required("version", 1, VERSION);
        String name = f.required("name");
        MiddleC middleC = f.word("middleC", MiddleC.C4, MIDDLE_C);
        TempoMap tempo = tempo(f);
        List<Marker> markers = f.list(
                "markers",
                MAX_ITEMS,
                at -> new Marker(at.required("at", 0L, LAST_TICK), at.text("name", "")),
                SessionReader::nameOf);
        List<Source> sources = f.list("sources", RoutingReader.MAX_GEAR, RoutingReader::source);
        List<Instrument> instruments = Colours.give(f.list("instruments", RoutingReader.MAX_GEAR, routing::instrument));
        List<Track> all = f.list("tracks", MAX_TRACKS, this::track);
        List<SaidOfTake> takes = f.list("takes", MAX_TRACKS, SessionReader::take);
        Set<String> ids = new HashSet<>();
        for (SaidOfTake take : takes) {
            if (!ids.add(take.id)) {
                throw new UserException(say("session-reader.take-appears-twice-expected-unique", take.id));
            }
        }
        Performance performance = performance(f, all);
        Session session = Session.empty(name)
                .with()
                .middleC(middleC)
                .tempo(tempo)
                .markers(markers)
                .sources(sources)
                .instruments(instruments)
                .zones(f.list("zones", RoutingReader.MAX_ZONES, RoutingReader::zone))
                .controls(f.list("controls", RoutingReader.MAX_ZONES, RoutingReader::controlMap))
                .scenes(f.list("scenes", RoutingReader.MAX_GEAR, RoutingReader::scene))
                .sceneSwitch(f.has("sceneSwitch") ? f.object("sceneSwitch").make(RoutingReader::sceneSwitch) : null)
                .tracks(all)
                .settled(f.list("settledChecks", MAX_ITEMS, SessionReader::settled))
                .clock(f.object("clock").make(SessionReader::clock))
                .outputs(outputs(f))
                .soundFiles(f.list("soundFiles", RoutingReader.MAX_GEAR, SessionReader::soundFile, SoundFile::id))
                .extras(f.extras())
                .build();
        return new Read(session, performance, tracks, takes);
    }

    private static TempoMap tempo(Fields f) throws SessionFormatException {
        List<TempoMap.Tempo> tempos =
                f.list("tempo", MAX_ITEMS, SessionReader::tempoChange, at -> String.valueOf(at.at()));
        List<TempoMap.Meter> meters = f.list(
                "meter",
                MAX_ITEMS,
                at -> new TempoMap.Meter(at.required("at", 0L, LAST_TICK), (int) at.required("beats", 1L, 64L), (int)
                        at.required("unit", 1L, 64L)),
                at -> String.valueOf(at.at()));
        return new TempoMap(
                tempos.isEmpty() ? List.of(new TempoMap.Tempo(0, 120)) : tempos,
                meters.isEmpty() ? List.of(new TempoMap.Meter(0, 4, 4)) : meters);
    }

    static TempoMap.Tempo tempoChange(Fields at) throws SessionFormatException {
        return new TempoMap.Tempo(at.required("at", 0L, LAST_TICK), at.required("bpm", 5.0, 999.0));
    }

    private Performance performance(Fields session, List<Track> all) throws SessionFormatException {
        String bare = session.text("activeScene");
        Fields fields = session.object("performance");
        Set<String> unheard = new HashSet<>();
        fields.flags("hear").forEach((source, heard) -> {
            if (!heard) {
                unheard.add(source);
            }
        });
        Set<String> armed = fields.texts("armed");
        if (!fields.has("armed")) {
            all.forEach(track -> armed.add(track.id()));
        }
        return new Performance(
                fields.text("activeScene", bare),
                unheard,
                armed,
                fields.texts("muted"),
                fields.texts("soloed"),
                routing.channelNow(),
                connections(fields),
                fields.texts("setUp"));
    }

    private static Set<Connection> connections(Fields performance) throws SessionFormatException {
        Set<Connection> cables = new LinkedHashSet<>();
        performance.list(
                "connections",
                MAX_ITEMS,
                at -> {
                    Connection cable = new Connection(at.required("own"), at.required("other"));
                    if (!cables.add(cable)) {
                        throw new UserException(say(
                                "session.appears-twice-expected-unique-ids",
                                "connections",
                                cable.own() + " – " + cable.other()));
                    }
                    return cable;
                },
                at -> at.own() + " " + at.other());
        return cables;
    }

    private static AcceptedFinding settled(Fields f) throws SessionFormatException {
        return new AcceptedFinding(f.required("code"), List.copyOf(f.texts("ids")), f.extras());
    }

    private static ClockPlan clock(Fields f) throws SessionFormatException {
        return new ClockPlan(f.texts("to"), f.text("from"));
    }

    private static Map<Integer, String> outputs(Fields f) throws SessionFormatException {
        return RoutingReader.numbered(f.list(
                "outputs",
                MAX_OUTPUTS,
                at -> Map.entry((int) at.required("number", 1, MAX_OUTPUTS), at.text("name", "")),
                at -> String.valueOf(at.getKey())));
    }

    private static SoundFile soundFile(Fields f) throws SessionFormatException {
        String id = f.requiredForm("id", Form.ID);
        return new SoundFile(id, f.text("name", id), f.required("path"), f.requiredForm("sha256", Form.SHA_256));
    }

    private Track track(Fields f) throws SessionFormatException {
        String id = f.requiredForm("id", Form.ID);
        Track.Input input = input(f);
        String part = f.object("to").form("part", Form.PART);
        List<Integer> printOf = new ArrayList<>();
        List<Region> regions = f.list("regions", MAX_ITEMS, region -> region(region, printOf), SessionReader::nameOf);
        Fields byHand = f.object("byHand");
        tracks.put(
                id,
                new TrackFiles.Said(
                        f.form("file", Form.TRACK_FILE),
                        f.form("prints", Form.PRINTS_FILE),
                        regions,
                        printOf,
                        new TrackFiles.SaidByHand(
                                byHand.form("played", Form.PLAYED),
                                byHand.form("muted", Form.PLAYED),
                                byHand.form("mutedEvents", Form.EVENTS)),
                        f.text("printedFrom")));
        return new Track(
                id, f.text("name", id), input, part == null ? null : PartRef.parse(part), Regions.NONE, f.extras());
    }

    private static Track.Input input(Fields track) throws SessionFormatException {
        Fields f = track.object("takes");
        String part = f.form("part", Form.PART);
        Integer key = f.number("key", 0, 127);
        String source = f.form("source", Form.ID);
        Integer channel = f.number("channel", 1, 16);
        String zone = f.form("zone", Form.ID);
        boolean rest = f.flag("rest", false);
        long ways = Stream.of(part, source, zone, rest ? "rest" : null)
                .filter(Objects::nonNull)
                .count();
        if (ways == 0 && key == null && channel == null && f.everything().isEmpty() && track.has("takes")) {
            return new Track.Nothing();
        }
        boolean known = ways == 1 && (key == null || part != null) && (channel == null || source != null);
        if (!known) {
            return new Track.Unknown(f.everything());
        }
        if (part != null) {
            return key == null ? new Track.OfPart(PartRef.parse(part)) : new Track.OfKey(PartRef.parse(part), key);
        }
        if (source != null) {
            return channel == null ? new Track.OfSource(source) : new Track.OfChannel(source, channel);
        }
        return zone == null ? new Track.Rest() : new Track.OfZone(zone);
    }

    private static Region region(Fields f, List<Integer> printOf) throws SessionFormatException {
        printOf.add(f.number("print", 0, MAX_ITEMS, 0));
        return new Region(
                f.form("take", Form.ID),
                f.required("from", 0L, LAST_TICK),
                f.required("to", 0L, LAST_TICK),
                f.word("printed", PrintMode.REPLACE_ALL, PRINTED),
                f.flag("edited", false),
                Track.NOTHING);
    }

    /** Returns the key of a marker's unknown fields in the session. */
    static String nameOf(Marker marker) {
        return marker.at() + " " + marker.name();
    }

    /** Returns the key of a region's unknown fields in the track. */
    static String nameOf(Region region) {
        return (region.take() == null ? "" : region.take() + " ") + region.from() + " " + region.to();
    }

    private static SaidOfTake take(Fields f) throws SessionFormatException {
        String id = f.requiredForm("id", Form.ID);
        return new SaidOfTake(id, f.text("name", id), f.requiredForm("file", Form.TAKE_FILE), f.extras());
    }
}
