package dibble.demo;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.MidiFile;
import dibble.midi.Range;
import dibble.recording.TrackExport;
import dibble.routing.Scene;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.List;
import java.util.Set;

/** <em>The Lamplighter's Round</em>, music for a shadow theatre: the demo's session and its performance. */
public final class LamplightersRound {
    private static final String NAME = "The Lamplighter’s Round";
    private static final String LARKSPUR = "larkspur";
    private static final String TANSY = "tansy";
    private static final int BARS = 24;

    /** The first key of Larkspur's right hand: F♯3. */
    private static final int SPLIT = 54;

    private LamplightersRound() {}

    /** The session: two keyboards, one of them split, and the built-in instrument. */
    public static Session session() {
        return Session.empty(NAME)
                .withTempo(TempoMap.of(96))
                .withSources(keyboards())
                .withInstruments(List.of(sorrel()))
                .withZones(zones())
                .withScenes(scenes());
    }

    /** How the demo begins: in the first scene, everybody heard. */
    public static Performance performance() {
        return Performance.NEW.withScene("dusk");
    }

    /** Two keyboards that nothing is routed from yet, and the built-in instrument: where a new session starts. */
    public static Session newSession() {
        return Session.empty("New session").withSources(keyboards()).withInstruments(List.of(sorrel()));
    }

    private static List<Source> keyboards() {
        return List.of(
                Source.keyboard(LARKSPUR, "Larkspur 73", "stand-in:larkspur", new Range(28, 100)),
                Source.keyboard(TANSY, "Tansy 32", "stand-in:tansy", new Range(53, 84))
                        .withListen(ChannelSet.of(2)));
    }

    private static Instrument sorrel() {
        List<Part> parts = List.of(
                Part.of("celesta", "Celesta", 1, 8, new Range(60, 108), 1),
                Part.of("upright", "Upright bass", 2, 32, new Range(16, 67), 2),
                Part.of("kalimba", "Kalimba", null, 108, new Range(48, 84), 14),
                Part.of("marimba", "Marimba", null, 12, new Range(45, 96), 11),
                Part.of("dulcimer", "Hammer dulcimer", null, 15, new Range(48, 84), 12),
                Part.of("bowls", "Glass bowls", null, 92, new Range(48, 96), 6),
                Part.of("hands", "Hand drums", null, 0, new Range(35, 81), 5).asDrums());
        return Instrument.of("sorrel", "Sorrel", true, "stand-in:sorrel", parts);
    }

    private static PartRef part(String id) {
        return new PartRef("sorrel", id);
    }

    private static List<Zone> zones() {
        return List.of(
                Zone.of("bass-hand", "Bass hand", LARKSPUR, new Range(28, SPLIT - 1), part("upright"))
                        .withTranspose(-12)
                        .edit()
                        .blockControllers(Set.of(64))
                        .build(),
                Zone.of("celesta", "Celesta", LARKSPUR, new Range(SPLIT, 100), part("celesta")),
                Zone.of("marimba", "Marimba", TANSY, new Range(53, 84), part("marimba"))
                        .withTranspose(12));
    }

    private static List<Scene> scenes() {
        return List.of(
                Scene.of(
                        "dusk",
                        "Dusk",
                        0,
                        List.of(Zone.of("bowls-soft", "Glass bowls, soft", LARKSPUR, new Range(66, 100), part("bowls"))
                                .withVelocity(new Range(1, 78)))),
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
                Scene.of("snow", "Snow", 3, List.of()));
    }

    /** The performance as it was played: a standard MIDI file with a track for each keyboard. */
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
                        TrackExport.conductor(NAME, TempoMap.of(96)),
                        left.with(right).track("Larkspur 73", BARS),
                        tansy.track("Tansy 32", BARS)));
    }
}
