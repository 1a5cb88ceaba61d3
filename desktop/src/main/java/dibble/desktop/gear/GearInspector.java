package dibble.desktop.gear;

import dibble.desktop.ui.Desk;
import dibble.desktop.ui.NoteField;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Receives;
import dibble.gear.Source;
import dibble.midi.GeneralMidi;
import dibble.midi.MiddleC;
import dibble.midi.Range;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** What belongs to the selected part with its instrument, or to the selected source. */
final class GearInspector extends VBox {
    private static final String AUTO = "kept: chosen once";
    private static final String NOTHING = "nothing";
    private static final String NO_PROGRAM = "as it is";

    private final Desk desk;
    private final GearPresenter presenter;
    private List<Object> shown = List.of();

    GearInspector(Desk desk, GearPresenter presenter) {
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("gear-inspector");
        setId("gear-inspector");
    }

    /** Shows what is selected now; nothing is made anew under somebody's typing unless it changed. */
    void show(List<String> ports) {
        Optional<PartRef> part = presenter.selectedPart();
        List<Object> now = Arrays.asList(
                part,
                part.flatMap(ref -> desk.session().instrument(ref.instrument())),
                part.isPresent() ? null : presenter.selectedSource(),
                desk.session().instruments().stream().map(Instrument::name).toList(),
                desk.session().middleC(),
                ports);
        if (!now.equals(shown)) {
            shown = now;
            showAnew();
        }
    }

    private void showAnew() {
        Optional<PartRef> part = presenter.selectedPart();
        Optional<Source> source = presenter.selectedSource();
        if (part.isPresent()) {
            showPart(part.get());
        } else if (source.isPresent()) {
            showSource(source.get());
        } else {
            Label hint = Cards.soft("Click a source or a part to see and change what it is.");
            hint.setWrapText(true);
            getChildren().setAll(hint);
        }
    }

    private static GridPane grid() {
        GridPane grid = new GridPane();
        grid.setHgap(8);
        grid.setVgap(6);
        return grid;
    }

    private void showSource(Source source) {
        GridPane grid = grid();
        Cards.row(
                grid,
                0,
                "Name",
                text(
                        "source-name",
                        "name of the source",
                        source.name(),
                        text -> presenter.changeSource(
                                "name", source.id(), it -> it.edit().name(text).build())));
        Cards.row(
                grid,
                1,
                "Port",
                choice(
                        "source-port",
                        "port of the source",
                        ports(desk.devices().inputs(), source.port(), "any"),
                        source.port(),
                        port -> presenter.changeSource(
                                "port", source.id(), it -> it.edit().port(port).build())));
        Cards.row(
                grid,
                2,
                "Keys",
                notes(
                        "source",
                        source.keys(),
                        keys -> presenter.changeSource(
                                "keys", source.id(), it -> it.edit().keys(keys).build())));
        Cards.row(
                grid,
                3,
                "Transpose",
                number(
                        "source-transpose",
                        "transpose in semitones",
                        source.transpose(),
                        -127,
                        127,
                        semitones ->
                                presenter.changeSource("transpose", source.id(), it -> it.withTranspose(semitones))));
        FlowPane channels = new FlowPane(3, 3);
        for (int channel = 1; channel <= 16; channel++) {
            int number = channel;
            ToggleButton button = new ToggleButton(String.valueOf(channel));
            button.getStyleClass().add("channel-switch");
            button.setId("let-in-" + channel);
            button.setAccessibleText("let in channel " + channel);
            button.setSelected(source.listen().holds(channel - 1));
            button.setOnAction(event -> presenter.letIn(source.id(), number, button.isSelected()));
            channels.getChildren().add(button);
        }
        Cards.row(grid, 4, "Lets in", channels);
        ToggleButton local = new ToggleButton(source.localControl() ? "On" : "Off");
        local.setId("local-control");
        local.setSelected(source.localControl());
        local.setAccessibleText("local control");
        local.setOnAction(event -> presenter.changeSource(
                "local control", source.id(), it -> it.withOwnSounds(local.isSelected(), it.ownInstrument())));
        Cards.row(grid, 5, "Local control", local);
        List<Instrument> instruments = desk.session().instruments();
        List<String> own = new ArrayList<>(List.of(NOTHING));
        instruments.forEach(instrument -> own.add(instrument.name()));
        String sounds = desk.session()
                .instrument(source.ownInstrument())
                .map(Instrument::name)
                .orElse(NOTHING);
        Cards.row(
                grid,
                6,
                "Sounds itself",
                choice("own-instrument", "the instrument that it sounds by itself", own, sounds, name -> {
                    String id = name.equals(NOTHING)
                            ? null
                            : instruments.get(own.indexOf(name) - 1).id();
                    presenter.changeSource("own sounds", source.id(), it -> it.withOwnSounds(it.localControl(), id));
                }));
        Button delete = Cards.button("source-delete", "Delete", () -> presenter.deleteSource(source.id()));
        getChildren().setAll(Cards.heading(source.name()), grid, delete);
    }

    private void showPart(PartRef ref) {
        Instrument instrument = desk.session().instrument(ref.instrument()).orElseThrow();
        Part part = desk.session().part(ref).orElseThrow();
        GridPane grid = grid();
        Cards.row(
                grid,
                0,
                "Name",
                text(
                        "part-name",
                        "name of the part",
                        part.name(),
                        text -> presenter.changePart(
                                "name", ref, it -> it.edit().name(text).build())));
        List<String> channels = new ArrayList<>(List.of(AUTO));
        IntStream.rangeClosed(1, 16).forEach(channel -> channels.add(String.valueOf(channel)));
        Cards.row(
                grid,
                1,
                "Channel",
                choice(
                        "part-channel",
                        "channel of the part",
                        channels,
                        part.channel() == null ? AUTO : String.valueOf(part.channel()),
                        text -> presenter.changePart(
                                "channel",
                                ref,
                                it -> it.withChannel(text.equals(AUTO) ? null : Integer.valueOf(text)))));
        List<String> programs = new ArrayList<>(List.of(NO_PROGRAM));
        IntStream.range(0, 128).mapToObj(GeneralMidi::program).forEach(programs::add);
        Cards.row(
                grid,
                2,
                "Program",
                choice(
                        "part-program",
                        "program of the part",
                        programs,
                        programs.get(part.program() == null ? 0 : part.program() + 1),
                        text -> presenter.changePart(
                                "program",
                                ref,
                                it -> it.edit()
                                        .program(
                                                text.equals(NO_PROGRAM) ? null : (Integer) (programs.indexOf(text) - 1))
                                        .build())));
        Cards.row(
                grid,
                3,
                "Level",
                optional(
                        "part-volume",
                        "volume",
                        part.volume(),
                        value -> presenter.changePart(
                                "level", ref, it -> it.edit().volume(value).build())));
        Cards.row(
                grid,
                4,
                "Pan",
                optional(
                        "part-pan",
                        "pan",
                        part.pan(),
                        value -> presenter.changePart(
                                "pan", ref, it -> it.edit().pan(value).build())));
        Cards.row(
                grid,
                5,
                "Answers to",
                notes("part", part.keys(), keys -> presenter.changePart("keys", ref, it -> it.withKeys(keys))));
        Cards.row(
                grid,
                6,
                "Output",
                number(
                        "part-output",
                        "output",
                        part.output(),
                        1,
                        64,
                        value -> presenter.changePart(
                                "output", ref, it -> it.edit().output(value).build())));
        ToggleButton drums = new ToggleButton(part.drums() ? "Each key is one" : "No");
        drums.setId("part-drums");
        drums.setSelected(part.drums());
        drums.setOnAction(event -> presenter.changePart(
                "drums", ref, it -> it.edit().drums(drums.isSelected()).build()));
        Cards.row(grid, 7, "Drums", drums);
        HBox buttons = new HBox(
                8,
                Cards.button("part-duplicate", "Duplicate", () -> presenter.duplicatePart(ref)),
                Cards.button("part-delete", "Delete", () -> presenter.deletePart(ref)));
        getChildren().setAll(Cards.heading(instrument.name() + " / " + part.name()), grid, buttons, module(instrument));
    }

    private VBox module(Instrument instrument) {
        GridPane grid = grid();
        Cards.row(
                grid,
                0,
                "Name",
                text(
                        "instrument-name",
                        "name of the instrument",
                        instrument.name(),
                        text -> presenter.changeInstrument("name", instrument.id(), it -> it.withName(text))));
        Cards.row(
                grid,
                1,
                "Port",
                choice(
                        "instrument-port",
                        "port of the instrument",
                        ports(desk.devices().outputs(), instrument.port()),
                        instrument.port(),
                        port -> presenter.changeInstrument("port", instrument.id(), it -> it.withPort(port))));
        List<String> words =
                List.of(Receives.values()).stream().map(Receives::word).toList();
        Cards.row(
                grid,
                2,
                "Receives",
                choice(
                        "instrument-receives",
                        "what the instrument does with channels",
                        words,
                        plain(instrument.receives()),
                        word -> presenter.changeInstrument(
                                "receives",
                                instrument.id(),
                                it -> it.withReceives(Receives.values()[words.indexOf(word)]))));
        Button delete = Cards.button(
                "instrument-delete", "Delete instrument", () -> presenter.deleteInstrument(instrument.id()));
        VBox module = new VBox(8, Cards.heading(instrument.name()), grid, delete);
        module.getStyleClass().add("gear-module");
        return module;
    }

    private static String plain(Receives receives) {
        return switch (receives) {
            case BY_CHANNEL -> "by channel";
            case ONE_CHANNEL -> "one channel";
            case ALL -> "all channels";
        };
    }

    /** The ports that are there, and the one in use where it is not. */
    private static List<String> ports(List<String> there, String used, String... more) {
        List<String> ports = new ArrayList<>(there);
        ports.addAll(List.of(more));
        if (!ports.contains(used)) {
            ports.add(0, used);
        }
        return ports;
    }

    private static TextField text(String id, String name, String value, Consumer<String> taker) {
        TextField[] field = new TextField[1];
        field[0] = Cards.field(id, name, () -> {
            String text = field[0].getText().strip();
            if (!text.isEmpty() && !text.equals(value)) {
                taker.accept(text);
            } else {
                field[0].setText(value);
            }
        });
        field[0].setText(value);
        return field[0];
    }

    private static TextField number(String id, String name, int value, int low, int high, Consumer<Integer> taker) {
        TextField field = text(id, name, String.valueOf(value), inRange(low, high, taker));
        field.setPrefColumnCount(4);
        return field;
    }

    /** A number from 0 to 127, or nothing: then it is left as it is. */
    private static TextField optional(String id, String name, Integer value, Consumer<Integer> taker) {
        TextField field = text(id, name, value == null ? "–" : String.valueOf(value), text -> {
            if (text.equals("–") || text.equals("-")) {
                taker.accept(null);
            } else {
                inRange(0, 127, taker).accept(text);
            }
        });
        field.setPrefColumnCount(4);
        return field;
    }

    /** Takes a text that is a number in range; what is none changes nothing, and the old value is shown again. */
    private static Consumer<String> inRange(int low, int high, Consumer<Integer> taker) {
        return text -> {
            if (text.matches("[+-]?\\d{1,4}")) {
                int number = Integer.parseInt(text);
                if (number >= low && number <= high) {
                    taker.accept(number);
                }
            }
        };
    }

    private static ComboBox<String> choice(
            String id, String name, List<String> words, String now, Consumer<String> taker) {
        ComboBox<String> choice = new ComboBox<>();
        choice.setId(id);
        choice.setAccessibleText(name);
        choice.getStyleClass().add("gear-choice");
        choice.getItems().setAll(words);
        choice.setValue(now);
        choice.setOnAction(event -> {
            if (choice.getValue() != null && !choice.getValue().equals(now)) {
                taker.accept(choice.getValue());
            }
        });
        return choice;
    }

    private Node notes(String id, Range keys, Consumer<Range> taker) {
        MiddleC middleC = desk.session().middleC();
        NoteField low = new NoteField("lowest key");
        NoteField high = new NoteField("highest key");
        low.setId(id + "-low");
        high.setId(id + "-high");
        low.setPrefColumnCount(5);
        high.setPrefColumnCount(5);
        low.setNote(keys.low(), middleC);
        high.setNote(keys.high(), middleC);
        BiFunction<Integer, Integer, Range> ordered = (a, b) -> new Range(Math.min(a, b), Math.max(a, b));
        low.setOnNote(note -> taker.accept(ordered.apply(note, Math.max(note, keys.high()))));
        high.setOnNote(note -> taker.accept(ordered.apply(Math.min(note, keys.low()), note)));
        return new HBox(6, low, high);
    }
}
