package dibble.desktop.gear;

import dibble.desktop.ui.Choice;
import dibble.desktop.ui.Choices;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Form;
import dibble.gear.Instrument;
import dibble.gear.Receives;
import java.util.LinkedHashSet;
import java.util.List;

/** The fields of an instrument. */
final class InstrumentForm {
    private InstrumentForm() {}

    static Form<Instrument> of(Desk desk, GearPresenter presenter) {
        return new Form<Instrument>(
                        () -> desk.session().middleC(),
                        it -> true,
                        (it, what, change) -> presenter.changeInstrument(what, it.id(), change))
                .text("instrument-name", "Name", "name of the instrument", Instrument::name, Instrument::withName)
                .choice(
                        "instrument-kind",
                        "Kind",
                        "kind of the instrument",
                        it -> List.of(new Choice(true, "built in"), new Choice(false, "an outside module")),
                        Instrument::builtIn,
                        (it, builtIn) -> it.withBuiltIn((Boolean) builtIn))
                .choice(
                        "instrument-port",
                        "Port",
                        "port of the instrument",
                        it -> presenter.portChoices(it.port()),
                        Instrument::port,
                        (it, port) -> it.withPort((String) port))
                .choice(
                        "instrument-receives",
                        "Receives",
                        "what the instrument does with channels",
                        it -> List.of(
                                new Choice(Receives.BY_CHANNEL, "by channel"),
                                new Choice(Receives.ONE_CHANNEL, "one channel"),
                                new Choice(Receives.ALL, "all channels")),
                        Instrument::receives,
                        (it, receives) -> it.withReceives((Receives) receives))
                .several(
                        "hears",
                        "Hears directly",
                        it -> Choices.sources(desk.session()),
                        it -> new LinkedHashSet<>(it.hearsDirectly()),
                        (it, ids) -> it.withHearsDirectly(
                                ids.stream().map(String.class::cast).toList()));
    }
}
