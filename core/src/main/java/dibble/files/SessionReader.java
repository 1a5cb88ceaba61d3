package dibble.files;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.networknt.schema.Error;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dibble.gear.Extras;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Receives;
import dibble.gear.SequencerLane;
import dibble.gear.Sound;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.MiddleC;
import dibble.midi.Range;
import dibble.recording.Onto;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.routing.Aim;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.SceneSwitch;
import dibble.routing.Target;
import dibble.routing.Zone;
import dibble.session.ClockPlan;
import dibble.session.Colours;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionBuilder;
import dibble.session.Settled;
import dibble.time.TempoMap;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Reads {@code session.json}: parsed, compared with the JSON Schema that ships with Dibble, then made into values.
 * Takes and clips lie beside it in the container and are read by {@link SessionFile}.
 */
final class SessionReader {
    /** The version of the format that this program writes, and the newest that it reads. */
    static final int VERSION = 1;

    private static final ObjectMapper JSON = JsonMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .enable(JsonParser.Feature.STRICT_DUPLICATE_DETECTION)
            .build();
    private static final Schema SCHEMA = schema();

    /** A session without takes and clips, with the files that they are in, by id. */
    record Read(
            Session session,
            Performance performance,
            Map<String, TrackFiles.Said> trackFiles,
            Map<String, String> takeFiles,
            Map<String, String> takeNames) {
        /** The files that it names beside itself. */
        List<String> files() {
            List<String> files = new ArrayList<>(takeFiles.values());
            for (TrackFiles.Said said : trackFiles.values()) {
                Stream.of(said.clip(), said.prints()).filter(Objects::nonNull).forEach(files::add);
            }
            return files;
        }
    }

    private final Map<PartRef, Integer> channelNow = new HashMap<>();
    private final Map<String, TrackFiles.Said> trackFiles = new HashMap<>();
    private final Map<String, String> takeFiles = new LinkedHashMap<>();
    private final Map<String, String> takeNames = new HashMap<>();

    private static Schema schema() {
        try (InputStream in = SessionReader.class.getResourceAsStream("session.schema.json")) {
            return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                    .getSchema(JSON.readTree(in));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static JsonNode parse(byte[] bytes, String file) throws SessionFormatException {
        try {
            JsonNode node = JSON.readTree(bytes);
            if (node == null || node.isMissingNode()) {
                throw new SessionFormatException(file + " is empty (expected a session)");
            }
            return node;
        } catch (JsonProcessingException e) {
            JsonLocation at = e.getLocation();
            String place = at == null ? "" : ", line " + at.getLineNr() + ", column " + at.getColumnNr();
            throw new SessionFormatException(file + place + ": " + firstLine(e.getOriginalMessage()));
        } catch (IOException e) {
            throw new SessionFormatException(file + ": " + firstLine(String.valueOf(e.getMessage())));
        }
    }

    static String firstLine(String text) {
        return text.lines().findFirst().orElse("").strip();
    }

    static Read read(JsonNode node) throws SessionFormatException {
        checkHead(node);
        Optional<Error> worst = SCHEMA.validate(withoutNulls(node)).stream()
                .min(Comparator.comparingInt(
                        error -> -error.getInstanceLocation().getNameCount()));
        if (worst.isPresent()) {
            String place = path(worst.get().getInstanceLocation().toString());
            throw new SessionFormatException(
                    firstLine(place + ": " + worst.get().getMessage()));
        }
        return new SessionReader().session(new Fields(node, "$"));
    }

    private static void checkHead(JsonNode node) throws SessionFormatException {
        if (!node.isObject() || !"dibble-session".equals(node.path("format").asText())) {
            throw new SessionFormatException("$.format: no session of Dibble (expected \"dibble-session\")");
        }
        JsonNode version = node.path("version");
        if (version.isNumber() && version.decimalValue().compareTo(BigDecimal.valueOf(VERSION)) > 0) {
            throw new SessionFormatException(
                    "$.version: " + version.asText() + " is newer than this Dibble (expected at most " + VERSION + ")");
        }
    }

    /** A field that is null is one that was left out. Items of lists stay, so that paths do. */
    private static JsonNode withoutNulls(JsonNode node) {
        if (node.isObject()) {
            ObjectNode kept = JSON.createObjectNode();
            node.properties().forEach(field -> {
                if (!field.getValue().isNull()) {
                    kept.set(field.getKey(), withoutNulls(field.getValue()));
                }
            });
            return kept;
        }
        if (node.isArray()) {
            ArrayNode items = JSON.createArrayNode();
            node.forEach(item -> items.add(withoutNulls(item)));
            return items;
        }
        return node;
    }

    /** {@code /sources/0/keys} as {@code $.sources[0].keys}. */
    private static String path(String pointer) {
        StringBuilder path = new StringBuilder("$");
        for (String step : pointer.split("/")) {
            if (step.matches("\\d+")) {
                path.append('[').append(step).append(']');
            } else if (!step.isEmpty()) {
                path.append('.').append(step);
            }
        }
        return path.toString();
    }

    private Read session(Fields fields) throws SessionFormatException {
        return fields.make(f -> {
            f.get("$schema");
            f.get("format");
            f.get("version");
            String name = f.text("name", "");
            MiddleC middleC = MiddleC.valueOf(f.text("middleC", "C4"));
            List<TempoMap.Tempo> tempos = f.list("tempo", t -> {
                double bpm = t.get("bpm").doubleValue();
                return new TempoMap.Tempo(t.get("at").longValue(), bpm);
            });
            List<TempoMap.Meter> meters = f.list(
                    "meter", m -> new TempoMap.Meter(m.get("at").longValue(), m.number("beats"), m.number("unit")));
            TempoMap tempo = new TempoMap(
                    tempos.isEmpty() ? List.of(new TempoMap.Tempo(0, 120)) : tempos,
                    meters.isEmpty() ? List.of(new TempoMap.Meter(0, 4, 4)) : meters);
            List<Source> sources = f.list("sources", SessionReader::source);
            List<Instrument> instruments = Colours.give(f.list("instruments", this::instrument));
            List<Track> tracks = f.list("tracks", this::track);
            f.list("takes", this::take);
            Performance performance = performance(f, tracks);
            Session session = new SessionBuilder(name)
                    .middleC(middleC)
                    .tempo(tempo)
                    .sources(sources)
                    .instruments(instruments)
                    .zones(f.list("zones", SessionReader::zone))
                    .controls(f.list("controls", SessionReader::controlMap))
                    .scenes(f.list("scenes", SessionReader::scene))
                    .sceneSwitch(f.has("sceneSwitch") ? f.object("sceneSwitch").make(SessionReader::sceneSwitch) : null)
                    .tracks(tracks)
                    .settled(f.list("settledChecks", SessionReader::settled))
                    .clock(f.has("clock") ? f.object("clock").make(SessionReader::clock) : ClockPlan.NONE)
                    .extras(f.extras())
                    .build();
            return new Read(session, performance, trackFiles, takeFiles, takeNames);
        });
    }

    private Performance performance(Fields session, List<Track> tracks) {
        Fields fields = session.object("performance");
        String bare = session.text("activeScene", null);
        Set<String> unheard = new HashSet<>();
        JsonNode hear = fields.get("hear");
        if (hear != null) {
            hear.properties().forEach(entry -> {
                if (!entry.getValue().booleanValue()) {
                    unheard.add(entry.getKey());
                }
            });
        }
        Set<String> armed = fields.names("armed");
        if (!fields.has("armed")) {
            tracks.forEach(track -> armed.add(track.id()));
        }
        return new Performance(
                fields.text("activeScene", bare),
                unheard,
                armed,
                fields.names("muted"),
                fields.names("soloed"),
                channelNow);
    }

    static Source source(Fields f) throws SessionFormatException {
        String id = f.text("id", null);
        ChannelSet listen = f.channels("listen", ChannelSet.ALL);
        return new Source(
                id,
                f.text("name", id),
                SourceKind.valueOf(f.text("kind", "keyboard").toUpperCase(Locale.ROOT)),
                f.text("port", "stand-in:" + id),
                f.range("keys", Range.ALL),
                listen,
                Optional.ofNullable(f.channels("sends", null)),
                f.kinds("accept", EnumSet.allOf(EventKind.class)),
                f.number("transpose", 0),
                f.text("localControl", "off").equals("on"),
                f.text("ownInstrument", null),
                f.flag("echoes", false),
                List.copyOf(f.names("sysexTo")),
                f.list("lanes", lane -> new SequencerLane(lane.text("name", ""), lane.number("channel", 1))),
                f.extras());
    }

    private Instrument instrument(Fields f) throws SessionFormatException {
        String id = f.text("id", null);
        List<Part> parts = f.list("parts", part -> part(part, id));
        return new Instrument(
                id,
                f.text("name", id),
                f.text("kind", "module").equals("built-in"),
                f.text("port", "stand-in:" + id),
                Receives.ofWord(f.text("receives", Receives.BY_CHANNEL.word())),
                List.copyOf(f.names("hearsDirectly")),
                parts,
                f.extras());
    }

    private Part part(Fields f, String instrument) throws SessionFormatException {
        String id = f.text("id", null);
        JsonNode channel = f.get("channel");
        Integer now = f.number("channelNow");
        if (now != null) {
            channelNow.put(new PartRef(instrument, id), now);
        }
        return new Part(
                id,
                f.text("name", id),
                channel == null || channel.isTextual() ? null : (Integer) channel.intValue(),
                f.numbers("bank"),
                f.number("program"),
                f.number("volume"),
                f.number("pan"),
                f.range("keys", Range.ALL),
                f.flag("drums", false),
                f.noteNames("noteNames"),
                f.noteNames("keyswitches"),
                f.number("output", 1),
                f.number("colour", 0),
                f.extras());
    }

    private static Scene scene(Fields f) throws SessionFormatException {
        String id = f.text("id", null);
        return new Scene(
                id,
                f.text("name", id),
                f.number("program"),
                f.list("zones", SessionReader::zone),
                f.list("controls", SessionReader::controlMap),
                f.list("sounds", SessionReader::sceneSound),
                f.extras());
    }

    private static SceneSound sceneSound(Fields f) {
        PartRef part = PartRef.parse(f.text("part", null));
        Sound sound = new Sound(f.numbers("bank"), f.number("program"), f.number("volume"), f.number("pan"));
        return new SceneSound(part, sound, f.extras());
    }

    private static SceneSwitch sceneSwitch(Fields f) {
        return new SceneSwitch(f.text("source", null), f.number("channel", 1));
    }

    private static Settled settled(Fields f) {
        return new Settled(f.text("code", null), List.copyOf(f.names("ids")));
    }

    static ControlMap controlMap(Fields f) throws SessionFormatException {
        String id = f.text("id", null);
        return new ControlMap(
                id,
                f.text("name", ""),
                f.text("source", null),
                f.channels("channels", ChannelSet.ALL),
                f.flag("keep", false),
                f.text("outside", "clamp").equals("ignore"),
                f.flag("enabled", true),
                f.object("when").make(SessionReader::trigger),
                f.list("sends", SessionReader::send),
                f.extras());
    }

    private static ControlMap.Trigger trigger(Fields f) {
        ControlKind kind = kind(f);
        List<Integer> window = f.numbers("window", List.of(0, kind.most()));
        return new ControlMap.Trigger(kind, number(f, kind), window.get(0), window.get(1));
    }

    private static ControlMap.Send send(Fields f) {
        ControlKind kind = kind(f);
        List<Integer> window = f.numbers("window", List.of(0, kind.most()));
        Aim to = f.get("to").isTextual() ? new Aim.ToScene(f.text("to", null)) : aim(f.object("to"));
        return new ControlMap.Send(kind, number(f, kind), window.get(0), window.get(1), f.number("rest"), to);
    }

    private static ControlKind kind(Fields f) {
        return ControlKind.ofWord(f.text("kind", null)).orElseThrow();
    }

    private static int number(Fields f, ControlKind kind) {
        Integer number = f.number("number");
        if (number == null && kind.isNumbered()) {
            throw new IllegalArgumentException(
                    "a " + kind.word() + " without a number (expected \"number\", 0 to 127)");
        }
        return number == null ? 0 : number;
    }

    private static Aim aim(Fields f) {
        if (f.has("scene")) {
            return new Aim.ToScene(f.text("scene", null));
        }
        return f.has("parts") ? new Aim.AllParts() : target(f);
    }

    static Zone zone(Fields f) throws SessionFormatException {
        String id = f.text("id", null);
        List<Integer> velocityTo = f.numbers("velocityTo");
        Map<Integer, List<Integer>> noteMap = new HashMap<>();
        JsonNode notes = f.get("noteMap");
        if (notes != null) {
            notes.properties().forEach(entry -> noteMap.put(Integer.parseInt(entry.getKey()), notes(entry.getValue())));
        }
        List<Integer> blocked = f.numbers("blockControllers");
        return new Zone(
                id,
                f.text("name", ""),
                f.text("source", null),
                f.channels("channels", ChannelSet.ALL),
                f.range("keys", Range.ALL),
                f.range("velocity", Range.VELOCITIES),
                f.text("role", "play").equals("keyswitch"),
                target(f.object("to")),
                f.number("transpose", 0),
                noteMap,
                f.text("unmapped", "transpose").equals("drop"),
                f.flag("fold", false),
                velocityTo == null ? null : new Zone.VelocityMap(velocityTo.get(0), velocityTo.get(1)),
                f.kinds("pass", Zone.PASSED),
                blocked == null ? Set.of() : Set.copyOf(blocked),
                f.flag("enabled", true),
                f.extras());
    }

    private static List<Integer> notes(JsonNode value) {
        if (value.isInt()) {
            return List.of(value.intValue());
        }
        Integer[] notes = new Integer[value.size()];
        Arrays.setAll(notes, i -> value.get(i).intValue());
        return List.of(notes);
    }

    private static Target target(Fields f) {
        if (f.has("part")) {
            return new Target.ToPart(PartRef.parse(f.text("part", null)));
        }
        String instrument = f.text("instrument", null);
        JsonNode channel = f.get("channel");
        return channel.isTextual()
                ? new Target.ToSameChannel(instrument)
                : new Target.ToChannel(instrument, channel.intValue());
    }

    private static ClockPlan clock(Fields f) {
        return new ClockPlan(f.names("to"), f.text("from", null));
    }

    private Track track(Fields f) throws SessionFormatException {
        String id = f.text("id", null);
        Fields takes = f.object("takes");
        Track.Input input;
        if (takes.has("part") && takes.has("key")) {
            input = new Track.OfKey(PartRef.parse(takes.text("part", null)), takes.number("key"));
        } else if (takes.has("part")) {
            input = new Track.OfPart(PartRef.parse(takes.text("part", null)));
        } else if (takes.has("source") && takes.has("channel")) {
            input = new Track.OfChannel(takes.text("source", null), takes.number("channel"));
        } else if (takes.has("source")) {
            input = new Track.OfSource(takes.text("source", null));
        } else if (takes.has("zone")) {
            input = new Track.OfZone(takes.text("zone", null));
        } else if (takes.has("rest")) {
            input = new Track.Rest();
        } else if (f.has("takes") && takes.everything().equals(Extras.NONE)) {
            input = new Track.Nothing();
        } else {
            input = new Track.Unknown(takes.everything());
        }
        PartRef to = null;
        if (f.has("to") && f.get("to").has("part")) {
            to = PartRef.parse(f.object("to").text("part", null));
        }
        List<Integer> printOf = new ArrayList<>();
        List<Region> regions = f.list("regions", region -> region(region, printOf));
        trackFiles.put(
                id,
                new TrackFiles.Said(
                        f.text("file", null), f.text("prints", null), regions, printOf, f.text("printedFrom", null)));
        return new Track(id, f.text("name", id), input, to, Regions.NONE, f.extras());
    }

    private static Region region(Fields f, List<Integer> printOf) {
        printOf.add(f.number("print", 0));
        return new Region(
                f.text("take", null),
                f.get("from").longValue(),
                f.get("to").longValue(),
                Onto.valueOf(f.text("printed", Onto.INSTEAD.word()).toUpperCase(Locale.ROOT)),
                f.flag("edited", false),
                Track.NOTHING);
    }

    private String take(Fields f) {
        String id = f.text("id", null);
        if (takeFiles.put(id, f.text("file", null)) != null) {
            throw new IllegalArgumentException("take \"" + id + "\" twice (expected unique ids)");
        }
        takeNames.put(id, f.text("name", id));
        return id;
    }
}
