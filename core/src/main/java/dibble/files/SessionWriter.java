package dibble.files;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import dibble.recording.Region;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Aim;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.Target;
import dibble.routing.Zone;
import dibble.session.ClockPlan;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.Settled;
import dibble.time.TempoMap;
import java.util.Collection;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/** Writes {@code session.json}. What has the default of the contract is left out of zones; unknown fields come back. */
final class SessionWriter {
    private static final ObjectMapper JSON = new ObjectMapper();

    private SessionWriter() {}

    static byte[] bytes(Session session, Performance performance) {
        return bytes(session(session, performance));
    }

    /** The same with the takes and tracks of another session, of which only the names are known. */
    static byte[] bytes(Session session, Performance performance, JsonNode other) {
        ObjectNode node = session(session, performance);
        for (String list : List.of("tracks", "takes")) {
            if (other.has(list)) {
                node.set(list, other.get(list));
            }
        }
        return bytes(node);
    }

    static byte[] bytes(ObjectNode session) {
        try {
            return JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(session);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a session that JSON cannot express", e);
        }
    }

    static String takeFile(Take take) {
        return "takes/" + take.id() + ".jsonl";
    }

    private static ObjectNode session(Session session, Performance performance) {
        ObjectNode node = head(session.name());
        node.put("middleC", session.middleC().name());
        ArrayNode tempo = node.putArray("tempo");
        for (TempoMap.Tempo at : session.tempo().tempos()) {
            tempo.addObject().put("at", at.at()).put("bpm", at.bpm());
        }
        ArrayNode meter = node.putArray("meter");
        for (TempoMap.Meter at : session.tempo().meters()) {
            meter.addObject().put("at", at.at()).put("beats", at.beats()).put("unit", at.unit());
        }
        routing(node, session.routing(performance));
        ObjectNode player = node.putObject("performance");
        player.put("activeScene", session.activeScene(performance));
        ObjectNode hear = player.putObject("hear");
        session.sources()
                .forEach(source -> hear.put(source.id(), !performance.unheard().contains(source.id())));
        names(player.putArray("armed"), performance.armed());
        names(player.putArray("muted"), performance.muted());
        names(player.putArray("soloed"), performance.soloed());
        ArrayNode tracks = node.putArray("tracks");
        session.tracks().forEach(track -> tracks.add(track(track)));
        ArrayNode takes = node.putArray("takes");
        for (Take take : session.takes()) {
            takes.addObject().put("id", take.id()).put("name", take.name()).put("file", takeFile(take));
        }
        if (!session.settled().isEmpty()) {
            ArrayNode settled = node.putArray("settledChecks");
            for (Settled as : session.settled()) {
                ObjectNode check = settled.addObject().put("code", as.code());
                as.ids().forEach(check.putArray("ids")::add);
            }
        }
        if (!session.clock().equals(ClockPlan.NONE)) {
            ObjectNode clock = node.putObject("clock");
            session.clock().to().forEach(clock.putArray("to")::add);
            if (session.clock().from() != null) {
                clock.put("from", session.clock().from());
            }
        }
        Fields.putAll(node, session.extras());
        return node;
    }

    private static ObjectNode head(String name) {
        return JSON.createObjectNode()
                .put("$schema", "session.schema.json")
                .put("format", "dibble-session")
                .put("version", SessionReader.VERSION)
                .put("name", name);
    }

    /** A routing alone, in the form of a session, as takes keep it. */
    static ObjectNode routingAlone(Routing routing) {
        ObjectNode node = head("routing");
        routing(node, routing);
        node.putObject("performance").put("activeScene", routing.activeScene());
        return node;
    }

    private static void routing(ObjectNode node, Routing routing) {
        ArrayNode sources = node.putArray("sources");
        routing.sources().forEach(source -> sources.add(source(source)));
        ArrayNode instruments = node.putArray("instruments");
        routing.instruments().forEach(instrument -> instruments.add(instrument(instrument, routing)));
        ArrayNode zones = node.putArray("zones");
        routing.always().forEach(zone -> zones.add(zone(zone)));
        controls(node, routing.controls());
        if (routing.sceneSwitch() != null) {
            node.putObject("sceneSwitch")
                    .put("source", routing.sceneSwitch().source())
                    .put("channel", routing.sceneSwitch().channel());
        }
        ArrayNode scenes = node.putArray("scenes");
        routing.scenes().forEach(scene -> scenes.add(scene(scene)));
    }

    private static void names(ArrayNode to, Set<String> names) {
        new TreeSet<>(names).forEach(to::add);
    }

    private static ObjectNode source(Source source) {
        ObjectNode node = JSON.createObjectNode();
        node.put("id", source.id());
        node.put("name", source.name());
        node.put("kind", source.kind().name().toLowerCase(Locale.ROOT));
        node.put("port", source.port());
        range(node, "keys", source.keys());
        channels(node, "listen", source.listen());
        source.sends().ifPresent(sends -> channels(node, "sends", sends));
        if (source.accept().size() < EventKind.values().length) {
            kinds(node, "accept", source.accept());
        }
        node.put("transpose", source.transpose());
        node.put("localControl", source.localControl() ? "on" : "off");
        node.put("ownInstrument", source.ownInstrument());
        node.put("echoes", source.echoes());
        texts(node, "sysexTo", source.sysexTo());
        if (!source.lanes().isEmpty()) {
            ArrayNode lanes = node.putArray("lanes");
            source.lanes()
                    .forEach(lane -> lanes.addObject().put("name", lane.name()).put("channel", lane.channel()));
        }
        Fields.putAll(node, source.extras());
        return node;
    }

    private static ObjectNode instrument(Instrument instrument, Routing routing) {
        ObjectNode node = JSON.createObjectNode();
        node.put("id", instrument.id());
        node.put("name", instrument.name());
        node.put("kind", instrument.builtIn() ? "built-in" : "module");
        node.put("port", instrument.port());
        node.put("receives", instrument.receives().word());
        texts(node, "hearsDirectly", instrument.hearsDirectly());
        ArrayNode parts = node.putArray("parts");
        for (Part part : instrument.parts()) {
            parts.add(part(part, instrument.ref(part), routing));
        }
        Fields.putAll(node, instrument.extras());
        return node;
    }

    private static ObjectNode part(Part part, PartRef ref, Routing routing) {
        ObjectNode node = JSON.createObjectNode();
        node.put("id", part.id());
        node.put("name", part.name());
        if (part.channel() == null) {
            node.put("channel", "auto");
            routing.channels().channel(ref).ifPresent(now -> node.put("channelNow", now));
        } else {
            node.put("channel", part.channel());
        }
        sound(node, part.sound());
        range(node, "keys", part.keys());
        node.put("drums", part.drums());
        noteNames(node, "noteNames", part.noteNames());
        noteNames(node, "keyswitches", part.keyswitches());
        node.put("output", part.output());
        if (part.colour() > 0) {
            node.put("colour", part.colour());
        }
        Fields.putAll(node, part.extras());
        return node;
    }

    private static ObjectNode scene(Scene scene) {
        ObjectNode node = JSON.createObjectNode();
        node.put("id", scene.id());
        node.put("name", scene.name());
        number(node, "program", scene.program());
        ArrayNode zones = node.putArray("zones");
        scene.zones().forEach(zone -> zones.add(zone(zone)));
        controls(node, scene.controls());
        if (!scene.sounds().isEmpty()) {
            ArrayNode sounds = node.putArray("sounds");
            for (SceneSound of : scene.sounds()) {
                ObjectNode sound = sounds.addObject().put("part", of.part().toString());
                sound(sound, of.sound());
                Fields.putAll(sound, of.extras());
            }
        }
        Fields.putAll(node, scene.extras());
        return node;
    }

    private static void sound(ObjectNode node, Sound sound) {
        numbers(node, "bank", sound.bank());
        number(node, "program", sound.program());
        number(node, "volume", sound.volume());
        number(node, "pan", sound.pan());
    }

    private static void controls(ObjectNode node, List<ControlMap> maps) {
        if (!maps.isEmpty()) {
            ArrayNode controls = node.putArray("controls");
            maps.forEach(map -> controls.add(controlMap(map)));
        }
    }

    private static ObjectNode controlMap(ControlMap map) {
        ObjectNode node = JSON.createObjectNode();
        node.put("id", map.id());
        if (!map.name().isEmpty()) {
            node.put("name", map.name());
        }
        node.put("source", map.source());
        channels(node, "channels", map.channels());
        node.put("keep", map.keep());
        node.put("outside", map.ignoreOutside() ? "ignore" : "clamp");
        node.put("enabled", map.enabled());
        ControlMap.Trigger when = map.when();
        kind(node.putObject("when"), when.kind(), when.number(), when.low(), when.high());
        ArrayNode sends = node.putArray("sends");
        for (ControlMap.Send send : map.sends()) {
            ObjectNode to = sends.addObject();
            kind(to, send.kind(), send.number(), send.first(), send.last());
            number(to, "rest", send.rest());
            aim(to.putObject("to"), send.to());
        }
        Fields.putAll(node, map.extras());
        return node;
    }

    private static void kind(ObjectNode node, ControlKind kind, int number, int first, int last) {
        node.put("kind", kind.word());
        if (kind.isNumbered()) {
            node.put("number", number);
        }
        node.putArray("window").add(first).add(last);
    }

    private static void aim(ObjectNode node, Aim aim) {
        if (aim instanceof Aim.ToScene to) {
            node.put("scene", to.scene());
        } else if (aim instanceof Target target) {
            target(node, target);
        } else {
            node.put("parts", "all");
        }
    }

    private static ObjectNode zone(Zone zone) {
        ObjectNode node = JSON.createObjectNode();
        node.put("id", zone.id());
        if (!zone.name().isEmpty()) {
            node.put("name", zone.name());
        }
        node.put("source", zone.source());
        channels(node, "channels", zone.channels());
        range(node, "keys", zone.keys());
        range(node, "velocity", zone.velocity());
        node.put("role", zone.keyswitch() ? "keyswitch" : "play");
        target(node.putObject("to"), zone.to());
        node.put("transpose", zone.transpose());
        if (!zone.noteMap().isEmpty()) {
            ObjectNode map = node.putObject("noteMap");
            zone.noteMap().forEach((key, notes) -> {
                if (notes.size() == 1) {
                    map.put(key.toString(), notes.get(0));
                } else {
                    numbers(map, key.toString(), notes);
                }
            });
        }
        node.put("unmapped", zone.dropUnmapped() ? "drop" : "transpose");
        node.put("fold", zone.fold());
        if (zone.velocityTo() != null) {
            numbers(
                    node,
                    "velocityTo",
                    List.of(zone.velocityTo().first(), zone.velocityTo().last()));
        }
        kinds(node, "pass", zone.pass());
        if (!zone.blockControllers().isEmpty()) {
            numbers(node, "blockControllers", zone.blockControllers());
        }
        node.put("enabled", zone.enabled());
        Fields.putAll(node, zone.extras());
        return node;
    }

    private static void target(ObjectNode node, Target target) {
        if (target instanceof Target.ToPart to) {
            node.put("part", to.part().toString());
        } else {
            node.put("instrument", target.instrument());
            if (target instanceof Target.ToChannel to) {
                node.put("channel", to.channel());
            } else {
                node.put("channel", "same");
            }
        }
    }

    private static ObjectNode track(Track track) {
        ObjectNode node = JSON.createObjectNode();
        node.put("id", track.id());
        node.put("name", track.name());
        ObjectNode takes = node.putObject("takes");
        if (track.input() instanceof Track.OfKey of) {
            takes.put("part", of.part().toString()).put("key", of.key());
        } else if (track.input() instanceof Track.OfPart of) {
            takes.put("part", of.part().toString());
        } else if (track.input() instanceof Track.OfSource of) {
            takes.put("source", of.source());
        } else if (track.input() instanceof Track.OfChannel of) {
            takes.put("source", of.source()).put("channel", of.channel());
        } else if (track.input() instanceof Track.OfZone of) {
            takes.put("zone", of.zone());
        } else if (track.input() instanceof Track.Unknown unknown) {
            Fields.putAll(takes, unknown.fields());
        } else if (track.takesRest()) {
            takes.put("rest", true);
        }
        if (track.to() != null) {
            node.putObject("to").put("part", track.to().toString());
        }
        node.put("file", TrackFiles.clipFile(track));
        regions(node, track);
        Fields.putAll(node, track.extras());
        return node;
    }

    private static void regions(ObjectNode node, Track track) {
        if (track.regions().isEmpty()) {
            return;
        }
        boolean prints = TrackFiles.keepsPrints(track);
        if (prints) {
            node.put("prints", TrackFiles.printsFile(track));
        }
        ArrayNode regions = node.putArray("regions");
        for (Region region : track.regions().all()) {
            ObjectNode to = regions.addObject();
            if (region.take() != null) {
                to.put("take", region.take());
            }
            to.put("from", region.from())
                    .put("to", region.to())
                    .put("printed", region.printed().word())
                    .put("edited", region.edited());
            if (prints && !region.isGone()) {
                to.put("print", track.regions().printNumber(region));
            }
        }
    }

    private static void texts(ObjectNode node, String name, List<String> texts) {
        if (!texts.isEmpty()) {
            texts.forEach(node.putArray(name)::add);
        }
    }

    private static void noteNames(ObjectNode node, String name, Map<Integer, String> names) {
        if (!names.isEmpty()) {
            ObjectNode to = node.putObject(name);
            names.forEach((note, text) -> to.put(note.toString(), text));
        }
    }

    private static void number(ObjectNode node, String name, Integer value) {
        if (value != null) {
            node.put(name, value);
        }
    }

    private static void numbers(ObjectNode node, String name, Collection<Integer> values) {
        if (values != null) {
            ArrayNode array = node.putArray(name);
            values.forEach(array::add);
        }
    }

    private static void range(ObjectNode node, String name, Range range) {
        node.putArray(name).add(range.low()).add(range.high());
    }

    private static void channels(ObjectNode node, String name, ChannelSet channels) {
        if (channels.isAll()) {
            node.put(name, "all");
        } else {
            numbers(node, name, channels.numbers());
        }
    }

    private static void kinds(ObjectNode node, String name, Set<EventKind> kinds) {
        ArrayNode array = node.putArray(name);
        Set<EventKind> sorted = EnumSet.noneOf(EventKind.class);
        sorted.addAll(kinds);
        sorted.forEach(kind -> array.add(kind.word()));
    }
}
