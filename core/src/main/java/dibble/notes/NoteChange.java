package dibble.notes;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/** The changes that a command and a menu offer, each with the numbers that it asks for. */
public enum NoteChange {
    VELOCITY_SET(about -> Velocities.set(about.value(0)), Number.of("velocity", 1, 127, 80)),
    VELOCITY_ADD(about -> Velocities.add(about.value(0)), Number.of("more", -126, 126, 10)),
    VELOCITY_SCALE(about -> Velocities.scale(about.value(0)), Number.of("percent", 1, 400, 120)),
    VELOCITY_LIMIT(
            about -> Velocities.limit(about.value(0), about.value(1)),
            Number.of("least", 1, 127, 20),
            Number.of("most", 1, 127, 110)),
    VELOCITY_EVEN(about -> Velocities.even(about.value(0)), Number.of("percent", 0, 100, 50)),
    VELOCITY_VARY(
            about -> Velocities.vary(about.value(0), about.value(1)),
            Number.of("most", 0, 64, 6),
            Number.of("seed", 0, 9999, 1)),
    VELOCITY_SLOPE(
            about -> Velocities.slope(about.value(0), about.value(1)),
            Number.of("first", 1, 127, 40),
            Number.of("last", 1, 127, 110)),
    LENGTH_SET(about -> Lengths.set(about.ticks(0)), Number.of("ticks", 1, 99_999, 240)),
    LENGTH_SCALE(about -> Lengths.scale(about.value(0)), Number.of("percent", 1, 1000, 90)),
    LENGTH_MINIMUM(about -> Lengths.minimum(about.ticks(0)), Number.of("ticks", 1, 99_999, 120)),
    LEGATO(about -> Lengths.legato(about.ticks(0)), Number.of("gap", 0, 9999, 0)),
    BEFORE_NEXT(about -> Lengths.beforeNext(about.ticks(0)), Number.of("gap", 0, 9999, 30)),
    OVERLAPS(about -> Lengths.beforeNextOfKey(about.ticks(0)), Number.of("gap", 0, 9999, 10)),
    TRANSPOSE(about -> Pitches.transpose(about.value(0)), Number.of("semitones", -127, 127, 12)),
    INTO_SCALE(
            about -> Pitches.intoScale(about.value(0), Pitches.Scale.values()[about.value(1)]),
            Number.choice(
                    "root",
                    List.of("c", "c-sharp", "d", "d-sharp", "e", "f", "f-sharp", "g", "g-sharp", "a", "a-sharp", "b")),
            Number.choice(
                    "scale",
                    Stream.of(Pitches.Scale.values()).map(Pitches.Scale::word).toList())),
    SHIFT(about -> TimeChanges.shift(about.ticks(0)), Number.of("later", -99_999, 99_999, 120)),
    HALF_TIME(about -> TimeChanges.stretch(2, 1)),
    DOUBLE_TIME(about -> TimeChanges.stretch(1, 2)),
    FIT(about -> TimeChanges.fit(about.value(0) * about.bar), Number.of("bars", 1, 999, 2)),
    REVERSE(about -> TimeChanges.reverse()),
    DELETE_SHORT(about -> CleanUp.shorterThan(about.ticks(0)), Number.of("ticks", 1, 99_999, 40)),
    DELETE_SOFT(about -> CleanUp.softerThan(about.value(0)), Number.of("velocity", 1, 127, 10)),
    DOUBLES(about -> CleanUp.doubles(about.ticks(0)), Number.of("within", 0, 9999, 30)),
    THIN(
            about -> CleanUp.thin(about.ticks(0), about.value(1)),
            Number.of("within", 1, 9999, 40),
            Number.of("away", 0, 127, 3));

    /**
     * A number that a change asks for.
     *
     * @param name a word for it
     * @param words where it is one of several: theirs, in order; else none
     */
    public record Number(String name, int low, int high, int usual, List<String> words) {
        static Number of(String name, int low, int high, int usual) {
            return new Number(name, low, high, usual, List.of());
        }

        static Number choice(String name, List<String> words) {
            return new Number(name, 0, words.size() - 1, 0, words);
        }

        /** Returns the expected arguments, for a message. */
        private String expected() {
            return words.isEmpty() ? say("note-change.range", low, high) : String.join(", ", words);
        }

        private int parse(NoteChange change, String text) {
            if (!words.isEmpty() && words.contains(text)) {
                return words.indexOf(text);
            }
            if (words.isEmpty() && text.matches("[+-]?\\d{1,6}")) {
                int value = Integer.parseInt(text);
                if (value >= low && value <= high) {
                    return value;
                }
            }
            throw new UserException(say("note-change.expected", change.word(), name, text, expected()));
        }
    }

    /**
     * The arguments of a change.
     *
     * @param values a value for each of its numbers; lengths are in 960ths of a quarter note
     * @param quarter the ticks of a quarter note
     * @param bar the ticks of a bar
     */
    private record About(int[] values, long quarter, long bar) {
        int value(int i) {
            return values[i];
        }

        long ticks(int i) {
            return Math.round((double) values[i] * quarter / TempoMap.PPQ);
        }
    }

    private interface Maker {
        NoteFunction of(About about);
    }

    private final Maker maker;
    private final List<Number> numbers;

    NoteChange(Maker maker, Number... numbers) {
        this.maker = maker;
        this.numbers = List.of(numbers);
    }

    /** As a command has it: {@code velocity-add}. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** The numbers that it asks for. */
    public List<Number> numbers() {
        return numbers;
    }

    /** The function. @param values one for each number, in range; lengths are in 960ths of a quarter note */
    public NoteFunction with(int[] values, long quarter, long bar) {
        return maker.of(new About(values.clone(), quarter, bar));
    }

    /** The numbers that are usual. */
    public int[] usual() {
        return numbers.stream().mapToInt(Number::usual).toArray();
    }

    /**
     * Reads a change with its numbers, such as {@code transpose=-12} or {@code velocity-limit=20,110}; numbers that are
     * left out are the usual ones.
     *
     * @throws UserException with what, given and expected
     */
    public static NoteFunction parse(String text, long quarter, long bar) {
        String[] parts = text.strip().split("=", 2);
        NoteChange change = Arrays.stream(values())
                .filter(it -> it.word().equals(parts[0]))
                .findFirst()
                .orElseThrow(() -> new UserException(say(
                        "note-change.unknown",
                        parts[0],
                        String.join(
                                ", ",
                                Arrays.stream(values()).map(NoteChange::word).toList()))));
        List<String> given = new ArrayList<>();
        if (parts.length > 1) {
            given.addAll(List.of(parts[1].split(",", -1)));
        }
        if (given.size() > change.numbers.size()) {
            throw new UserException(say("note-change.too-many", change.word(), given.size(), change.numbers.size()));
        }
        int[] values = change.usual();
        for (int i = 0; i < given.size(); i++) {
            values[i] = change.numbers.get(i).parse(change, given.get(i).strip());
        }
        return change.with(values, quarter, bar);
    }
}
