package dibble.files;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.gear.Effects;
import dibble.gear.Instrument;
import dibble.gear.Loudness;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.gear.Sound;
import dibble.gear.SoundNames;
import dibble.gear.Source;
import dibble.gear.Strip;
import dibble.gear.UnknownFields;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import java.util.Collection;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** Writes the routing of a session. Default values of zones are left out; unknown fields are written back. */
final class RoutingWriter {
    private static final ObjectMapper JSON = new ObjectMapper();

    private RoutingWriter() {}

    /**
     * Puts a routing among the fields of a session.
     *
     * @param extras those of the session
     */
    static void put(ObjectNode node, Routing routing, UnknownFields extras) {
        ArrayNode sources = node.putArray("sources");
        routing.sources().forEach(source -> sources.add(source(source)));
        ArrayNode instruments = node.putArray("instruments");
        routing.instruments().forEach(instrument -> instruments.add(instrument(instrument, routing)));
        ArrayNode zones = node.putArray("zones");
        routing.always().forEach(zone -> zones.add(zone(zone)));
        controls(node, routing.controls());
        if (routing.sceneSwitch() != null) {
            ObjectNode by = node.putObject("sceneSwitch")
                    .put("source", routing.sceneSwitch().source())
                    .put("channel", routing.sceneSwitch().channel());
            Fields.putAll(by, extras.at("sceneSwitch"));
        }
        ArrayNode scenes = node.putArray("scenes");
        routing.scenes().forEach(scene -> scenes.add(scene(scene)));
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
            for (SequencerLane lane : source.lanes()) {
                ObjectNode of = lanes.addObject().put("name", lane.name()).put("channel", lane.channel());
                Fields.putAll(of, lane.extras());
            }
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
        if (instrument.partPorts()) {
            node.put("partPorts", true);
        }
        node.put("receives", instrument.receives().word());
        texts(node, "hearsDirectly", instrument.hearsDirectly());
        ArrayNode parts = node.putArray("parts");
        for (Part part : instrument.parts()) {
            parts.add(part(part, instrument.ref(part), routing));
        }
        Effects effects = instrument.effects();
        if (!effects.equals(Effects.USUAL) || !instrument.extras().at("effects").isEmpty()) {
            ObjectNode of = node.putObject("effects")
                    .put("room", effects.room())
                    .put("damping", effects.damping())
                    .put("rate", effects.rate())
                    .put("depth", effects.depth());
            Fields.putAll(of, instrument.extras().at("effects"));
        }
        if (instrument.names() != null) {
            node.set("names", names(instrument.names()));
        }
        Fields.putAll(node, instrument.extras());
        return node;
    }

    private static ObjectNode names(SoundNames names) {
        ObjectNode node = JSON.createObjectNode();
        node.put("maker", names.maker());
        node.put("model", names.model());
        node.put("bankSelect", names.bankSelect().word());
        ArrayNode banks = node.putArray("banks");
        for (SoundNames.Bank bank : names.banks()) {
            ObjectNode of = banks.addObject().put("name", bank.name());
            numbers(of, "bank", bank.numbers());
            ArrayNode programs = of.putArray("programs");
            for (SoundNames.Program program : bank.programs()) {
                ObjectNode one =
                        programs.addObject().put("program", program.program()).put("name", program.name());
                if (!program.label().isEmpty()) {
                    one.put("label", program.label());
                }
                Fields.putAll(one, program.extras());
            }
            Fields.putAll(of, bank.extras());
        }
        noteNames(node, "notes", names.notes());
        noteNames(node, "controllers", names.controllers());
        Fields.putAll(node, names.extras());
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
        if (part.soundFile() != null) {
            node.put("soundFile", part.soundFile());
        }
        strip(node, part.strip());
        if (!part.keyStrips().isEmpty()) {
            ArrayNode strips = node.putArray("keyStrips");
            part.keyStrips().entrySet().forEach(of -> {
                ObjectNode to = strips.addObject().put("key", of.getKey());
                number(to, "volume", of.getValue().volume());
                number(to, "pan", of.getValue().pan());
                strip(to, of.getValue());
                Fields.putAll(to, part.extras().at("keyStrips " + of.getKey()));
            });
        }
        range(node, "keys", part.keys());
        node.put("drums", part.drums());
        noteNames(node, "noteNames", part.noteNames());
        noteNames(node, "keyswitches", part.keyswitches());
        if (part.colour() > 0) {
            node.put("colour", part.colour());
        }
        Fields.putAll(node, part.extras());
        return node;
    }

    /** Writes the fields of a strip other than volume and pan. */
    private static void strip(ObjectNode node, Strip strip) {
        Integer volume = strip.volume();
        if (volume != null && strip.level() != Loudness.ofVolume(volume)) {
            node.put("level", strip.level());
        }
        if (strip.reverb() > 0) {
            node.put("reverb", strip.reverb());
        }
        if (strip.chorus() > 0) {
            node.put("chorus", strip.chorus());
        }
        node.put("output", strip.output());
        if (strip.group() > 0) {
            node.put("group", strip.group());
        }
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
        ObjectNode trigger = node.putObject("when");
        kind(trigger, when.kind(), when.number(), when.low(), when.high());
        Fields.putAll(trigger, map.extras().at("when"));
        ArrayNode sends = node.putArray("sends");
        for (ControlMap.Send send : map.sends()) {
            ObjectNode to = sends.addObject();
            kind(to, send.kind(), send.number(), send.first(), send.last());
            number(to, "rest", send.rest());
            ObjectNode aim = to.putObject("to");
            aim(aim, send.to());
            Fields.putAll(aim, send.extras().at("to"));
            Fields.putAll(to, send.extras());
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

    private static void aim(ObjectNode node, SendTarget aim) {
        if (aim instanceof SendTarget.ToScene to) {
            node.put("scene", to.scene());
        } else if (aim instanceof ZoneTarget target) {
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
        ObjectNode to = node.putObject("to");
        target(to, zone.to());
        Fields.putAll(to, zone.extras().at("to"));
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

    private static void target(ObjectNode node, ZoneTarget target) {
        if (target instanceof ZoneTarget.ToPart to) {
            node.put("part", to.part().toString());
        } else {
            node.put("instrument", target.instrument());
            if (target instanceof ZoneTarget.ToChannel to) {
                node.put("channel", to.channel());
            } else {
                node.put("channel", "same");
            }
        }
    }

    static void texts(ObjectNode node, String name, List<String> texts) {
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
