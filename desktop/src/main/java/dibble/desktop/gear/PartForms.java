package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.Navigator;
import dibble.presentation.Programs;
import dibble.presentation.gear.GearPresenter;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import javafx.scene.control.Button;

/** The fields of a part: those that everybody needs, and the rest. They show where a part is; an edit changes it there. */
final class PartForms {

    private final ViewContext desk;
    private final GearPresenter presenter;
    private final Form<PartRef> main;
    private final Form<PartRef> more;

    PartForms(ViewContext desk, GearPresenter presenter) {
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

    private Programs programs(PartRef ref) {
        return new Programs(desk.session(), ref);
    }

    /** The program that a part has, or null. */
    private Programs.Picked program(PartRef ref) {
        Part part = part(ref);
        return part.program() == null ? null : programs(ref).picked(part.bank(), part.program());
    }

    private static Part withProgram(Part part, Programs.Picked to) {
        return to == null
                ? part.with().program(null).build()
                : part.with().bank(to.bank()).program(to.program()).build();
    }

    private boolean isBuiltIn(PartRef ref) {
        return desk.session()
                .instrument(ref.instrument())
                .map(Instrument::builtIn)
                .orElse(false);
    }

    private Form<PartRef> main() {
        PartRef[] now = new PartRef[1];
        Button sounds = Cards.button(
                "part-sounds",
                say("levels-view.choose-sound"),
                () -> desk.places().show(new Navigator.Thing(Navigator.Kind.SOUND, now[0].toString())));
        ProgramSearch search = new ProgramSearch(
                desk, picked -> presenter.changePart(say("edit.program"), now[0], it -> withProgram(it, picked)));
        return form().text(
                        "part-name",
                        say("common.name"),
                        say("part-forms.name-of-the-part"),
                        ref -> part(ref).name(),
                        with(
                                say("edit.rename"),
                                (it, text) -> it.with().name(text).build()))
                .choice(
                        "part-channel",
                        say("part-forms.channel"),
                        say("part-forms.channel-of-the-part"),
                        ref -> Choices.with(new Choice<>(null, say("part-forms.auto-kept")), Form.CHANNELS),
                        ref -> part(ref).channel(),
                        with(say("edit.channel"), (it, to) -> it.withChannel(to)))
                .choice(
                        "part-program",
                        say("common.program"),
                        say("part-forms.program-of-the-part"),
                        ref -> programs(ref).choices(new Choice<>(null, say("common.not-sent")), program(ref)),
                        this::program,
                        with(say("edit.program"), PartForms::withProgram))
                .row("", search, ref -> {
                    now[0] = ref;
                    search.show(ref);
                })
                .onlyFor(ref -> programs(ref).areNamed())
                .row("", sounds, ref -> now[0] = ref)
                .onlyFor(this::isBuiltIn)
                .number(
                        "part-volume",
                        say("common.level-cc-7"),
                        say("part-forms.level"),
                        0,
                        127,
                        true,
                        ref -> part(ref).volume(),
                        with(
                                say("edit.level"),
                                (it, value) -> it.withStrip(it.strip().withVolume(value))))
                .number(
                        "part-pan",
                        say("common.pan-cc-10"),
                        say("part-forms.pan"),
                        0,
                        127,
                        true,
                        ref -> part(ref).pan(),
                        with(
                                say("edit.pan"),
                                (it, value) -> it.withStrip(it.strip().withPan(value))))
                .keys("part", say("part-forms.keys"), ref -> part(ref).keys(), with(say("edit.keys"), Part::withKeys))
                .number(
                        "part-output",
                        say("part-forms.output"),
                        say("part-forms.output-2"),
                        1,
                        64,
                        false,
                        ref -> part(ref).output(),
                        with(
                                say("edit.output"),
                                (it, value) -> it.withStrip(it.strip().withOutput(value))));
    }

    private Form<PartRef> more() {
        Form<PartRef> form = form();
        form.flag(
                        "part-drums",
                        say("part-forms.drums"),
                        say("part-forms.each-key-is-a-sound"),
                        say("part-forms.yes-each-key-is-a"),
                        say("common.no"),
                        ref -> part(ref).drums(),
                        with(
                                say("edit.drum-part"),
                                (it, on) -> it.with().drums(on).build()))
                .number(
                        "part-bank",
                        say("part-forms.bank-msb-cc-0"),
                        say("part-forms.bank-msb"),
                        0,
                        127,
                        true,
                        ref -> bank(part(ref), 0),
                        with(say("edit.bank"), (it, value) -> withBank(it, 0, value)))
                .number(
                        "part-bank-fine",
                        say("part-forms.bank-lsb-cc-32"),
                        say("part-forms.bank-lsb"),
                        0,
                        127,
                        true,
                        ref -> bank(part(ref), 1),
                        with(say("edit.bank"), (it, value) -> withBank(it, 1, value)))
                .colour(
                        "part-colour",
                        say("part-forms.colour"),
                        ref -> part(ref).colour(),
                        with(say("edit.colour"), Part::withColour));
        PartRef[] now = new PartRef[1];
        NamedNotes switches = new NamedNotes(
                "keyswitches",
                names -> presenter.changePart(say("edit.keyswitches"), now[0], it -> it.withKeyswitches(names)));
        NamedNotes notes = new NamedNotes(
                "note-names",
                names -> presenter.changePart(
                        say("edit.note-names"),
                        now[0],
                        it -> it.with().noteNames(names).build()));
        return form.wideRow(say("part-forms.keyswitches"), switches, ref -> {
                    now[0] = ref;
                    switches.show(part(ref).keyswitches(), desk.session().middleC());
                })
                .wideRow(
                        say("part-forms.note-names"),
                        notes,
                        ref -> notes.show(part(ref).noteNames(), desk.session().middleC()));
    }

    private static Integer bank(Part part, int which) {
        return part.bank() == null ? null : part.bank().get(which);
    }

    /** A bank is two numbers or none. */
    private static Part withBank(Part part, int which, Integer value) {
        if (value == null) {
            return part.with().bank(null).build();
        }
        List<Integer> bank = new ArrayList<>(part.bank() == null ? List.of(0, 0) : part.bank());
        bank.set(which, value);
        return part.with().bank(bank).build();
    }

    /** The form of a part finds it by its reference; an edit changes the present part. */
    private <V> BiFunction<PartRef, V, PartRef> with(String what, BiFunction<Part, V, Part> change) {
        return (ref, value) -> {
            presenter.changePart(what, ref, it -> change.apply(it, value));
            return ref;
        };
    }
}
