package dibble.midi;

import java.util.Map;
import java.util.Optional;

/** The names of controllers, as the MIDI 1.0 controller table has them, in plain words. */
public final class ControllerNames {
    private static final Map<Integer, String> NAMES = Map.ofEntries(
            Map.entry(0, "bank select"),
            Map.entry(1, "modulation"),
            Map.entry(2, "breath"),
            Map.entry(4, "foot"),
            Map.entry(5, "portamento time"),
            Map.entry(6, "data entry"),
            Map.entry(7, "volume"),
            Map.entry(8, "balance"),
            Map.entry(10, "pan"),
            Map.entry(11, "expression"),
            Map.entry(12, "effect 1"),
            Map.entry(13, "effect 2"),
            Map.entry(16, "general purpose 1"),
            Map.entry(17, "general purpose 2"),
            Map.entry(18, "general purpose 3"),
            Map.entry(19, "general purpose 4"),
            Map.entry(32, "bank select, low"),
            Map.entry(64, "sustain"),
            Map.entry(65, "portamento"),
            Map.entry(66, "sostenuto"),
            Map.entry(67, "soft pedal"),
            Map.entry(68, "legato"),
            Map.entry(69, "hold 2"),
            Map.entry(70, "sound variation"),
            Map.entry(71, "timbre"),
            Map.entry(72, "release time"),
            Map.entry(73, "attack time"),
            Map.entry(74, "brightness"),
            Map.entry(75, "decay time"),
            Map.entry(76, "vibrato rate"),
            Map.entry(77, "vibrato depth"),
            Map.entry(78, "vibrato delay"),
            Map.entry(80, "general purpose 5"),
            Map.entry(81, "general purpose 6"),
            Map.entry(82, "general purpose 7"),
            Map.entry(83, "general purpose 8"),
            Map.entry(84, "portamento control"),
            Map.entry(88, "fine velocity"),
            Map.entry(91, "reverb"),
            Map.entry(92, "tremolo"),
            Map.entry(93, "chorus"),
            Map.entry(94, "detune"),
            Map.entry(95, "phaser"),
            Map.entry(96, "data up"),
            Map.entry(97, "data down"),
            Map.entry(98, "NRPN, low"),
            Map.entry(99, "NRPN"),
            Map.entry(100, "RPN, low"),
            Map.entry(101, "RPN"),
            Map.entry(120, "all sound off"),
            Map.entry(121, "reset controllers"),
            Map.entry(122, "local control"),
            Map.entry(123, "all notes off"),
            Map.entry(124, "omni off"),
            Map.entry(125, "omni on"),
            Map.entry(126, "mono"),
            Map.entry(127, "poly"));

    private ControllerNames() {}

    /** The name of controller 0-127, where the standard gives it one. */
    public static Optional<String> name(int number) {
        return Optional.ofNullable(NAMES.get(number));
    }

    /** Its number and, where it has one, its name: {@code CC 64 sustain}. */
    public static String numberAndName(int number) {
        return "CC " + number + name(number).map(name -> " " + name).orElse("");
    }
}
