package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Receives;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.gear.GearPresenter;
import dibble.programs.OwnPorts;
import java.util.LinkedHashSet;
import java.util.List;

/** The fields of an instrument. */
final class InstrumentForm {
    private InstrumentForm() {}

    static Form<Instrument> of(ViewContext desk, GearPresenter presenter) {
        return new Form<Instrument>(
                        () -> desk.session().middleC(),
                        it -> desk.session().instrument(it.id()).isPresent(),
                        (it, what, change) -> presenter.changeInstrument(what, it.id(), change))
                .by(Instrument::id)
                .text(
                        "instrument-name",
                        say("common.name"),
                        say("instrument-form.name-of-the-instrument"),
                        Instrument::name,
                        Instrument::withName)
                .choice(
                        "instrument-kind",
                        say("common.kind"),
                        say("instrument-form.kind-of-instrument"),
                        it -> List.of(
                                new Choice<>(true, say("common.built-in")),
                                new Choice<>(false, say("instrument-form.external-module"))),
                        Instrument::builtIn,
                        (it, builtIn) -> it.withBuiltIn(builtIn))
                .choice(
                        "instrument-port",
                        say("common.port"),
                        say("instrument-form.port-of-the-instrument"),
                        it -> presenter.portChoices(it.id(), it.port()),
                        Instrument::port,
                        (it, port) -> it.withPort(port))
                .flag(
                        "part-ports",
                        say("instrument-form.ports"),
                        say("instrument-form.ports-of-the-parts"),
                        say("instrument-form.one-for-each-part"),
                        say("instrument-form.one-for-all-parts"),
                        Instrument::partPorts,
                        Instrument::withPartPorts)
                .onlyFor(it -> OwnPorts.isOwn(it.port()))
                .choice(
                        "instrument-receives",
                        say("instrument-form.receives"),
                        say("instrument-form.which-channels-the-instrument-receives"),
                        it -> List.of(
                                new Choice<>(Receives.BY_CHANNEL, say("instrument-form.by-channel")),
                                new Choice<>(Receives.ONE_CHANNEL, say("instrument-form.one-channel")),
                                new Choice<>(Receives.ALL, say("instrument-form.all-channels-omni"))),
                        Instrument::receives,
                        (it, receives) -> it.withReceives(receives))
                .several(
                        "hears",
                        say("instrument-form.also-cabled-to"),
                        it -> Choices.sources(desk.session()),
                        it -> new LinkedHashSet<>(it.hearsDirectly()),
                        (it, ids) -> it.withHearsDirectly(
                                ids.stream().map(String.class::cast).toList()));
    }
}
