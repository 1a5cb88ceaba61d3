package dibble.presentation;

import static dibble.presentation.UiText.say;

import dibble.gear.Loudness;
import java.util.Locale;
import java.util.Optional;

/** Levels as they are written and read. */
public final class Decibels {
    private Decibels() {}

    /** A level in dB with a tenth. */
    public static String words(double level) {
        if (level < Loudness.MIN) {
            return say("levels-view.silent");
        }
        double tenths = Math.round(level * 10) / 10.0;
        return (tenths < 0 ? "−" : "") + String.format(Locale.ROOT, "%.1f", Math.abs(tenths));
    }

    /** A level where tenths are of no use. */
    public static String whole(double level) {
        long rounded = Math.round(level);
        return (rounded < 0 ? "−" : "") + Math.abs(rounded);
    }

    /** A level that was typed; empty where it is none. */
    public static Optional<Double> parse(String text) {
        String plain = text.strip().replace('−', '-').replace(',', '.').replaceAll("(?i)\\s*dB$", "");
        if (plain.equalsIgnoreCase(say("levels-view.silent"))) {
            return Optional.of(Loudness.SILENCE);
        }
        return plain.matches("[+-]?\\d{1,3}(\\.\\d{1,3})?") ? Optional.of(Double.parseDouble(plain)) : Optional.empty();
    }
}
