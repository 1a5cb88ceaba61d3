package dibble.presentation;

import static dibble.presentation.UiText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SoundNames;
import dibble.midi.GeneralMidi;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** The programs that a part can have, by their names where the device's are known. */
public final class Programs {
    private static final int COUNT = 128;

    /** A program of a bank; null for no bank. */
    public record Picked(List<Integer> bank, int program) {}

    private final SoundNames names;
    private final boolean drums;

    /** The programs of a part as it is now. */
    public Programs(Session session, PartRef ref) {
        names = session.instrument(ref.instrument()).map(Instrument::names).orElse(null);
        drums = session.part(ref).map(Part::drums).orElse(false);
    }

    /** Returns true if the names of the device's programs are known. */
    public boolean areNamed() {
        return names != null && names.count() > 0;
    }

    /** A program as it is chosen: one without a bank is one of the first. */
    public Picked picked(List<Integer> bank, int program) {
        return new Picked(areNamed() && bank == null ? names.banks().get(0).numbers() : bank, program);
    }

    /**
     * Returns all options, including the present one.
     *
     * @param now the present program, or null
     */
    public List<Choice<Picked>> choices(Choice<Picked> none, Picked now) {
        List<Choice<Picked>> all = new ArrayList<>(List.of(none));
        if (areNamed()) {
            for (SoundNames.Bank bank : names.banks()) {
                for (SoundNames.Program program : bank.programs()) {
                    all.add(new Choice<>(new Picked(bank.numbers(), program.program()), words(bank, program)));
                }
            }
        } else {
            List<Integer> bank = now == null ? null : now.bank();
            for (int program = 0; program < COUNT; program++) {
                all.add(new Choice<>(
                        new Picked(bank, program),
                        drums ? say("common.kit", program + 1) : GeneralMidi.program(program)));
            }
        }
        if (now != null && all.stream().noneMatch(choice -> now.equals(choice.value()))) {
            all.add(new Choice<>(now, say("common.program-2", now.program() + 1)));
        }
        return all;
    }

    /** Those whose words have all that is looked for, at most so many. */
    public List<Choice<Picked>> search(String text, int most) {
        String[] wanted = text.toLowerCase(Locale.ROOT).strip().split("\\s+");
        return choices(new Choice<>(null, ""), null).stream()
                .skip(1)
                .filter(choice -> {
                    String words = choice.words().toLowerCase(Locale.ROOT);
                    return List.of(wanted).stream().allMatch(words::contains);
                })
                .limit(most)
                .toList();
    }

    private String words(SoundNames.Bank bank, SoundNames.Program program) {
        String number = program.label().isEmpty() ? String.valueOf(program.program() + 1) : program.label();
        boolean isOne = names.banks().size() == 1 || bank.name().isEmpty();
        return isOne ? number + " " + program.name() : say("programs.of-bank", bank.name(), number, program.name());
    }
}
