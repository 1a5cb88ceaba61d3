package dibble.midi;

import static dibble.text.CoreText.say;

import java.util.List;
import java.util.Optional;

/** The names of registered parameters (MIDI 1.0, RPN table). */
public final class ParameterNames {
    private static final List<String> NAMES = List.of(
            say("parameter-names.pitch-bend-range"),
            say("parameter-names.fine-tuning"),
            say("parameter-names.coarse-tuning"),
            say("parameter-names.tuning-program"),
            say("parameter-names.tuning-bank"),
            say("parameter-names.modulation-range"));

    private ParameterNames() {}

    /** The name of a registered parameter 0-16383; empty for those that the table does not have. */
    public static Optional<String> name(int number) {
        return number < NAMES.size() ? Optional.of(NAMES.get(number)) : Optional.empty();
    }
}
