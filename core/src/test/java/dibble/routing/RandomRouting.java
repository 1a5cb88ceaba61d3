package dibble.routing;

import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.gear.Source;
import dibble.gear.UnknownFields;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;

/** Random routings and events on few keys and channels, so that things meet. */
public final class RandomRouting {
    private static final String[] SOURCES = {"a", "b", "c"};
    private static final List<ControlKind> SENDS = List.of(ControlKind.values());
    private static final List<ControlKind> TRIGGERS =
            SENDS.stream().filter(ControlKind::isTrigger).toList();

    private final Random random;

    public RandomRouting(Random random) {
        this.random = random;
    }

    /** A routing with up to so many zones. */
    public Routing routing(int zones) {
        List<Source> sources = new ArrayList<>();
        for (String id : SOURCES) {
            if (random.nextInt(8) > 0) {
                Source source = Source.keyboard(id, id, "in-" + id, Range.ALL).withTranspose(random.nextInt(25) - 12);
                sources.add(random.nextInt(4) > 0 ? source : source.withListen(ChannelSet.of(1, 2)));
            }
        }
        List<Instrument> instruments =
                List.of(instrument("i", "port-one"), instrument("j", "port-two"), instrument("k", "port-one"));
        List<Zone> always = new ArrayList<>();
        List<List<Zone>> inScenes = List.of(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        int count = random.nextInt(zones + 1);
        for (int z = 0; z < count; z++) {
            (random.nextBoolean() ? always : inScenes.get(random.nextInt(3))).add(zone("z" + z));
        }
        List<Scene> scenes = new ArrayList<>();
        for (int s = 0; s < 3; s++) {
            Integer program = random.nextInt(4) == 0 ? null : (Integer) random.nextInt(3);
            scenes.add(Scene.of("s" + s, "s" + s, program, inScenes.get(s))
                    .withControls(controls("c", 3))
                    .withSounds(sounds()));
        }
        SceneSwitch by = random.nextInt(3) == 0 ? null : new SceneSwitch(source(), 1 + random.nextInt(2));
        return new Routing(
                sources,
                instruments,
                ChannelPlan.of(instruments, Map.of()),
                always,
                controls("a", 4),
                scenes,
                by,
                "s" + random.nextInt(3));
    }

    private List<SceneSound> sounds() {
        List<SceneSound> sounds = new ArrayList<>();
        for (int i = random.nextInt(3); i > 0; i--) {
            PartRef part = new PartRef(random.nextBoolean() ? "i" : "j", "p" + random.nextInt(4));
            sounds.add(new SceneSound(
                    part,
                    new Sound(
                            random.nextBoolean() ? null : List.of(random.nextInt(2), random.nextInt(2)),
                            maybe(3),
                            maybe(3),
                            maybe(3)),
                    UnknownFields.NONE));
        }
        return sounds;
    }

    private Integer maybe(int most) {
        return random.nextBoolean() ? null : (Integer) random.nextInt(most);
    }

    /** Control maps: few ids and few values, so that an edit leaves some as they were. */
    private List<ControlMap> controls(String prefix, int most) {
        List<ControlMap> maps = new ArrayList<>();
        for (int m = 0; m < most; m++) {
            if (random.nextInt(3) > 0) {
                // Half of the maps are always made of the same numbers.
                maps.add(
                        random.nextBoolean()
                                ? new RandomRouting(new Random(prefix.hashCode() + m)).controlMap(prefix + m)
                                : controlMap(prefix + m));
            }
        }
        return maps;
    }

    private ControlMap controlMap(String id) {
        ControlKind kind = TRIGGERS.get(random.nextInt(TRIGGERS.size()));
        int low = random.nextInt(3) == 0 ? 0 : random.nextInt(kind.most() / 2);
        int high = random.nextInt(3) == 0 ? kind.most() : low + random.nextInt(kind.most() / 2);
        ControlMap.Trigger when = new ControlMap.Trigger(kind, number(kind), low, high);
        ControlMap.Send[] sends = new ControlMap.Send[1 + random.nextInt(2)];
        for (int i = 0; i < sends.length; i++) {
            sends[i] = send();
        }
        String from = random.nextInt(5) == 0 ? Zone.ANY_SOURCE : SOURCES[random.nextInt(SOURCES.length)];
        return ControlMap.of(id, from, when, sends)
                .withKeep(random.nextBoolean())
                .withIgnoreOutside(random.nextInt(3) == 0)
                .withChannels(random.nextBoolean() ? ChannelSet.ALL : ChannelSet.of(1, 2))
                .withEnabled(random.nextInt(6) > 0);
    }

    private int number(ControlKind kind) {
        return switch (kind) {
            case CONTROLLER ->
                List.of(0, 1, 6, 7, 10, 11, 64, 65, 66, 69, 74, 100, 101, 120, 122)
                        .get(random.nextInt(15));
            case RPN, NRPN -> List.of(0, 1, 2, 130).get(random.nextInt(4));
            case CONTROLLER_14 -> List.of(1, 7, 16).get(random.nextInt(3));
            case NOTE, KEY_PRESSURE -> key();
            default -> 0;
        };
    }

    private ControlMap.Send send() {
        ControlKind kind = SENDS.get(random.nextInt(SENDS.size()));
        SendTarget to = kind == ControlKind.SCENE
                ? new SendTarget.ToScene(
                        List.of("s0", "s2", "next", "previous", "gone").get(random.nextInt(5)))
                : kind != ControlKind.NOTE && random.nextInt(5) == 0 ? new SendTarget.AllParts() : target();
        int first = random.nextInt(3) > 0 ? 0 : random.nextInt(kind.most() + 1);
        int last = random.nextInt(3) > 0 ? kind.most() : random.nextInt(kind.most() + 1);
        boolean inverted = random.nextInt(3) == 0;
        Integer rest = random.nextInt(3) > 0 ? null : List.of(0, 64, 127).get(random.nextInt(3));
        return new ControlMap.Send(kind, number(kind), inverted ? last : first, inverted ? first : last, rest, to);
    }

    private Instrument instrument(String id, String port) {
        List<Part> parts = new ArrayList<>();
        for (int p = 0; p < 3; p++) {
            Integer channel = random.nextBoolean() ? null : (Integer) (1 + random.nextInt(4));
            parts.add(Part.of("p" + p, "p" + p, channel, p, Range.ALL, 1));
        }
        return Instrument.of(id, id, true, port, parts);
    }

    private Zone zone(String id) {
        String source = random.nextInt(6) == 0 ? Zone.ANY_SOURCE : SOURCES[random.nextInt(SOURCES.length)];
        ZoneTarget to = target();
        Map<Integer, List<Integer>> noteMap = new HashMap<>();
        if (random.nextInt(4) == 0) {
            for (int i = 0; i < 3; i++) {
                noteMap.put(key(), random.nextBoolean() ? List.of(key()) : List.of(key(), key(), 127));
            }
        }
        Set<EventKind> pass = EnumSet.noneOf(EventKind.class);
        for (EventKind kind : EventKind.values()) {
            if (kind != EventKind.NOTES && random.nextInt(3) > 0) {
                pass.add(kind);
            }
        }
        return Zone.of(id, id, source, range(0, 127, 58, 66), new PartRef("i", "p0"))
                .with()
                .to(to)
                .channels(random.nextInt(3) == 0 ? ChannelSet.of(1, 3) : ChannelSet.ALL)
                .velocity(random.nextBoolean() ? Range.VELOCITIES : range(1, 127, 40, 90))
                .transpose(random.nextInt(6) == 0 ? 70 : random.nextInt(5) - 2)
                .noteMap(noteMap)
                .dropUnmapped(random.nextInt(6) == 0)
                .fold(random.nextBoolean())
                .velocityTo(
                        random.nextInt(3) > 0 ? null : new Zone.VelocityMap(random.nextInt(128), random.nextInt(128)))
                .pass(pass)
                .blockControllers(random.nextBoolean() ? Set.of() : Set.of(64, 1))
                .enabled(random.nextInt(8) > 0)
                .build();
    }

    private ZoneTarget target() {
        String instrument = List.of("i", "j", "k", "gone").get(random.nextInt(4));
        return switch (random.nextInt(6)) {
            case 0 -> new ZoneTarget.ToChannel(instrument, 1 + random.nextInt(4));
            case 1 -> new ZoneTarget.ToSameChannel(instrument);
            default -> new ZoneTarget.ToPart(new PartRef(instrument, "p" + random.nextInt(4)));
        };
    }

    private Range range(int least, int most, int from, int to) {
        int low = random.nextInt(3) == 0 ? least : from + random.nextInt(to - from);
        int high = random.nextInt(3) == 0 ? most : low + random.nextInt(to - from);
        return new Range(low, Math.max(low, Math.min(most, high)));
    }

    private int key() {
        return 58 + random.nextInt(8);
    }

    /** A source that an event may come from; sometimes one that the routing does not have. */
    public String source() {
        return SOURCES[random.nextInt(SOURCES.length)];
    }

    public int message() {
        int channel = random.nextInt(4);
        return switch (random.nextInt(16)) {
            case 0, 15 -> {
                int number = List.of(
                                0, 1, 7, 10, 11, 64, 74, 120, 122, 126, 6, 6, 38, 38, 96, 98, 99, 100, 101, 16, 33, 39,
                                48)
                        .get(random.nextInt(23));
                // Few parameters, so that some of them are chosen whole, and again.
                yield ShortMessage.controller(channel, number, random.nextInt(number >= 98 && number <= 101 ? 2 : 128));
            }
            case 1 -> ShortMessage.of(ShortMessage.PITCH_BEND, channel, random.nextInt(128), random.nextInt(128));
            case 2 -> ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, channel, random.nextInt(128), 0);
            case 3 -> ShortMessage.of(ShortMessage.KEY_PRESSURE, channel, key(), random.nextInt(128));
            case 4 -> ShortMessage.programChange(channel, random.nextInt(random.nextBoolean() ? 4 : 128));
            case 12 ->
                ShortMessage.controller(
                        channel,
                        List.of(64, 65, 66, 67, 68, 69, 1).get(random.nextInt(7)),
                        random.nextBoolean() ? 0 : 127);
            case 13 -> ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, random.nextBoolean() ? 64 : 100);
            case 14 -> ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, channel, random.nextBoolean() ? 0 : 50, 0);
            case 5, 6, 7 -> ShortMessage.noteOff(channel, key(), random.nextInt(128));
            default -> ShortMessage.noteOn(channel, key(), random.nextInt(128));
        };
    }
}
