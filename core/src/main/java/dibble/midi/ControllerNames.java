package dibble.midi;

import static dibble.text.CoreText.say;

import java.util.Map;
import java.util.Optional;

/** The names of controllers, as the MIDI 1.0 controller table has them, in plain words. */
public final class ControllerNames {
    private static final Map<Integer, String> NAMES = Map.ofEntries(
            Map.entry(0, say("controller-names.bank-select-msb")),
            Map.entry(1, say("controller-names.modulation")),
            Map.entry(2, say("controller-names.breath")),
            Map.entry(4, say("controller-names.foot")),
            Map.entry(5, say("controller-names.portamento-time")),
            Map.entry(6, say("controller-names.data-entry")),
            Map.entry(7, say("controller-names.level")),
            Map.entry(8, say("controller-names.balance")),
            Map.entry(10, say("controller-names.pan")),
            Map.entry(11, say("controller-names.expression")),
            Map.entry(12, say("controller-names.effect-1")),
            Map.entry(13, say("controller-names.effect-2")),
            Map.entry(16, say("controller-names.general-purpose-1")),
            Map.entry(17, say("controller-names.general-purpose-2")),
            Map.entry(18, say("controller-names.general-purpose-3")),
            Map.entry(19, say("controller-names.general-purpose-4")),
            Map.entry(32, say("controller-names.bank-select-lsb")),
            Map.entry(64, say("controller-names.sustain")),
            Map.entry(65, say("controller-names.portamento")),
            Map.entry(66, say("controller-names.sostenuto")),
            Map.entry(67, say("controller-names.soft-pedal")),
            Map.entry(68, say("controller-names.legato")),
            Map.entry(69, say("controller-names.hold-2")),
            Map.entry(70, say("controller-names.sound-variation")),
            Map.entry(71, say("controller-names.timbre")),
            Map.entry(72, say("controller-names.release-time")),
            Map.entry(73, say("controller-names.attack-time")),
            Map.entry(74, say("controller-names.brightness")),
            Map.entry(75, say("controller-names.decay-time")),
            Map.entry(76, say("controller-names.vibrato-rate")),
            Map.entry(77, say("controller-names.vibrato-depth")),
            Map.entry(78, say("controller-names.vibrato-delay")),
            Map.entry(80, say("controller-names.general-purpose-5")),
            Map.entry(81, say("controller-names.general-purpose-6")),
            Map.entry(82, say("controller-names.general-purpose-7")),
            Map.entry(83, say("controller-names.general-purpose-8")),
            Map.entry(84, say("controller-names.portamento-control")),
            Map.entry(88, say("controller-names.high-resolution-velocity")),
            Map.entry(91, say("controller-names.reverb")),
            Map.entry(92, say("controller-names.tremolo")),
            Map.entry(93, say("controller-names.chorus")),
            Map.entry(94, say("controller-names.detune")),
            Map.entry(95, say("controller-names.phaser")),
            Map.entry(96, say("controller-names.data-increment")),
            Map.entry(97, say("controller-names.data-decrement")),
            Map.entry(98, say("controller-names.nrpn-lsb")),
            Map.entry(99, say("controller-names.nrpn-msb")),
            Map.entry(100, say("controller-names.rpn-lsb")),
            Map.entry(101, say("controller-names.rpn-msb")),
            Map.entry(120, say("controller-names.all-sound-off")),
            Map.entry(121, say("controller-names.reset-all-controllers")),
            Map.entry(122, say("controller-names.local-control")),
            Map.entry(123, say("controller-names.all-notes-off")),
            Map.entry(124, say("controller-names.omni-off")),
            Map.entry(125, say("controller-names.omni-on")),
            Map.entry(126, say("controller-names.mono")),
            Map.entry(127, say("controller-names.poly")));

    private ControllerNames() {}

    /** The name of controller 0-127, where the standard gives it one. */
    public static Optional<String> name(int number) {
        return Optional.ofNullable(NAMES.get(number));
    }

    /** Its number and, where it has one, its name: {@code CC 64 sustain}. */
    public static String numberAndName(int number) {
        return say(
                "controller-names.cc",
                number,
                name(number).map(name -> " " + name).orElse(""));
    }
}
