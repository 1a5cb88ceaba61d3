package dibble.edits;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.routing.Zone;
import dibble.session.Colours;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;

/** Sessions to begin with: each a way in which people play, complete as far as its first note. */
public enum StartingPoint {
    SPLIT("One keyboard, split in two", StartingPoint::split),
    TWO_KEYBOARDS("Two keyboards, two sounds", StartingPoint::twoKeyboards),
    MANUALS("Two manuals and pedals", StartingPoint::manuals),
    SIXTEEN("Sixteen channels to sixteen parts", StartingPoint::sixteen),
    PADS("Pads to a kit", StartingPoint::pads),
    SEQUENCER("An outside sequencer", StartingPoint::sequencer),
    KEYSWITCHES("Keyswitches from a second keyboard", StartingPoint::keyswitches);

    private static final String BUILT_IN = "built-in";
    private static final Range FULL = new Range(21, 108);
    private static final Range SMALL = new Range(48, 72);

    /** Programs of General MIDI (0-127) that can be told apart. */
    private static final int[] PROGRAMS = {0, 32, 48, 8, 12, 73, 60, 24, 19, 52, 65, 71, 108, 46, 14, 92};

    private final String title;
    private final Supplier<Session> session;

    StartingPoint(String title, Supplier<Session> session) {
        this.title = title;
        this.session = session;
    }

    /** What it is called. */
    public String title() {
        return title;
    }

    /** A new session of this kind. */
    public Session session() {
        return session.get();
    }

    private static Session session(StartingPoint point, List<Source> sources, List<Part> parts, List<Zone> zones) {
        Instrument instrument = Instrument.of(BUILT_IN, "Built-in sounds", true, "stand-in:" + BUILT_IN, parts);
        return Session.empty(point.title)
                .withSources(sources)
                .withInstruments(Colours.give(List.of(instrument)))
                .withZones(zones);
    }

    private static Source keyboard(String id, String name, Range keys) {
        return Source.keyboard(id, name, "stand-in:" + id, keys);
    }

    private static Part part(String id, String name, int program) {
        return Part.of(id, name, null, program, Range.ALL, 0);
    }

    private static Zone zone(String id, String name, String source, Range keys, String part) {
        return Zone.of(id, name, source, keys, new PartRef(BUILT_IN, part));
    }

    private static Session split() {
        return session(
                SPLIT,
                List.of(keyboard("keyboard", "Keyboard", FULL)),
                List.of(part("bass", "Bass", 32), part("piano", "Piano", 0)),
                List.of(
                        zone("low", "Left hand", "keyboard", new Range(21, 53), "bass"),
                        zone("high", "Right hand", "keyboard", new Range(54, 108), "piano")));
    }

    private static Session twoKeyboards() {
        return session(
                TWO_KEYBOARDS,
                List.of(keyboard("lower", "Lower keyboard", FULL), keyboard("upper", "Upper keyboard", FULL)),
                List.of(part("piano", "Piano", 0), part("strings", "Strings", 48)),
                List.of(
                        zone("lower", "Piano", "lower", FULL, "piano"),
                        zone("upper", "Strings", "upper", FULL, "strings")));
    }

    private static Session manuals() {
        Range manual = new Range(36, 96);
        Range board = new Range(36, 67);
        Source pedals = keyboard("pedals", "Pedals", board)
                .edit()
                .kind(SourceKind.PEDALS)
                .build();
        return session(
                MANUALS,
                List.of(keyboard("upper", "Upper manual", manual), keyboard("lower", "Lower manual", manual), pedals),
                List.of(part("swell", "Swell", 19), part("great", "Great", 20), part("pedal", "Pedal", 19)),
                List.of(
                        zone("swell", "Swell", "upper", manual, "swell"),
                        zone("great", "Great", "lower", manual, "great"),
                        zone("pedal", "Pedal", "pedals", board, "pedal").withTranspose(-12)));
    }

    private static Session sixteen() {
        List<Part> parts = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        for (int channel = 1; channel <= 16; channel++) {
            Part plain = Part.of("part-" + channel, "Part " + channel, channel, PROGRAMS[channel - 1], Range.ALL, 0);
            parts.add(
                    channel == 10
                            ? plain.edit().name("Drums").program(0).drums(true).build()
                            : plain);
            zones.add(zone("channel-" + channel, "", "keyboard", Range.ALL, "part-" + channel)
                    .edit()
                    .channels(ChannelSet.of(channel))
                    .build());
        }
        return session(SIXTEEN, List.of(keyboard("keyboard", "Keyboard", Range.ALL)), parts, zones);
    }

    private static Session pads() {
        Range sixteen = new Range(36, 51);
        Source pads =
                keyboard("pads", "Pads", sixteen).edit().kind(SourceKind.PADS).build();
        return session(
                PADS,
                List.of(pads),
                List.of(part("kit", "Kit", 0).asDrums()),
                List.of(zone("kit", "Kit", "pads", sixteen, "kit")));
    }

    private static Session sequencer() {
        List<SequencerLane> lanes = new ArrayList<>();
        List<Part> parts = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        for (int lane = 1; lane <= 5; lane++) {
            lanes.add(new SequencerLane("Line " + lane, lane));
            parts.add(part("line-" + lane, "Line " + lane, PROGRAMS[lane - 1]));
            zones.add(zone("line-" + lane, "", "sequencer", Range.ALL, "line-" + lane)
                    .edit()
                    .channels(ChannelSet.of(lane))
                    .build());
        }
        Source sequencer = keyboard("sequencer", "Sequencer", Range.ALL)
                .edit()
                .kind(SourceKind.SEQUENCER)
                .listen(ChannelSet.of(1, 2, 3, 4, 5))
                .lanes(lanes)
                .build();
        return session(SEQUENCER, List.of(sequencer), parts, zones);
    }

    private static Session keyswitches() {
        Part reeds = part("reeds", "Reed organ", 20)
                .edit()
                .keys(new Range(36, 108))
                .keyswitches(Map.of(24, "Soft", 25, "Full", 26, "Tremulant"))
                .build();
        Zone playing = zone("playing", "Playing", "keyboard", new Range(36, 108), "reeds");
        Zone switches = zone("switches", "Stops", "small", SMALL, "reeds")
                .edit()
                .keyswitch(true)
                .noteMap(Map.of(48, List.of(24), 49, List.of(25), 50, List.of(26)))
                .dropUnmapped(true)
                .build();
        return session(
                KEYSWITCHES,
                List.of(
                        keyboard("keyboard", "Keyboard", new Range(36, 108)),
                        keyboard("small", "Small keyboard", SMALL)),
                List.of(reeds),
                List.of(playing, switches));
    }
}
