package dibble.desktop.gear;

import dibble.desktop.ui.Choice;
import dibble.desktop.ui.Choices;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Form;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** The fields of a source: those that everybody needs, and the rest. */
final class SourceForms {
    private static final Object NONE = "none";

    private final Desk desk;
    private final GearPresenter presenter;
    private final Form<Source> main;
    private final Form<Source> more;

    SourceForms(Desk desk, GearPresenter presenter) {
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
        return new Form<>(
                () -> desk.session().middleC(),
                it -> true,
                (it, what, change) -> presenter.changeSource(what, it.id(), change));
    }

    private Form<Source> main() {
        return form().text(
                        "source-name",
                        "Name",
                        "name of the source",
                        Source::name,
                        (it, text) -> it.edit().name(text).build())
                .choice(
                        "source-kind",
                        "Kind",
                        "kind of the source",
                        it -> Stream.of(SourceKind.values())
                                .map(kind -> new Choice(kind, kind.name().toLowerCase(Locale.ROOT)))
                                .toList(),
                        Source::kind,
                        (it, kind) -> it.edit().kind((SourceKind) kind).build())
                .choice(
                        "source-port",
                        "Port",
                        "port of the source",
                        it -> presenter.portChoices(it.port(), "any"),
                        Source::port,
                        (it, port) -> it.edit().port((String) port).build())
                .keys(
                        "source",
                        "Keys",
                        Source::keys,
                        (it, keys) -> it.edit().keys(keys).build())
                .channels("let-in", "Lets in", Source::listen, Source::withListen)
                .number(
                        "source-transpose",
                        "Transpose",
                        "transpose in semitones",
                        -127,
                        127,
                        false,
                        Source::transpose,
                        Source::withTranspose)
                .flag(
                        "local-control",
                        "Local control",
                        "local control",
                        "On",
                        "Off",
                        Source::localControl,
                        (it, on) -> it.withOwnSounds(on, it.ownInstrument()))
                .choice(
                        "own-instrument",
                        "Sounds itself",
                        "the instrument that it sounds by itself",
                        it -> Choices.with(new Choice(NONE, "nothing"), Choices.instruments(desk.session())),
                        it -> it.ownInstrument() == null ? NONE : it.ownInstrument(),
                        (it, id) -> it.withOwnSounds(it.localControl(), id.equals(NONE) ? null : (String) id));
    }

    private Form<Source> more() {
        return form().channels(
                        "sends",
                        "Sends on",
                        it -> it.sends().orElse(ChannelSet.of()),
                        (it, on) -> it.edit()
                                .sends(on.mask() == 0 ? Optional.empty() : Optional.of(on))
                                .build())
                .several(
                        "accept",
                        "Accepts",
                        it -> Stream.of(EventKind.values())
                                .map(kind -> new Choice(kind, words(kind)))
                                .toList(),
                        Source::accept,
                        (it, kinds) -> it.edit().accept(kinds(kinds)).build())
                .several(
                        "sysex-to",
                        "Exclusive to",
                        it -> Choices.instruments(desk.session()),
                        it -> new LinkedHashSet<>(it.sysexTo()),
                        (it, ids) -> it.withSysexTo(
                                ids.stream().map(String.class::cast).toList()))
                .flag(
                        "echoes",
                        "Echoes",
                        "whether it sends back what it gets",
                        "sends back what it gets",
                        "No",
                        Source::echoes,
                        Source::withEchoes);
    }

    private static String words(EventKind kind) {
        return switch (kind) {
            case NOTES -> "notes";
            case CONTROLLERS -> "controllers";
            case PITCH_BEND -> "pitch bend";
            case CHANNEL_PRESSURE -> "pressure";
            case KEY_PRESSURE -> "key pressure";
            case PROGRAM_CHANGE -> "programs";
        };
    }

    private static Set<EventKind> kinds(Set<Object> chosen) {
        Set<EventKind> kinds = EnumSet.noneOf(EventKind.class);
        chosen.forEach(kind -> kinds.add((EventKind) kind));
        return kinds;
    }
}
