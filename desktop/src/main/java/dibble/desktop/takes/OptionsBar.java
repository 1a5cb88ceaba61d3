package dibble.desktop.takes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.NumberScrubber;
import dibble.desktop.ui.ViewContext;
import dibble.notes.Grid;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.takes.TakesPresenter;
import dibble.recording.PrintMode;
import dibble.session.SessionFormatter;
import dibble.studio.RecordOptions;
import dibble.studio.Transport;
import dibble.text.UserException;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;

/** The options of recording: count-in, click, print mode, a range to loop or to punch into, tempo and meter. */
final class OptionsBar extends FlowPane {
    private static final List<Choice<Integer>> COUNT_INS = IntStream.rangeClosed(0, 4)
            .mapToObj(bars -> new Choice<>(
                    bars, bars == 0 ? say("options-bar.no-count-in") : say("options-bar.count-in-bars", bars)))
            .toList();
    private static final List<Choice<PrintMode>> WAYS = List.of(
            new Choice<>(PrintMode.REPLACE_ALL, say("options-bar.new-take")),
            new Choice<>(PrintMode.REPLACE_RANGE, say("options-bar.replace")),
            new Choice<>(PrintMode.OVERDUB, say("options-bar.overdub")));
    private static final List<Choice<Grid.Step>> QUANTIZES = Choices.with(
            new Choice<>(null, say("options-bar.no-quantize")),
            Choices.gridSteps().stream()
                    .map(step -> new Choice<>(step.value(), say("options-bar.quantize-to", step.words())))
                    .toList());
    private static final List<Choice<String>> METERS = Stream.of(
                    "2/4", "3/4", "4/4", "5/4", "6/4", "7/4", "3/8", "5/8", "6/8", "7/8", "9/8", "12/8")
            .map(text -> new Choice<>(text, text))
            .toList();

    private static final int MAX_BARS = 9999;

    /** All fits into a line then, in the window's usual width. */
    private static final double QUANTIZE = 122;

    private final ViewContext desk;
    private final TakesPresenter presenter;
    private final ComboBox<Choice<Integer>> countIn =
            box("count-in", say("options-bar.count-in-before-recording"), COUNT_INS);
    private final ComboBox<Choice<Grid.Step>> quantize = box("record-quantize", say("options-bar.quantize"), QUANTIZES);
    private final ToggleButton click =
            toggle("click", say("options-bar.click"), say("options-bar.metronome-while-recording-and-playing"));
    private final ComboBox<Choice<PrintMode>> onto =
            box("record-onto", say("options-bar.what-happens-to-what-is"), WAYS);
    private final EntryField first = bar("range-first", say("options-bar.first-bar-of-the-range"));
    private final EntryField last = bar("range-last", say("options-bar.last-bar-of-the-range"));
    private final ToggleButton loop =
            toggle("loop", say("options-bar.loop"), say("options-bar.plays-and-records-the-range"));
    private final ToggleButton punch =
            toggle("punch", say("options-bar.punch"), say("options-bar.records-only-the-range-plays"));
    private final EntryField tempo =
            Cards.field("tempo", say("options-bar.tempo-in-quarter-notes-per"), this::setTempo);
    private final ComboBox<Choice<String>> meter = box("meter", say("common.meter"), METERS);
    private final MenuButton clock = new MenuButton(say("common.clock-2"));
    private final Button keep;
    private boolean showing;
    private long shownPlace;

    OptionsBar(ViewContext desk, TakesPresenter presenter) {
        super(6, 4);
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().addAll("card-line", "takes-foot");
        keep = Cards.button(
                "keep-played",
                say("options-bar.keep-what-i-just-played"),
                () -> desk.studio().keepPlayed());
        keep.setTooltip(new Tooltip(say("options-bar.makes-a-take-of-your")));
        clock.setId("clock");
        clock.setMinWidth(USE_PREF_SIZE);
        clock.setTooltip(new Tooltip(say("options-bar.which-ports-get-midi-clock")));
        clock.setOnShowing(event -> showClock());
        tempo.setTooltip(new Tooltip(say("options-bar.tempo-from-the-playheads-bar")));
        tempo.setPrefColumnCount(4);
        NumberScrubber.number(tempo, 5, 999);
        quantize.setPrefWidth(QUANTIZE);
        quantize.setOnAction(event ->
                change(options -> options.withQuantize(quantize.getValue().value())));
        countIn.setOnAction(event ->
                change(options -> options.withCountIn(countIn.getValue().value())));
        onto.setOnAction(
                event -> change(options -> options.withOnto(onto.getValue().value())));
        click.setOnAction(event -> change(options -> options.withClick(click.isSelected())));
        loop.setOnAction(event -> change(options -> withRange(options).withLoops(loop.isSelected())));
        punch.setOnAction(event -> change(options -> withRange(options).withPunches(punch.isSelected())));
        meter.setOnAction(event -> setMeter());
        clock.getItems().setAll(new MenuItem(""));
        getChildren()
                .addAll(
                        countIn,
                        click,
                        onto,
                        words(say("options-bar.bars")),
                        first,
                        words(say("common.to")),
                        last,
                        loop,
                        punch,
                        keep,
                        quantize,
                        words(say("common.tempo")),
                        tempo,
                        meter,
                        clock);
    }

    private static Label words(String text) {
        Label label = Cards.soft(text);
        label.setMinWidth(USE_PREF_SIZE);
        return label;
    }

    private static <V> ComboBox<Choice<V>> box(String id, String name, List<Choice<V>> choices) {
        ComboBox<Choice<V>> box = Cards.box(id, name);
        box.getItems().setAll(choices);
        return box;
    }

    private static ToggleButton toggle(String id, String text, String tip) {
        ToggleButton button = new ToggleButton(text);
        button.setId(id);
        button.setMinWidth(USE_PREF_SIZE);
        button.setTooltip(new Tooltip(tip));
        return button;
    }

    private EntryField bar(String id, String name) {
        EntryField field = Cards.field(id, name, () -> change(this::withRange));
        field.setPrefColumnCount(3);
        NumberScrubber.number(field, 1, MAX_BARS);
        return field;
    }

    private void change(java.util.function.UnaryOperator<RecordOptions> change) {
        if (!showing) {
            desk.studio().setOptions(change.apply(desk.studio().options()));
            show();
        }
    }

    /** Returns the options with the bars in the fields; with the previous range if they are invalid. */
    private RecordOptions withRange(RecordOptions options) {
        return presenter
                .range(first.getText(), last.getText())
                .map(options::withRange)
                .orElse(options);
    }

    private boolean hasTransport() {
        return desk.programs().server().isRunning();
    }

    private void showClock() {
        List<MenuItem> items = new ArrayList<>();
        for (String port : presenter.clockOutputs(desk.devices().outputs(), hasTransport())) {
            CheckMenuItem item =
                    new CheckMenuItem(say("options-bar.send-to", SessionFormatter.port(port, desk.session())));
            item.setSelected(desk.session().clock().to().contains(port));
            item.setOnAction(event -> presenter.setClock(plan -> plan.withTo(port, item.isSelected())));
            items.add(item);
        }
        items.add(new SeparatorMenuItem());
        for (String port : presenter.clockInputs(hasTransport())) {
            CheckMenuItem item =
                    new CheckMenuItem(say("options-bar.follow", SessionFormatter.port(port, desk.session())));
            item.setSelected(port.equals(desk.session().clock().from()));
            item.setOnAction(event -> presenter.setClock(plan -> plan.withFrom(item.isSelected() ? port : null)));
            items.add(item);
        }
        clock.getItems().setAll(items);
    }

    private void setTempo() {
        try {
            double bpm = Double.parseDouble(tempo.getText().strip().replace(',', '.'));
            if (bpm != desk.session().tempo().bpm(place())) {
                presenter.setTempo(place(), bpm);
            }
        } catch (NumberFormatException | UserException e) {
            desk.ask().tell(say("options-bar.tempo-expected-5-to-999", tempo.getText()));
        }
        tempo.setText(SessionFormatter.bpm(desk.session().tempo().bpm(place())));
        show();
    }

    private void setMeter() {
        if (!showing && meter.getValue() != null) {
            String[] parts = (meter.getValue().value()).split("/");
            presenter.setMeter(place(), Integer.parseInt(parts[0]), Integer.parseInt(parts[1]));
        }
    }

    /** Tempo and meter are those of the bar that was shown: where it plays from may have changed since they were typed. */
    private long place() {
        return presenter.changeAt(desk.session().tempo().ticks(shownPlace));
    }

    private static <V> void choose(ComboBox<Choice<V>> box, V value) {
        box.getItems().stream()
                .filter(choice -> Objects.equals(choice.value(), value))
                .findFirst()
                .ifPresent(box::setValue);
    }

    void show() {
        if (shownPlace != desk.studio().place()) {
            EntryField.commitWithin(this);
        }
        showing = true;
        shownPlace = desk.studio().place();
        RecordOptions options = desk.studio().options();
        TempoMap map = desk.session().tempo();
        choose(countIn, options.countIn());
        choose(quantize, options.quantize());
        choose(onto, options.onto());
        click.setSelected(options.click());
        loop.setSelected(options.loops());
        punch.setSelected(options.punches());
        RecordOptions.Stretch range = options.range();
        first.show(range == null ? "1" : String.valueOf(map.place(range.from()).bar()));
        last.show(range == null ? "4" : String.valueOf(map.place(range.to() - 1).bar()));
        tempo.show(SessionFormatter.bpm(map.bpm(place())));
        TempoMap.Meter now = map.meter(place());
        String text = now.beats() + "/" + now.unit();
        if (METERS.stream().noneMatch(choice -> choice.value().equals(text))
                && meter.getItems().size() == METERS.size()) {
            meter.getItems().add(new Choice<>(text, text));
        }
        choose(meter, text);
        showing = false;
        follow();
    }

    /** The unrecorded events change while they are played. */
    void follow() {
        if (shownPlace != desk.studio().place()) {
            show();
            return;
        }
        String words = presenter.clockWords(desk.studio().followedTempo());
        if (!words.equals(clock.getText())) {
            clock.setText(words);
        }
        int notes = desk.studio().notesToKeep();
        boolean records = desk.studio().transport() == Transport.RECORDING;
        keep.setText(
                notes == 0 || records
                        ? say("options-bar.keep-what-i-just-played")
                        : say("options-bar.keep-what-i-just-played-2", notes));
        keep.setDisable(notes == 0 || records);
        for (Node node : List.of(countIn, quantize, onto, first, last, loop, punch, tempo, meter)) {
            node.setDisable(records);
        }
    }
}
