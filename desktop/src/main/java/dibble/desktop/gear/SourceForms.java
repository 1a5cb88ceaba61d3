package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.gear.GearPresenter;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/** The fields of a source: those that everybody needs, and the rest. */
final class SourceForms {

    private final ViewContext desk;
    private final GearPresenter presenter;
    private final Form<Source> main;
    private final Form<Source> more;

    SourceForms(ViewContext desk, GearPresenter presenter) {
        this.desk = desk;
        this.presenter = presenter;
        main = main();
        more = more();
    }

    Form<Source> mainForm() {
        return main;
    }

    Form<Source> moreForm() {
        return more;
    }

    private Form<Source> form() {
        return new Form<Source>(
                        () -> desk.session().middleC(),
                        it -> desk.session().source(it.id()).isPresent(),
                        (it, what, change) -> presenter.changeSource(what, it.id(), change))
                .by(Source::id);
    }

    private Form<Source> main() {
        return form().text(
                        "source-name",
                        say("common.name"),
                        say("source-forms.name-of-the-source"),
                        Source::name,
                        (it, text) -> it.with().name(text).build())
                .choice(
                        "source-kind",
                        say("common.kind"),
                        say("source-forms.kind-of-source"),
                        it -> Stream.of(SourceKind.values())
                                .map(kind -> new Choice<>(kind, kind.name().toLowerCase(Locale.ROOT)))
                                .toList(),
                        Source::kind,
                        (it, kind) -> it.with().kind(kind).build())
                .choice(
                        "source-port",
                        say("common.port"),
                        say("source-forms.port-of-the-source"),
                        it -> presenter.portChoices(it.id(), it.port(), "any"),
                        Source::port,
                        (it, port) -> it.with().port(port).build())
                .keys(
                        "source",
                        say("common.keys"),
                        Source::keys,
                        (it, keys) -> it.with().keys(keys).build())
                .channels("let-in", say("source-forms.listens-on"), Source::listen, Source::withListen)
                .number(
                        "source-transpose",
                        say("common.transpose"),
                        say("source-forms.transpose-in-semitones"),
                        -127,
                        127,
                        false,
                        Source::transpose,
                        Source::withTranspose)
                .flag(
                        "local-control",
                        say("source-forms.local-control"),
                        say("source-forms.local-control-2"),
                        say("common.on"),
                        say("common.off-2"),
                        Source::localControl,
                        (it, on) -> it.withOwnSounds(on, it.ownInstrument()))
                .choice(
                        "own-instrument",
                        say("source-forms.internal-sounds"),
                        say("source-forms.the-instrument-this-keyboard-plays"),
                        it -> Choices.with(
                                new Choice<>(null, say("common.nothing")), Choices.instruments(desk.session())),
                        Source::ownInstrument,
                        (it, id) -> it.withOwnSounds(it.localControl(), id));
    }

    private Form<Source> more() {
        return form().channels(
                        "sends",
                        say("source-forms.sends-on"),
                        it -> it.sends().orElse(ChannelSet.of()),
                        (it, on) -> it.with()
                                .sends(on.mask() == 0 ? Optional.empty() : Optional.of(on))
                                .build())
                .several(
                        "accept",
                        say("source-forms.accepts"),
                        it -> Stream.of(EventKind.values())
                                .map(kind -> new Choice<>(kind, words(kind)))
                                .toList(),
                        Source::accept,
                        (it, kinds) -> it.with().accept(kinds).build())
                .several(
                        "sysex-to",
                        say("source-forms.sysex-to"),
                        it -> Choices.instruments(desk.session()),
                        it -> new LinkedHashSet<>(it.sysexTo()),
                        (it, ids) -> it.withSysexTo(List.copyOf(ids)))
                .flag(
                        "echoes",
                        say("source-forms.midi-echo"),
                        say("source-forms.it-sends-back-what-it"),
                        say("source-forms.sends-back-what-it-receives"),
                        say("common.no"),
                        Source::echoes,
                        Source::withEchoes);
    }

    private static String words(EventKind kind) {
        return switch (kind) {
            case NOTES -> say("source-forms.notes");
            case CONTROLLERS -> say("source-forms.controllers-cc");
            case PITCH_BEND -> say("common.pitch-bend");
            case CHANNEL_PRESSURE -> say("common.channel-pressure");
            case KEY_PRESSURE -> say("common.poly-pressure");
            case PROGRAM_CHANGE -> say("common.program-changes");
        };
    }
}
