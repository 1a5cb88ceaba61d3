package dibble.desktop.gear;

import dibble.desktop.ui.Choice;
import dibble.desktop.ui.Choices;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Form;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.midi.GeneralMidi;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.IntStream;

/** The fields of a part: those that everybody needs, and the rest. They show where a part is; an edit changes it there. */
final class PartForms {
    private static final Object AUTO = "auto";
    private static final Object NONE = "none";
    private static final List<Choice> PROGRAMS = programs(GeneralMidi::program);
    private static final List<Choice> KITS = programs(number -> "kit " + (number + 1));

    private final Desk desk;
    private final GearPresenter presenter;
    private final Form<PartRef> main;
    private final Form<PartRef> more;

    PartForms(Desk desk, GearPresenter presenter) {
        this.desk = desk;
        this.presenter = presenter;
        main = main();
        more = more();
    }

    Form<PartRef> mainForm() {
        return main;
    }

    Form<PartRef> moreForm() {
        return more;
    }

    private Form<PartRef> form() {
        return new Form<>(
                () -> desk.session().middleC(),
                ref -> desk.session().part(ref).isPresent(),
                (ref, what, change) -> change.apply(ref));
    }

    private Part part(PartRef ref) {
        return desk.session().part(ref).orElseThrow();
    }

    private static List<Choice> programs(Function<Integer, String> words) {
        List<Choice> choices = new ArrayList<>(List.of(new Choice(NONE, "as it is")));
        IntStream.range(0, 128).forEach(number -> choices.add(new Choice(number, words.apply(number))));
        return choices;
    }

    private Form<PartRef> main() {
        return form().text(
                        "part-name",
                        "Name",
                        "name of the part",
                        ref -> part(ref).name(),
                        with("name", (it, text) -> it.edit().name(text).build()))
                .choice(
                        "part-channel",
                        "Channel",
                        "channel of the part",
                        ref -> Choices.with(new Choice(AUTO, "kept: chosen once"), Form.CHANNELS),
                        ref -> part(ref).channel() == null ? AUTO : part(ref).channel(),
                        with("channel", (it, to) -> it.withChannel(to.equals(AUTO) ? null : (Integer) to)))
                .choice(
                        "part-program",
                        "Program",
                        "program of the part",
                        ref -> part(ref).drums() ? KITS : PROGRAMS,
                        ref -> part(ref).program() == null ? NONE : part(ref).program(),
                        with(
                                "program",
                                (it, to) -> it.edit()
                                        .program(to.equals(NONE) ? null : (Integer) to)
                                        .build()))
                .number(
                        "part-volume",
                        "Level",
                        "volume",
                        0,
                        127,
                        true,
                        ref -> part(ref).volume(),
                        with("level", (it, value) -> it.edit().volume(value).build()))
                .number(
                        "part-pan",
                        "Pan",
                        "pan",
                        0,
                        127,
                        true,
                        ref -> part(ref).pan(),
                        with("pan", (it, value) -> it.edit().pan(value).build()))
                .keys("part", "Answers to", ref -> part(ref).keys(), with("keys", Part::withKeys))
                .number(
                        "part-output",
                        "Output",
                        "output",
                        1,
                        64,
                        false,
                        ref -> part(ref).output(),
                        with("output", (it, value) -> it.edit().output(value).build()));
    }

    private Form<PartRef> more() {
        Form<PartRef> form = form();
        form.flag(
                        "part-drums",
                        "Drums",
                        "whether each key is a sound of its own",
                        "each key is one",
                        "No",
                        ref -> part(ref).drums(),
                        with("drums", (it, on) -> it.edit().drums(on).build()))
                .number(
                        "part-bank",
                        "Bank",
                        "bank",
                        0,
                        127,
                        true,
                        ref -> bank(part(ref), 0),
                        with("bank", (it, value) -> withBank(it, 0, value)))
                .number(
                        "part-bank-fine",
                        "Bank, fine",
                        "bank, second number",
                        0,
                        127,
                        true,
                        ref -> bank(part(ref), 1),
                        with("bank", (it, value) -> withBank(it, 1, value)))
                .colour("part-colour", "Colour", ref -> part(ref).colour(), with("colour", Part::withColour));
        PartRef[] now = new PartRef[1];
        NamedNotes switches = new NamedNotes(
                "keyswitches", names -> presenter.changePart("keyswitches", now[0], it -> it.withKeyswitches(names)));
        NamedNotes notes = new NamedNotes(
                "note-names",
                names -> presenter.changePart(
                        "note names", now[0], it -> it.edit().noteNames(names).build()));
        return form.wideRow("Keyswitches", switches, ref -> {
                    now[0] = ref;
                    switches.show(part(ref).keyswitches(), desk.session().middleC());
                })
                .wideRow(
                        "Note names",
                        notes,
                        ref -> notes.show(part(ref).noteNames(), desk.session().middleC()));
    }

    private static Integer bank(Part part, int which) {
        return part.bank() == null ? null : part.bank().get(which);
    }

    /** A bank is two numbers or none. */
    private static Part withBank(Part part, int which, Integer value) {
        if (value == null) {
            return part.edit().bank(null).build();
        }
        List<Integer> bank = new ArrayList<>(part.bank() == null ? List.of(0, 0) : part.bank());
        bank.set(which, value);
        return part.edit().bank(bank).build();
    }

    /** A part's form shows where the part is; an edit changes what is there. */
    private <V> BiFunction<PartRef, V, PartRef> with(String what, BiFunction<Part, V, Part> change) {
        return (ref, value) -> {
            presenter.changePart(what, ref, it -> change.apply(it, value));
            return ref;
        };
    }
}
