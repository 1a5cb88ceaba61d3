package dibble.edits;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.midi.PortId;
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
    SPLIT(say("starting-point.one-keyboard-split-in-two"), StartingPoint::split),
    TWO_KEYBOARDS(say("starting-point.two-keyboards-two-sounds"), StartingPoint::twoKeyboards),
    MANUALS(say("starting-point.two-manuals-and-pedals"), StartingPoint::manuals),
    SIXTEEN(say("starting-point.sixteen-channels-to-sixteen-parts"), StartingPoint::sixteen),
    PADS(say("starting-point.pads-to-a-kit"), StartingPoint::pads),
    SEQUENCER(say("starting-point.an-external-sequencer"), StartingPoint::sequencer),
    KEYSWITCHES(say("starting-point.keyswitches-from-a-second-keyboard"), StartingPoint::keyswitches);

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

    /** Returns the title. */
    public String title() {
        return title;
    }

    /** A new session of this kind. */
    public Session session() {
        return session.get();
    }

    private static Session session(StartingPoint point, List<Source> sources, List<Part> parts, List<Zone> zones) {
        Instrument instrument =
                Instrument.of(BUILT_IN, say("starting-point.built-in-sounds"), true, PortId.standIn(BUILT_IN), parts);
        return Session.empty(point.title)
                .withSources(sources)
                .withInstruments(Colours.give(List.of(instrument)))
                .withZones(zones);
    }

    private static Source keyboard(String id, String name, Range keys) {
        return Source.keyboard(id, name, PortId.standIn(id), keys);
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
                List.of(keyboard("keyboard", say("starting-point.keyboard"), FULL)),
                List.of(part("bass", say("starting-point.bass"), 32), part("piano", say("starting-point.piano"), 0)),
                List.of(
                        zone("low", say("common.left-hand"), "keyboard", new Range(21, 53), "bass"),
                        zone("high", say("common.right-hand"), "keyboard", new Range(54, 108), "piano")));
    }

    private static Session twoKeyboards() {
        return session(
                TWO_KEYBOARDS,
                List.of(
                        keyboard("lower", say("starting-point.lower-keyboard"), FULL),
                        keyboard("upper", say("starting-point.upper-keyboard"), FULL)),
                List.of(
                        part("piano", say("starting-point.piano"), 0),
                        part("strings", say("starting-point.strings"), 48)),
                List.of(
                        zone("lower", say("starting-point.piano"), "lower", FULL, "piano"),
                        zone("upper", say("starting-point.strings"), "upper", FULL, "strings")));
    }

    private static Session manuals() {
        Range manual = new Range(36, 96);
        Range board = new Range(36, 67);
        Source pedals = keyboard("pedals", say("starting-point.pedals"), board)
                .with()
                .kind(SourceKind.PEDALS)
                .build();
        return session(
                MANUALS,
                List.of(
                        keyboard("upper", say("starting-point.upper-manual"), manual),
                        keyboard("lower", say("starting-point.lower-manual"), manual),
                        pedals),
                List.of(
                        part("swell", say("starting-point.swell"), 19),
                        part("great", say("starting-point.great"), 20),
                        part("pedal", say("starting-point.pedal"), 19)),
                List.of(
                        zone("swell", say("starting-point.swell"), "upper", manual, "swell"),
                        zone("great", say("starting-point.great"), "lower", manual, "great"),
                        zone("pedal", say("starting-point.pedal"), "pedals", board, "pedal")
                                .withTranspose(-12)));
    }

    private static Session sixteen() {
        List<Part> parts = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        for (int channel = 1; channel <= 16; channel++) {
            Part plain = Part.of(
                    "part-" + channel,
                    say("starting-point.part", channel),
                    channel,
                    PROGRAMS[channel - 1],
                    Range.ALL,
                    0);
            parts.add(
                    channel == 10
                            ? plain.with()
                                    .name(say("starting-point.drums"))
                                    .program(0)
                                    .drums(true)
                                    .build()
                            : plain);
            zones.add(zone("channel-" + channel, "", "keyboard", Range.ALL, "part-" + channel)
                    .with()
                    .channels(ChannelSet.of(channel))
                    .build());
        }
        return session(SIXTEEN, List.of(keyboard("keyboard", say("starting-point.keyboard"), Range.ALL)), parts, zones);
    }

    private static Session pads() {
        Range sixteen = new Range(36, 51);
        Source pads = keyboard("pads", say("starting-point.pads"), sixteen)
                .with()
                .kind(SourceKind.PADS)
                .build();
        return session(
                PADS,
                List.of(pads),
                List.of(part("kit", say("starting-point.kit"), 0).asDrums()),
                List.of(zone("kit", say("starting-point.kit"), "pads", sixteen, "kit")));
    }

    private static Session sequencer() {
        List<SequencerLane> lanes = new ArrayList<>();
        List<Part> parts = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        for (int lane = 1; lane <= 5; lane++) {
            lanes.add(new SequencerLane(say("starting-point.line", lane), lane));
            parts.add(part("line-" + lane, say("starting-point.line", lane), PROGRAMS[lane - 1]));
            zones.add(zone("line-" + lane, "", "sequencer", Range.ALL, "line-" + lane)
                    .with()
                    .channels(ChannelSet.of(lane))
                    .build());
        }
        Source sequencer = keyboard("sequencer", say("starting-point.sequencer"), Range.ALL)
                .with()
                .kind(SourceKind.SEQUENCER)
                .listen(ChannelSet.of(1, 2, 3, 4, 5))
                .lanes(lanes)
                .build();
        return session(SEQUENCER, List.of(sequencer), parts, zones);
    }

    private static Session keyswitches() {
        Part reeds = part("reeds", say("starting-point.reed-organ"), 20)
                .with()
                .keys(new Range(36, 108))
                .keyswitches(Map.of(
                        24,
                        say("starting-point.soft"),
                        25,
                        say("starting-point.full"),
                        26,
                        say("starting-point.tremulant")))
                .build();
        Zone playing = zone("playing", say("starting-point.playing"), "keyboard", new Range(36, 108), "reeds");
        Zone switches = zone("switches", say("starting-point.stops"), "small", SMALL, "reeds")
                .with()
                .keyswitch(true)
                .noteMap(Map.of(48, List.of(24), 49, List.of(25), 50, List.of(26)))
                .dropUnmapped(true)
                .build();
        return session(
                KEYSWITCHES,
                List.of(
                        keyboard("keyboard", say("starting-point.keyboard"), new Range(36, 108)),
                        keyboard("small", say("starting-point.small-keyboard"), SMALL)),
                List.of(reeds),
                List.of(playing, switches));
    }
}
