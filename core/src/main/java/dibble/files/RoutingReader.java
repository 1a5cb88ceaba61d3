package dibble.files;

import static dibble.text.CoreText.say;

import dibble.gear.BankSelect;
import dibble.gear.Effects;
import dibble.gear.Instrument;
import dibble.gear.Loudness;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Receives;
import dibble.gear.SequencerLane;
import dibble.gear.Sound;
import dibble.gear.SoundNames;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.gear.Strip;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.PortId;
import dibble.midi.Range;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.SceneSwitch;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.text.UserException;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Reads what decides where events go: sources, instruments, zones, control maps and scenes. An instance reads one. */
public final class RoutingReader {
    private static final int MAX_KEYS = 128;
    /** The maximum number of sources, and of instruments. */
    public static final int MAX_GEAR = 1_000;

    /** The maximum number of zones, and of control maps. */
    public static final int MAX_ZONES = 100_000;

    private static final int MAX_SOUNDS = 10_000;
    private static final int WIDEST_WINDOW = 16_383;

    private static final Map<String, SourceKind> SOURCE_KINDS =
            words(Stream.of(SourceKind.values()), kind -> kind.name().toLowerCase(Locale.ROOT));
    private static final Map<String, Receives> RECEIVES = words(Stream.of(Receives.values()), Receives::word);
    private static final Map<String, BankSelect> BANK_SELECTS = words(Stream.of(BankSelect.values()), BankSelect::word);
    private static final Map<String, EventKind> EVENT_KINDS = words(Stream.of(EventKind.values()), EventKind::word);
    private static final Map<String, EventKind> PASSED_KINDS =
            words(Stream.of(EventKind.values()).filter(kind -> kind != EventKind.NOTES), EventKind::word);
    private static final Map<String, ControlKind> SENT_KINDS =
            words(Stream.of(ControlKind.values()), ControlKind::word);
    private static final Map<String, ControlKind> TRIGGER_KINDS =
            words(Stream.of(ControlKind.values()).filter(ControlKind::isTrigger), ControlKind::word);

    private final Map<PartRef, Integer> channelNow = new HashMap<>();

    /** Returns values by their words in a file, in order. */
    static <T> Map<String, T> words(Stream<T> values, Function<T, String> word) {
        return values.collect(
                Collectors.toMap(word, Function.identity(), (first, second) -> first, LinkedHashMap::new));
    }

    private static Map<String, Boolean> either(String no, String yes) {
        Map<String, Boolean> words = new LinkedHashMap<>();
        words.put(no, false);
        words.put(yes, true);
        return words;
    }

    /** The channels that parts have at present, as far as they have been read. */
    Map<PartRef, Integer> channelNow() {
        return channelNow;
    }

    static Source source(Fields f) throws SessionFormatException {
        String id = f.requiredForm("id", Form.ID);
        return new Source(
                id,
                f.text("name", id),
                f.word("kind", SourceKind.KEYBOARD, SOURCE_KINDS),
                f.text("port", PortId.standIn(id)),
                f.range("keys", Range.ALL),
                f.channels("listen", ChannelSet.ALL),
                Optional.ofNullable(f.channels("sends", null)),
                f.kinds("accept", EVENT_KINDS, EnumSet.allOf(EventKind.class)),
                f.number("transpose", -127, 127, 0),
                f.word("localControl", false, either("off", "on")),
                f.text("ownInstrument"),
                f.flag("echoes", false),
                List.copyOf(f.texts("sysexTo")),
                f.list("lanes", MAX_GEAR, RoutingReader::lane),
                f.extras());
    }

    private static SequencerLane lane(Fields f) throws SessionFormatException {
        return new SequencerLane(f.text("name", ""), (int) f.required("channel", 1, 16), f.extras());
    }

    Instrument instrument(Fields f) throws SessionFormatException {
        String id = f.requiredForm("id", Form.ID);
        return new Instrument(
                id,
                f.text("name", id),
                f.word("kind", false, either("module", "built-in")),
                f.text("port", PortId.standIn(id)),
                f.flag("partPorts", false),
                f.word("receives", Receives.BY_CHANNEL, RECEIVES),
                List.copyOf(f.texts("hearsDirectly")),
                f.list("parts", MAX_GEAR, part -> part(part, id)),
                f.object("effects").make(RoutingReader::effects),
                f.has("names") ? f.object("names").make(RoutingReader::names) : null,
                f.extras());
    }

    private static SoundNames names(Fields f) throws SessionFormatException {
        return new SoundNames(
                f.text("maker", ""),
                f.text("model", ""),
                f.word("bankSelect", BankSelect.BOTH, BANK_SELECTS),
                f.list("banks", SoundNames.MAX_BANKS, RoutingReader::bank),
                f.noteNames("notes"),
                f.noteNames("controllers"),
                f.extras());
    }

    private static SoundNames.Bank bank(Fields f) throws SessionFormatException {
        return new SoundNames.Bank(
                f.text("name", ""),
                f.pair("bank", 0, 127, List.of(0, 0)),
                f.list(
                        "programs",
                        MAX_KEYS,
                        at -> new SoundNames.Program(
                                (int) at.required("program", 0, 127),
                                at.text("name", ""),
                                at.text("label", ""),
                                at.extras())),
                f.extras());
    }

    private static Effects effects(Fields f) throws SessionFormatException {
        Effects usual = Effects.USUAL;
        return new Effects(
                f.number("room", 0, 127, usual.room()),
                f.number("damping", 0, 127, usual.damping()),
                f.number("rate", 0, 127, usual.rate()),
                f.number("depth", 0, 127, usual.depth()));
    }

    /** A level is kept beside the volume that it is nearest to; who changed that alone meant that. */
    private static Strip strip(Fields f, Integer volume) throws SessionFormatException {
        Double level = f.decimal("level", Loudness.MIN, Loudness.MAX);
        boolean finer = level != null && (volume == null || Loudness.volume(level) == volume);
        Strip strip = new Strip(
                finer ? level : null,
                f.number("pan", 0, 127),
                f.number("reverb", 0, 127, 0),
                f.number("chorus", 0, 127, 0),
                f.number("output", 1, 64, 1),
                f.number("group", 1, Strip.GROUPS, 0));
        return finer ? strip : strip.withVolume(volume);
    }

    private static Map<Integer, Strip> keyStrips(Fields f) throws SessionFormatException {
        return numbered(f.list(
                "keyStrips",
                MAX_KEYS,
                at -> Map.entry((int) at.required("key", 0, 127), strip(at, at.number("volume", 0, 127))),
                at -> String.valueOf(at.getKey())));
    }

    /** Returns the values of a list by their numbers, in order. */
    static <T> Map<Integer, T> numbered(List<Map.Entry<Integer, T>> items) {
        Map<Integer, T> all = new LinkedHashMap<>();
        for (Map.Entry<Integer, T> item : items) {
            if (all.put(item.getKey(), item.getValue()) != null) {
                throw new UserException(
                        say("session.appears-twice-expected-unique-ids", say("number.number"), item.getKey()));
            }
        }
        return all;
    }

    private Part part(Fields f, String instrument) throws SessionFormatException {
        String id = f.requiredForm("id", Form.ID);
        Integer now = f.number("channelNow", 1, 16);
        if (now != null) {
            channelNow.put(new PartRef(instrument, id), now);
        }
        Sound sound = sound(f);
        return new Part(
                id,
                f.text("name", id),
                f.channelOr("channel", "auto"),
                sound.bank(),
                sound.program(),
                f.form("soundFile", Form.ID),
                strip(f, sound.volume()),
                keyStrips(f),
                f.range("keys", Range.ALL),
                f.flag("drums", false),
                f.noteNames("noteNames"),
                f.noteNames("keyswitches"),
                f.number("colour", 1, 16, 0),
                f.extras());
    }

    private static Sound sound(Fields f) throws SessionFormatException {
        return new Sound(
                f.pair("bank", 0, 127),
                f.number("program", 0, 127),
                f.number("volume", 0, 127),
                f.number("pan", 0, 127));
    }

    static Scene scene(Fields f) throws SessionFormatException {
        String id = f.requiredForm("id", Form.ID);
        return new Scene(
                id,
                f.text("name", id),
                f.number("program", 0, 127),
                f.list("zones", MAX_ZONES, RoutingReader::zone),
                f.list("controls", MAX_ZONES, RoutingReader::controlMap),
                f.list("sounds", MAX_SOUNDS, RoutingReader::sceneSound),
                f.extras());
    }

    private static SceneSound sceneSound(Fields f) throws SessionFormatException {
        return new SceneSound(PartRef.parse(f.requiredForm("part", Form.PART)), sound(f), f.extras());
    }

    static SceneSwitch sceneSwitch(Fields f) throws SessionFormatException {
        return new SceneSwitch(f.requiredForm("source", Form.ID), (int) f.required("channel", 1, 16));
    }

    static ControlMap controlMap(Fields f) throws SessionFormatException {
        String id = f.requiredForm("id", Form.ID);
        String source = f.requiredForm("source", Form.SOURCE);
        ControlMap.Trigger when = f.requiredObject("when").make(RoutingReader::trigger);
        List<ControlMap.Send> sends = f.list("sends", MAX_GEAR, RoutingReader::send);
        return new ControlMap(
                id,
                f.text("name", ""),
                source,
                f.channels("channels", ChannelSet.ALL),
                f.flag("keep", false),
                f.word("outside", false, either("clamp", "ignore")),
                f.flag("enabled", true),
                when,
                sends,
                f.extras());
    }

    private static ControlMap.Trigger trigger(Fields f) throws SessionFormatException {
        f.required("kind");
        ControlKind kind = f.word("kind", null, TRIGGER_KINDS);
        List<Integer> window = window(f, kind);
        return new ControlMap.Trigger(kind, number(f, kind), window.get(0), window.get(1));
    }

    private static ControlMap.Send send(Fields f) throws SessionFormatException {
        f.required("kind");
        ControlKind kind = f.word("kind", null, SENT_KINDS);
        List<Integer> window = window(f, kind);
        return new ControlMap.Send(
                kind, number(f, kind), window.get(0), window.get(1), f.number("rest", 0, 127), aim(f), f.extras());
    }

    private static List<Integer> window(Fields f, ControlKind kind) throws SessionFormatException {
        return f.pair("window", 0, WIDEST_WINDOW, List.of(0, kind.most()));
    }

    private static int number(Fields f, ControlKind kind) throws SessionFormatException {
        Integer number = f.number("number", 0, kind.mostNumber());
        if (number == null && kind.isNumbered()) {
            throw new UserException(say("routing-reader.a-without-a-number-expected", kind.word(), kind.mostNumber()));
        }
        return kind.isNumbered() ? number : 0;
    }

    private static SendTarget aim(Fields send) throws SessionFormatException {
        if (send.has("to") && send.get("to").isTextual()) {
            return new SendTarget.ToScene(send.form("to", Form.ID));
        }
        Fields to = send.requiredObject("to");
        if (to.has("scene")) {
            return new SendTarget.ToScene(to.form("scene", Form.ID));
        }
        if (to.has("parts")) {
            return to.word("parts", null, Map.of("all", new SendTarget.AllParts()));
        }
        return target(to);
    }

    static Zone zone(Fields f) throws SessionFormatException {
        List<Integer> velocityTo = f.pair("velocityTo", 0, 127);
        List<Integer> blocked = f.numbers("blockControllers", 0, 127);
        return new Zone(
                f.requiredForm("id", Form.ID),
                f.text("name", ""),
                f.requiredForm("source", Form.SOURCE),
                f.channels("channels", ChannelSet.ALL),
                f.range("keys", Range.ALL),
                f.range("velocity", Range.VELOCITIES),
                f.word("role", false, either("play", "keyswitch")),
                f.requiredObject("to").make(RoutingReader::target),
                f.number("transpose", -127, 127, 0),
                f.notesByNote("noteMap"),
                f.word("unmapped", false, either("transpose", "drop")),
                f.flag("fold", false),
                velocityTo == null ? null : new Zone.VelocityMap(velocityTo.get(0), velocityTo.get(1)),
                f.kinds("pass", PASSED_KINDS, Zone.PASSED),
                blocked == null ? Set.of() : Set.copyOf(blocked),
                f.flag("enabled", true),
                f.extras());
    }

    private static ZoneTarget target(Fields f) throws SessionFormatException {
        if (f.has("part")) {
            return new ZoneTarget.ToPart(PartRef.parse(f.form("part", Form.PART)));
        }
        String instrument = f.requiredForm("instrument", Form.ID);
        if (!f.has("channel")) {
            throw new SessionFormatException(say("routing-reader.no-channel-expected-one", f.path()));
        }
        Integer channel = f.channelOr("channel", "same");
        return channel == null
                ? new ZoneTarget.ToSameChannel(instrument)
                : new ZoneTarget.ToChannel(instrument, channel);
    }
}
