package dibble.demo;

import dibble.edits.ControlEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.gear.Sound;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.gear.Strip;
import dibble.gear.UnknownFields;
import dibble.midi.ChannelSet;
import dibble.midi.MidiFile;
import dibble.midi.PortId;
import dibble.midi.Range;
import dibble.recording.TrackExport;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.SceneSwitch;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/** <em>The Lamplighter's Round</em>, music for a shadow theatre: the demo's session and its performance. */
public final class LamplightersRound {
    private static final String NAME = "The Lamplighter’s Round";
    private static final String LARKSPUR = "larkspur";
    private static final String TANSY = "tansy";
    private static final String SEDGE = "sedge";
    private static final String FERN = "fern";
    private static final String TEASEL = "teasel";
    private static final String SORREL = "sorrel";
    private static final String YARROW = "yarrow";
    private static final int BARS = 24;
    private static final int HAND_DRUMS = 1;
    private static final int DRUM_OUTPUT = 2;
    private static final int BREATH = 2;
    private static final int EXPRESSION = 11;
    private static final int SLIDER = 16;
    private static final int HEEL = 80;
    private static final int TREMOLO = 92;

    /** The first key of Larkspur's right hand: F♯3. */
    private static final int SPLIT = 54;

    /** The pads' keys, and the first sound of the hand drums. */
    private static final Range PADS = new Range(53, 68);

    private static final int FIRST_DRUM = 41;

    /** The names of the sources that play in {@link #played}, in the order of its tracks. */
    public static final List<String> PLAYERS =
            List.of("Larkspur 73", "Tansy 32", "Sedge pads", "Fern pedals", "Teasel");

    private LamplightersRound() {}

    /** The session: five sources, a built-in instrument and a module, four scenes. */
    public static Session session() {
        return Session.empty(NAME)
                .withTempo(TempoMap.of(96))
                .withSources(sources())
                .withInstruments(List.of(sorrel(), yarrow()))
                .withZones(zones())
                .withControls(controls())
                .withScenes(scenes())
                .withOutputs(Map.of(1, "main", DRUM_OUTPUT, "drums"))
                .withSceneSwitch(new SceneSwitch(LARKSPUR, 1));
    }

    /** Returns the initial performance of the demo: the first scene, nothing muted. */
    public static Performance performance() {
        return Performance.NEW.withScene("dusk");
    }

    private static List<Source> sources() {
        Source larkspur = Source.keyboard(LARKSPUR, "Larkspur 73", PortId.standIn(LARKSPUR), new Range(28, 100));
        Source tansy = Source.keyboard(TANSY, "Tansy 32", PortId.standIn(TANSY), new Range(53, 84))
                .withListen(ChannelSet.of(2));
        Source sedge = Source.keyboard(SEDGE, "Sedge pads", PortId.standIn(SEDGE), PADS)
                .withListen(ChannelSet.of(10))
                .with()
                .kind(SourceKind.PADS)
                .build();
        Source fern = Source.keyboard(FERN, "Fern pedals", PortId.standIn(FERN), new Range(36, 52))
                .withListen(ChannelSet.of(3))
                .with()
                .kind(SourceKind.PEDALS)
                .build();
        Source teasel = Source.keyboard(TEASEL, "Teasel", PortId.standIn(TEASEL), new Range(24, 103))
                .withListen(ChannelSet.of(2, 5, 6, 9, 13))
                .with()
                .kind(SourceKind.SEQUENCER)
                .lanes(List.of(
                        new SequencerLane("Kalimba line", 2),
                        new SequencerLane("Harp line", 5),
                        new SequencerLane("Bowls line", 6),
                        new SequencerLane("Reed chords", 9),
                        new SequencerLane("Dulcimer line", 13)))
                .build();
        return List.of(larkspur, tansy, sedge, fern, teasel);
    }

    private static Instrument sorrel() {
        List<Part> parts = List.of(
                Part.of("celesta", "Celesta", 1, 8, new Range(SPLIT, 108), 1),
                Part.of("upright", "Upright bass", 2, 32, new Range(16, 67), 2),
                Part.of("kalimba", "Kalimba", null, 108, new Range(48, 84), 14),
                Part.of("marimba", "Marimba", null, 12, new Range(45, 96), 11),
                Part.of("dulcimer", "Hammer dulcimer", null, 15, new Range(48, 84), 12),
                Part.of("bowls", "Glass bowls", null, 92, new Range(48, 96), 6),
                Part.of("hands", "Hand drums", null, HAND_DRUMS, new Range(35, 81), 5)
                        .asDrums()
                        .with()
                        .noteNames(Map.of(
                                41, "Frame drum, low",
                                43, "Frame drum",
                                45, "Goblet drum",
                                47, "Goblet, rim",
                                48, "Small drum",
                                50, "Finger drum",
                                54, "Jingles"))
                        .build());
        int[] levels = {84, 96, 104, 92, 98, 88, 110};
        int[] rooms = {50, 10, 56, 36, 44, 70, 24};
        List<Part> levelled = new ArrayList<>();
        for (int i = 0; i < levels.length; i++) {
            Strip strip = parts.get(i).strip().withVolume(levels[i]).withReverb(rooms[i]);
            levelled.add(parts.get(i).with().strip(strip).build());
        }
        int drums = levelled.size() - 1;
        Part kit = levelled.get(drums);
        levelled.set(drums, kit.withStrip(kit.strip().withOutput(DRUM_OUTPUT)));
        return Instrument.of(SORREL, "Sorrel", true, PortId.standIn(SORREL), levelled);
    }

    private static Instrument yarrow() {
        Part organ = Part.of("organ", "Reed organ", 1, 20, new Range(36, 96), 13)
                .with()
                .keyswitches(Map.of(24, "Soft stops", 25, "Full", 26, "Tremulant"))
                .build();
        List<Part> parts = List.of(
                organ,
                Part.of("winds", "Low winds", null, 70, new Range(34, 72), 7),
                Part.of("harp", "Harp", null, 46, new Range(24, 103), 16));
        return Instrument.of(YARROW, "Yarrow", false, PortId.standIn(YARROW), parts);
    }

    private static PartRef part(String id) {
        return part(SORREL, id);
    }

    private static PartRef part(String instrument, String id) {
        return new PartRef(instrument, id);
    }

    private static List<Zone> zones() {
        return List.of(
                Zone.of("bass-hand", "Bass hand", LARKSPUR, new Range(28, SPLIT - 1), part("upright"))
                        .withTranspose(-12)
                        .with()
                        .blockControllers(Set.of(64))
                        .build(),
                Zone.of("celesta", "Celesta", LARKSPUR, new Range(SPLIT, 100), part("celesta")),
                Zone.of("marimba", "Marimba", TANSY, new Range(53, 84), part("marimba"))
                        .withTranspose(12),
                Zone.of("drums", "Hand drums", SEDGE, PADS, part("hands"))
                        .with()
                        .noteMap(drums())
                        .build(),
                Zone.of("winds", "Low winds", FERN, new Range(36, 52), part(YARROW, "winds")),
                line("kalimba-line", 2, new Range(48, 84), part("kalimba")),
                line("harp-line", 5, new Range(24, 103), part(YARROW, "harp")),
                line("bowls-line", 6, new Range(48, 96), part("bowls")),
                line("reed-chords", 9, new Range(36, 96), part(YARROW, "organ")),
                line("dulcimer-line", 13, new Range(48, 84), part("dulcimer")));
    }

    private static List<ControlMap> controls() {
        return List.of(
                ControlMap.of(
                                "breath",
                                FERN,
                                ControlMap.Trigger.controller(BREATH),
                                ControlMap.Send.controller(EXPRESSION, new ZoneTarget.ToPart(part(YARROW, "winds"))))
                        .withName("Breath opens the winds"),
                ControlMap.of(
                                "lean-in",
                                TANSY,
                                new ControlMap.Trigger(ControlKind.CHANNEL_PRESSURE, 0, 30, 127),
                                new ControlMap.Send(
                                        ControlKind.CONTROLLER,
                                        TREMOLO,
                                        0,
                                        90,
                                        null,
                                        new ZoneTarget.ToPart(part("marimba"))))
                        .withName("Lean in"),
                ControlMap.of(
                                "heel",
                                FERN,
                                ControlMap.Trigger.controller(HEEL),
                                ControlMap.Send.whole(
                                        ControlKind.SCENE, 0, new SendTarget.ToScene(SendTarget.ToScene.NEXT)))
                        .withName("Next scene"));
    }

    /** In Dusk a slider leads from one sound to the other. */
    private static ControlMap bellsToBowls() {
        return ControlEdits.fade(
                "fade",
                "From bells to bowls",
                LARKSPUR,
                ControlMap.Trigger.controller(SLIDER),
                part("celesta"),
                part("bowls"));
    }

    /** Each pad has the next of the hand drums. */
    private static Map<Integer, List<Integer>> drums() {
        Map<Integer, List<Integer>> drums = new TreeMap<>();
        for (int pad = PADS.low(); pad <= PADS.high(); pad++) {
            drums.put(pad, List.of(FIRST_DRUM + pad - PADS.low()));
        }
        return drums;
    }

    /** A zone for one of Teasel's lanes: what its part answers to, of a channel. */
    private static Zone line(String id, int channel, Range keys, PartRef to) {
        return Zone.of(id, "", TEASEL, keys, to)
                .with()
                .channels(ChannelSet.of(channel))
                .build();
    }

    private static List<Scene> scenes() {
        return List.of(
                Scene.of(
                                "dusk",
                                "Dusk",
                                0,
                                List.of(Zone.of(
                                                "bowls-soft",
                                                "Glass bowls, soft",
                                                LARKSPUR,
                                                new Range(66, 96),
                                                part("bowls"))
                                        .withVelocity(new Range(1, 78))))
                        .withControls(List.of(bellsToBowls()))
                        .withSounds(List.of(celesta(8, 84))),
                Scene.of(
                        "lamps",
                        "Lamps lit",
                        1,
                        List.of(Zone.of("kalimba", "Kalimba", TANSY, new Range(69, 84), part("kalimba")))),
                Scene.of(
                        "procession",
                        "Procession",
                        2,
                        List.of(Zone.of(
                                "dulcimer", "Hammer dulcimer", LARKSPUR, new Range(SPLIT, 76), part("dulcimer")))),
                Scene.of("snow", "Snow", 3, List.of()).withSounds(List.of(celesta(10, 72))));
    }

    /** In Snow the celesta is a music box; Dusk gives it its own sound back. */
    private static SceneSound celesta(int program, int volume) {
        return new SceneSound(part("celesta"), new Sound(null, program, volume, null), UnknownFields.NONE);
    }

    /** The performance as it was played: a standard MIDI file with a track for each source. */
    public static MidiFile played() {
        Phrase left = new Phrase(0);
        String walk = "D2/4. A2/8 D3/4 A2/4 | C2/4. G2/8 C3/4 G2/4 | A#1/4. F2/8 A#2/4 F2/4 | F2/4. C3/8 F3/4 C3/4 |";
        String turn = "G2/4. D3/8 G3/4 D3/4 | D2/4. A2/8 D3/4 F3/4 | A1/4. E2/8 A2/4 C#3/4 | D2/4. A2/8 D3/2 |";
        String climb = "A#1/4 D2/4 F2/4 A#2/4 | C2/4 E2/4 G2/4 C3/4 | D2/4 F2/4 A2/4 D3/4 | F2/4 A2/4 C3/4 F3/4 |";
        // The left hand reaches over the split here, and the right hand under it.
        String cross = "G2/4 A#2/4 D3/4 G3/4 | A2/4 C#3/4 E3/4 A3/4 | A#2/4 G2/4 E2/4 C2/4 | A1/2 A2/4 C#3/4 |";
        left.play(walk + turn, 84).play(climb + cross, 88).play(walk + turn, 92);
        Phrase right = new Phrase(0);
        right.play(
                        "-/2 A4/8 D5/8 F5/8 E5/8 | G5/4. E5/8 C5/4 D5/8 E5/8 | F5/4 D5/4 A#4/4 D5/4 | C5/2. -/4 |"
                                + "A#4/8 C5/8 D5/4 G5/4 F5/8 D5/8 | F5/4. E5/8 D5/4 A4/4 | C#5/4 E5/4 G5/8 F5/8 E5/8 C#5/8 | D5/2. -/4 |",
                        72)
                .play(
                        "D6/4 A#5/8 F5/8 D5/4 F5/4 | E6/4 C6/8 G5/8 E5/4 G5/4 | F6/4. D6/8 A5/4 F5/4 | C6/4 A5/4 F5/4 C5/4 |"
                                + "A#4/8 G4/8 D4/8 A#3/8 D4/4 G4/4 | A4/8 E4/8 C#4/8 A3/8 C#4/4 E4/4 | G4+A#4/4 E4+G4/4 C4+E4/4 G3+C4/4 | A3+C#4/2 E4+A4/2 |",
                        86)
                .play(
                        "D5+F5/4. A5/8 D6/4 A5/4 | C5+E5/4. G5/8 C6/4 G5/4 | A#4+D5/4. F5/8 A#5/4 F5/4 | A4+C5/2 F5/4 A5/4 |"
                                + "G5/8 A5/8 A#5/8 C6/8 D6/4 A#5/4 | A5/4. F5/8 D5/4 F5/4 | E5/4 G5/4 C#6/4 A5/4 | D5+A5+D6/1 |",
                        90)
                .pedal(17, 7);
        // Each scene is called in the middle of a bar whose notes are held across it.
        right.program(1, 0, 0).program(9, 2, 1).program(13, 1, 2).program(21, 1, 3);
        Phrase tansy = new Phrase(1);
        String rocking = "A3/8 D4/8 F4/8 D4/8 A4/8 F4/8 D4/8 F4/8 | G3/8 C4/8 E4/8 C4/8 G4/8 E4/8 C4/8 E4/8 |"
                + "F3/8 A#3/8 D4/8 A#3/8 F4/8 D4/8 A#3/8 D4/8 | A3/8 C4/8 F4/8 C4/8 A4/8 F4/8 C4/8 F4/8 |";
        String answer =
                "-/4 A#4/8 D5/8 -/4 G4/8 D5/8 | -/4 A4/8 D5/8 -/4 F4/8 A4/8 | -/4 C#5/8 E5/8 -/4 A4/8 E5/8 | F4+A4+D5/2 -/2 |";
        tansy.bar(5)
                .play(answer, 70)
                .play(rocking, 76)
                .play(answer, 80)
                .play(rocking, 84)
                .play(answer, 88);
        return new MidiFile(
                1,
                TempoMap.PPQ,
                List.of(
                        TrackExport.conductor(NAME, TempoMap.of(96), List.of()),
                        left.with(right).track(PLAYERS.get(0), BARS),
                        tansy.track(PLAYERS.get(1), BARS),
                        sedge().track(PLAYERS.get(2), BARS),
                        fern().track(PLAYERS.get(3), BARS),
                        teasel().track(PLAYERS.get(4), BARS)));
    }

    private static Phrase sedge() {
        String step = "F3/4 -/8 A3/8 G3/4 A3/8 A3/8 | F3/4 -/8 A3/8 G3/4 -/8 B3/8 |";
        String full = "F3/8 A3/8 A3/8 A3/8 G3/8 A3/8 F3/8 A3/8 | F3/8 A3/8 F3/8 A3/8 G3/8 B3/8 C4/8 D4/8 |";
        return new Phrase(9)
                .bar(9)
                .play(step + step + step + step, 74)
                .play(full + full + full, 86)
                .play("F3/2 -/2 | -/1 |", 60);
    }

    private static Phrase fern() {
        String roots = "D2/1 | C2/1 | A#2/1 | F2/1 | G2/1 | D2/1 | A2/1 | D2/1 |";
        Phrase feet = new Phrase(2).bar(5).play("G2/1 | D2/1 | A2/1 | D2/1 |", 78);
        feet.bar(17).play(roots, 84);
        for (int bar = 17; bar <= 24; bar++) {
            feet.swell(bar, BREATH);
        }
        return feet;
    }

    private static Phrase teasel() {
        Phrase kalimba = new Phrase(1);
        kalimba.bar(9)
                .play(
                        "F4/8 D4/8 A#4/8 D4/8 F4/8 D4/8 A#4/8 F4/8 | E4/8 C4/8 G4/8 C4/8 E4/8 C4/8 G4/8 E4/8 |"
                                + "F4/8 D4/8 A4/8 D4/8 F4/8 D4/8 A4/8 F4/8 | A4/8 F4/8 C5/8 F4/8 A4/8 F4/8 C5/8 A4/8 |",
                        64);
        Phrase harp = new Phrase(4);
        harp.bar(13)
                .play(
                        "G3/8 A#3/8 D4/8 G4/8 A#4/8 D5/8 G5/4 | A3/8 C#4/8 E4/8 A4/8 C#5/8 E5/8 A5/4 |"
                                + "A#3/8 D4/8 G4/8 A#4/8 D5/4 A#4/4 | A3/8 C#4/8 E4/8 A4/8 C#5/8 A4/8 E4/8 C#4/8 |"
                                + "D4/4 A4/4 D5/4 F5/4 | C4/4 G4/4 C5/4 E5/4 | A#3/4 F4/4 A#4/4 D5/4 | F4/4 C5/4 F5/4 A5/4 |",
                        70);
        Phrase bowls = new Phrase(5);
        bowls.bar(1).play("D5/1 | C5/1 | A#4/1 | C5/1 |", 56).bar(21).play("G4+D5/1 | A4+D5/1 | A4+C#5/1 | D5/1 |", 60);
        Phrase reeds = new Phrase(8);
        reeds.bar(17)
                .play(
                        "D4+F4+A4/1 | E4+G4+C5/1 | D4+F4+A#4/1 | C4+F4+A4/1 |"
                                + "D4+G4+A#4/1 | D4+F4+A4/1 | C#4+E4+A4/1 | D4+F4+A4/1 |",
                        62);
        Phrase dulcimer = new Phrase(12);
        dulcimer.bar(21)
                .play(
                        "G4/8 A#4/8 D5/8 A#4/8 G4/8 A#4/8 D5/8 A#4/8 | F4/8 A4/8 D5/8 A4/8 F4/8 A4/8 D5/8 A4/8 |"
                                + "E4/8 A4/8 C#5/8 A4/8 E4/8 A4/8 C#5/8 A4/8 | D4/8 F4/8 A4/8 D5/8 A4/2 |",
                        66);
        return kalimba.with(harp).with(bowls).with(reeds).with(dulcimer);
    }
}
