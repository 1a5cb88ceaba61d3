package dibble.midi;

import java.util.Locale;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Names of notes: {@code F♯3} for 54 where middle C is C4. Both {@code ♯ ♭} and {@code # b} are understood. */
public final class NoteNames {
    private static final String[] SHARPS = {"C", "C♯", "D", "D♯", "E", "F", "F♯", "G", "G♯", "A", "A♯", "B"};
    private static final int[] STEPS = {9, 11, 0, 2, 4, 5, 7};
    private static final Pattern NAME = Pattern.compile("([A-G])([#♯B♭]?)(-?\\d{1,2})");

    private NoteNames() {}

    /** The name of a note 0-127. */
    public static String name(int note, MiddleC middleC) {
        return SHARPS[note % 12] + (note / 12 - 5 + middleC.octave());
    }

    /** The name with its number, as the interface writes it: {@code F♯3 54}. */
    public static String nameAndNumber(int note, MiddleC middleC) {
        return name(note, middleC) + " " + note;
    }

    /** Returns true if the key of this note is a black one. */
    public static boolean isBlack(int note) {
        return SHARPS[note % 12].length() > 1;
    }

    /** A note 0-127 from its number, its name, or both ({@code 54}, {@code F#3}, {@code F♯3 54}); empty if neither. */
    public static OptionalInt parse(String text, MiddleC middleC) {
        String[] words = text.strip().split("\\s+");
        OptionalInt last = OptionalInt.empty();
        for (String word : words) {
            last = parseWord(word, middleC);
            if (last.isEmpty()) {
                return last;
            }
        }
        return last;
    }

    private static OptionalInt parseWord(String word, MiddleC middleC) {
        if (word.matches("\\d{1,3}")) {
            return inRange(Integer.parseInt(word));
        }
        Matcher matcher = NAME.matcher(word.toUpperCase(Locale.ROOT));
        if (!matcher.matches()) {
            return OptionalInt.empty();
        }
        int accidental = switch (matcher.group(2)) {
            case "#", "♯" -> 1;
            case "B", "♭" -> -1;
            default -> 0;
        };
        int octave = Integer.parseInt(matcher.group(3));
        int step = STEPS[matcher.group(1).charAt(0) - 'A'];
        return inRange((octave + 5 - middleC.octave()) * 12 + step + accidental);
    }

    private static OptionalInt inRange(int note) {
        return note >= 0 && note <= 127 ? OptionalInt.of(note) : OptionalInt.empty();
    }
}
