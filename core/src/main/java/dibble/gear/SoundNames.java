package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * The names of a device's sounds, as a device name document (MIDNAM) has them.
 *
 * @param maker may be empty
 * @param model may be empty
 * @param bankSelect by which controllers its banks are selected
 * @param notes names of notes, by note 0-127
 * @param controllers names of controllers, by number 0-127
 */
public record SoundNames(
        String maker,
        String model,
        BankSelect bankSelect,
        List<Bank> banks,
        Map<Integer, String> notes,
        Map<Integer, String> controllers,
        UnknownFields extras) {
    /** Banks that a document has at most. */
    public static final int MAX_BANKS = 1024;

    /**
     * A bank of programs.
     *
     * @param numbers controllers 0 and 32, as a list of two; 0 for one that is not sent
     */
    public record Bank(String name, List<Integer> numbers, List<Program> programs, UnknownFields extras) {
        public Bank(String name, List<Integer> numbers, List<Program> programs) {
            this(name, numbers, programs, UnknownFields.NONE);
        }

        public Bank {
            numbers = new Sound(numbers, null, null, null).bank();
            programs = List.copyOf(programs);
        }
    }

    /**
     * A program of a bank.
     *
     * @param program 0-127
     * @param label as the device prints its number: {@code A01}; may be empty
     */
    public record Program(int program, String name, String label, UnknownFields extras) {
        public Program(int program, String name, String label) {
            this(program, name, label, UnknownFields.NONE);
        }

        public Program {
            Ranges.range("number.program", program, 0, 127);
        }
    }

    public SoundNames {
        banks = List.copyOf(banks);
        if (banks.size() > MAX_BANKS) {
            throw new UserException(say("sound-names.too-many-banks", banks.size(), MAX_BANKS));
        }
        notes = numbered("number.note", notes);
        controllers = numbered("number.controller", controllers);
    }

    private static Map<Integer, String> numbered(String what, Map<Integer, String> names) {
        names.keySet().forEach(number -> Ranges.range(what, number, 0, 127));
        return Collections.unmodifiableMap(new TreeMap<>(names));
    }

    /** The bank that a part has selected: that of its numbers, or the first where it selects none. */
    public Optional<Bank> bank(List<Integer> numbers) {
        return numbers == null
                ? banks.stream().findFirst()
                : banks.stream().filter(bank -> bank.numbers().equals(numbers)).findFirst();
    }

    /** The name of a program of a bank; empty where the document has none. */
    public Optional<Program> program(List<Integer> numbers, int program) {
        return bank(numbers)
                .flatMap(bank -> bank.programs().stream()
                        .filter(it -> it.program() == program)
                        .findFirst());
    }

    /** Returns the number of programs in all banks. */
    public int count() {
        return banks.stream().mapToInt(bank -> bank.programs().size()).sum();
    }

    /**
     * Returns true if an instrument with a name is probably this device, by its model with or without the manufacturer.
     */
    public boolean isCalled(String name) {
        return !model.isEmpty() && (name.equalsIgnoreCase(model) || name.equalsIgnoreCase(maker + " " + model));
    }
}
