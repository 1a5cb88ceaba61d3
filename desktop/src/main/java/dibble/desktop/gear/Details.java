package dibble.desktop.gear;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.Words;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Receives;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.GeneralMidi;
import dibble.midi.MiddleC;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** What belongs to the selected source, part, instrument or row of parts. */
final class Details extends VBox {
    private static final Object AUTO = "auto";
    private static final Object NONE = "none";

    private final Desk desk;
    private final GearPresenter presenter;
    private final Label title = Cards.heading("");
    private final Label about = Cards.soft("");
    private final Form<Source> source;
    private final Form<Source> moreOfSource;
    private final Form<PartRef> part;
    private final Form<PartRef> moreOfPart;
    private final Form<Instrument> instrument;
    private final LaneList lanes;
    private final PlantPane plant;
    private final Button more = new Button("more…");
    private boolean showsMore;
    private final FlowPane buttons = new FlowPane(6, 6);
    private List<String> ports = List.of();
    private Object shown;

    Details(Desk desk, GearPresenter presenter) {
        super(10);
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("gear-inspector");
        setId("gear-inspector");
        about.setWrapText(true);
        about.managedProperty().bind(about.textProperty().isNotEmpty());
        plant = new PlantPane(presenter);
        lanes = new LaneList(presenter);
        source = sourceForm();
        moreOfSource = moreOfSource();
        part = partForm();
        moreOfPart = moreOfPart();
        instrument = instrumentForm();
        more.setId("gear-more");
        more.getStyleClass().add("link");
        more.setOnAction(event -> {
            showsMore = !showsMore;
            more.setText(showsMore ? "less" : "more…");
            shown = null;
            show(ports);
        });
    }

    private MiddleC middleC() {
        return desk.session().middleC();
    }

    private Part part(PartRef ref) {
        return desk.session().part(ref).orElseThrow();
    }

    /** Shows what is selected now, where anything is. */
    void show(List<String> portsThere) {
        ports = portsThere;
        List<PartRef> row = presenter.selectedParts();
        Optional<Instrument> whole = presenter.selectedInstrument();
        Optional<Source> player = presenter.selectedSource();
        if (row.size() > 1) {
            showRow(row);
        } else if (row.size() == 1) {
            showPart(row.get(0));
        } else if (whole.isPresent()) {
            showInstrument(whole.get());
        } else if (player.isPresent()) {
            showSource(player.get());
        }
    }

    /** Asks for the channels of what is selected. */
    void plantSelected() {
        List<PartRef> row = presenter.selectedParts();
        Optional<Instrument> whole = presenter.selectedInstrument();
        if (!row.isEmpty()) {
            plant.askChannels(row);
        } else if (whole.isPresent()) {
            plant.askChannels(refs(whole.get().id()));
        }
    }

    /** Puts other nodes there only where something else is shown. */
    private void put(Object what, List<Node> nodes) {
        if (!what.equals(shown)) {
            shown = what;
            plant.close();
            getChildren().setAll(nodes);
        }
    }

    private void showRow(List<PartRef> row) {
        title.setText(Words.count(row.size(), "part"));
        about.setText(
                String.join(", ", row.stream().map(ref -> part(ref).name()).toList()));
        if (!row.equals(shown)) {
            buttons.getChildren()
                    .setAll(
                            Cards.button("plant-row", "Plant channels…", () -> plant.askChannels(row)),
                            Cards.button("plant-outputs", "Plant outputs…", () -> plant.askOutputs(row)));
        }
        put(row, List.of(title, about, buttons, plant));
    }

    private void showPart(PartRef ref) {
        Instrument owner = desk.session().instrument(ref.instrument()).orElseThrow();
        title.setText(owner.name() + " / " + part(ref).name());
        if (!ref.equals(shown)) {
            buttons.getChildren()
                    .setAll(
                            Cards.button("part-duplicate", "Duplicate", () -> presenter.duplicatePart(ref)),
                            Cards.button("part-delete", "Delete", () -> presenter.deletePart(ref)),
                            Cards.button("part-instrument", "Instrument…", () -> presenter.select(owner)));
        }
        List<Node> nodes = new ArrayList<>(List.of(title, part, more));
        if (showsMore) {
            nodes.add(moreOfPart);
            moreOfPart.show(ref);
        }
        nodes.addAll(List.of(buttons, plant));
        part.show(ref);
        put(ref, nodes);
    }

    private void showInstrument(Instrument whole) {
        title.setText(whole.name());
        about.setText(identity(whole.port()));
        String key = "instrument " + whole.id();
        if (!key.equals(shown)) {
            buttons.getChildren()
                    .setAll(
                            Cards.button(
                                    "plant-instrument", "Plant channels…", () -> plant.askChannels(refs(whole.id()))),
                            Cards.button(
                                    "plant-all-outputs", "Plant outputs…", () -> plant.askOutputs(refs(whole.id()))),
                            keep("keep-instrument", withZones -> presenter.keepInstrument(whole.id(), withZones)),
                            Cards.button("instrument-up", "Up", () -> presenter.moveInstrument(whole.id(), -1)),
                            Cards.button("instrument-down", "Down", () -> presenter.moveInstrument(whole.id(), 1)),
                            Cards.button(
                                    "instrument-duplicate",
                                    "Duplicate",
                                    () -> presenter.duplicateInstrument(whole.id())),
                            Cards.button("instrument-delete", "Delete", () -> presenter.deleteInstrument(whole.id())));
        }
        instrument.show(whole);
        put(key, List.of(title, about, instrument, buttons, plant));
    }

    /** An instrument's parts as they are now. */
    private List<PartRef> refs(String id) {
        return desk.session()
                .instrument(id)
                .map(now -> now.parts().stream().map(now::ref).toList())
                .orElse(List.of());
    }

    private void showSource(Source player) {
        title.setText(player.name());
        about.setText(identity(player.port()));
        String key = "source " + player.id() + player.kind();
        if (!key.equals(shown)) {
            buttons.getChildren()
                    .setAll(keep("keep-source", withZones -> presenter.keepSource(player.id(), withZones)));
            if (player.kind() == SourceKind.PADS) {
                buttons.getChildren()
                        .add(Cards.button("plant-notes", "Plant notes…", () -> plant.askNotes(player.id())));
            }
            if (player.kind() == SourceKind.SEQUENCER) {
                buttons.getChildren()
                        .add(Cards.button("plant-lanes", "Plant channels…", () -> plant.askLanes(player.id())));
            }
            buttons.getChildren()
                    .add(Cards.button("source-delete", "Delete", () -> presenter.deleteSource(player.id())));
        }
        List<Node> nodes = new ArrayList<>(List.of(title, about, source));
        if (player.kind() == SourceKind.SEQUENCER) {
            nodes.add(lanes);
            lanes.show(player);
        }
        nodes.add(more);
        if (showsMore) {
            nodes.add(moreOfSource);
            moreOfSource.show(player);
        }
        nodes.addAll(List.of(buttons, plant));
        source.show(player);
        put(key, nodes);
    }

    private String identity(String port) {
        return desk.studio()
                .identity(port)
                .map(it -> "Answers: maker " + it.maker() + ", family " + it.family() + ", model " + it.model()
                        + ", version " + it.version())
                .orElse("");
    }

    private static MenuButton keep(String id, java.util.function.Consumer<Boolean> keeper) {
        MenuButton keep = new MenuButton("Keep");
        keep.setId(id);
        MenuItem with = new MenuItem("on the gear shelf, with its zones");
        with.setId(id + "-with");
        with.setOnAction(event -> keeper.accept(true));
        MenuItem without = new MenuItem("on the gear shelf, without zones");
        without.setId(id + "-without");
        without.setOnAction(event -> keeper.accept(false));
        keep.getItems().setAll(with, without);
        return keep;
    }

    private Form<Source> sourceForm() {
        return new Form<Source>(
                        this::middleC, it -> true, (it, what, change) -> presenter.changeSource(what, it.id(), change))
                .text(
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
                                .map(kind -> new Form.Choice(kind, kind.name().toLowerCase(Locale.ROOT)))
                                .toList(),
                        Source::kind,
                        (it, kind) -> it.edit().kind((SourceKind) kind).build())
                .choice(
                        "source-port",
                        "Port",
                        "port of the source",
                        it -> ports(it.port(), "any"),
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
                        it -> instruments(),
                        it -> it.ownInstrument() == null ? NONE : it.ownInstrument(),
                        (it, id) -> it.withOwnSounds(it.localControl(), id.equals(NONE) ? null : (String) id));
    }

    private Form<Source> moreOfSource() {
        return new Form<Source>(
                        this::middleC, it -> true, (it, what, change) -> presenter.changeSource(what, it.id(), change))
                .channels(
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
                                .map(kind -> new Form.Choice(kind, words(kind)))
                                .toList(),
                        Source::accept,
                        (it, kinds) -> it.edit().accept(kinds(kinds)).build())
                .several(
                        "sysex-to",
                        "Exclusive to",
                        it -> desk.session().instruments().stream()
                                .map(other -> new Form.Choice(other.id(), other.name()))
                                .toList(),
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

    private List<Form.Choice> instruments() {
        List<Form.Choice> choices = new ArrayList<>(List.of(new Form.Choice(NONE, "nothing")));
        desk.session().instruments().forEach(it -> choices.add(new Form.Choice(it.id(), it.name())));
        return choices;
    }

    /** The ports that are there, and the one in use where it is not. */
    private List<Form.Choice> ports(String used, String... also) {
        Set<String> names = new LinkedHashSet<>(List.of(used));
        names.addAll(ports);
        names.addAll(List.of(also));
        return names.stream()
                .filter(name -> name.equals(used)
                        || !desk.preferences().get().hiddenPorts().contains(name))
                .map(name -> new Form.Choice(name, Words.portInList(name, desk.session())))
                .toList();
    }

    private Form<PartRef> partForm() {
        Form<PartRef> form = new Form<>(
                this::middleC, ref -> desk.session().part(ref).isPresent(), (ref, what, change) -> change.apply(ref));
        return form.text(
                        "part-name",
                        "Name",
                        "name of the part",
                        ref -> part(ref).name(),
                        with("name", (it, text) -> it.edit().name(text).build()))
                .choice(
                        "part-channel",
                        "Channel",
                        "channel of the part",
                        ref -> channelChoices(),
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

    private Form<PartRef> moreOfPart() {
        Form<PartRef> form = new Form<>(
                this::middleC, ref -> desk.session().part(ref).isPresent(), (ref, what, change) -> change.apply(ref));
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
                    switches.show(part(ref).keyswitches(), middleC());
                })
                .wideRow("Note names", notes, ref -> notes.show(part(ref).noteNames(), middleC()));
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
    private <V> java.util.function.BiFunction<PartRef, V, PartRef> with(
            String what, java.util.function.BiFunction<Part, V, Part> change) {
        return (ref, value) -> {
            presenter.changePart(what, ref, it -> change.apply(it, value));
            return ref;
        };
    }

    private List<Form.Choice> channelChoices() {
        List<Form.Choice> choices = new ArrayList<>(List.of(new Form.Choice(AUTO, "kept: chosen once")));
        choices.addAll(Form.CHANNELS);
        return choices;
    }

    private static final List<Form.Choice> PROGRAMS = programs(GeneralMidi::program);
    private static final List<Form.Choice> KITS = programs(number -> "kit " + (number + 1));

    private static List<Form.Choice> programs(Function<Integer, String> words) {
        List<Form.Choice> choices = new ArrayList<>(List.of(new Form.Choice(NONE, "as it is")));
        IntStream.range(0, 128).forEach(number -> choices.add(new Form.Choice(number, words.apply(number))));
        return choices;
    }

    private Form<Instrument> instrumentForm() {
        return new Form<Instrument>(
                        this::middleC,
                        it -> true,
                        (it, what, change) -> presenter.changeInstrument(what, it.id(), change))
                .text("instrument-name", "Name", "name of the instrument", Instrument::name, Instrument::withName)
                .choice(
                        "instrument-kind",
                        "Kind",
                        "kind of the instrument",
                        it -> List.of(new Form.Choice(true, "built in"), new Form.Choice(false, "an outside module")),
                        Instrument::builtIn,
                        (it, builtIn) -> it.withBuiltIn((Boolean) builtIn))
                .choice(
                        "instrument-port",
                        "Port",
                        "port of the instrument",
                        it -> ports(it.port()),
                        Instrument::port,
                        (it, port) -> it.withPort((String) port))
                .choice(
                        "instrument-receives",
                        "Receives",
                        "what the instrument does with channels",
                        it -> List.of(
                                new Form.Choice(Receives.BY_CHANNEL, "by channel"),
                                new Form.Choice(Receives.ONE_CHANNEL, "one channel"),
                                new Form.Choice(Receives.ALL, "all channels")),
                        Instrument::receives,
                        (it, receives) -> it.withReceives((Receives) receives))
                .several(
                        "hears",
                        "Hears directly",
                        it -> desk.session().sources().stream()
                                .map(other -> new Form.Choice(other.id(), other.name()))
                                .toList(),
                        it -> new LinkedHashSet<>(it.hearsDirectly()),
                        (it, ids) -> it.withHearsDirectly(
                                ids.stream().map(String.class::cast).toList()));
    }
}
