package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.NumberScrubber;
import dibble.desktop.ui.ViewContext;
import dibble.edits.NoteEdits;
import dibble.edits.NoteEdits.Edited;
import dibble.notes.NoteChange;
import dibble.presentation.Choice;
import dibble.presentation.notes.NotesPresenter;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;

/** A question for a change with numeric values: velocities, lengths, keys, times, cleaning up. */
final class ChangeStrip extends AskStrip {
    private static final List<Choice<NoteChange>> CHANGES = Stream.of(NoteChange.values())
            .map(change -> new Choice<>(change, say("note-change." + change.word())))
            .toList();

    private final ComboBox<Choice<NoteChange>> change = Cards.box("change-what", say("change-strip.what"));
    private final HBox numbers = new HBox(6);
    private final List<Node> fields = new ArrayList<>();

    ChangeStrip(ViewContext desk, NotesPresenter notes) {
        super("change", desk, notes);
        numbers.getStyleClass().add("card-line");
        Form.choose(change, CHANGES, NoteChange.VELOCITY_ADD);
        change.setVisibleRowCount(CHANGES.size());
        change.setOnAction(event -> {
            layOut();
            show();
        });
        layOut();
        setAsked(change, numbers);
    }

    private NoteChange chosen() {
        return change.getValue().value();
    }

    private void layOut() {
        fields.clear();
        numbers.getChildren().clear();
        for (NoteChange.Number number : chosen().numbers()) {
            String name = say("change-number." + number.name());
            Node field = number.words().isEmpty() ? numberField(number, name) : choice(number, name);
            fields.add(field);
            numbers.getChildren().addAll(Cards.soft(name), field);
        }
    }

    private TextField numberField(NoteChange.Number number, String name) {
        TextField field = Cards.field("change-" + number.name(), name, this::show);
        field.setText(String.valueOf(number.usual()));
        field.setPrefColumnCount(5);
        NumberScrubber.number(field, number.low(), number.high());
        return field;
    }

    private ComboBox<Choice<Integer>> choice(NoteChange.Number number, String name) {
        ComboBox<Choice<Integer>> box = Cards.box("change-" + number.name(), name);
        List<Choice<Integer>> all = IntStream.range(0, number.words().size())
                .mapToObj(
                        i -> new Choice<>(i, say("change-word." + number.words().get(i))))
                .toList();
        Form.choose(box, all, number.usual());
        box.setOnAction(event -> show());
        return box;
    }

    @Override
    void ask() {
        ask(change);
    }

    private record Wish(NoteChange change, List<Integer> numbers, Map<String, BitSet> of) {}

    /** Nothing is wished while a number is none, or out of its range. */
    @Override
    Object wish() {
        List<Integer> values = new ArrayList<>();
        for (int i = 0; i < fields.size(); i++) {
            OptionalInt value = value(fields.get(i), chosen().numbers().get(i));
            if (value.isEmpty()) {
                return null;
            }
            values.add(value.getAsInt());
        }
        return new Wish(chosen(), values, notes.chosen());
    }

    private static OptionalInt value(Node field, NoteChange.Number number) {
        if (field instanceof ComboBox<?> box) {
            return OptionalInt.of(box.getSelectionModel().getSelectedIndex());
        }
        String text = ((TextField) field).getText().strip().replace('−', '-');
        if (!text.matches("[+-]?\\d{1,6}")) {
            return OptionalInt.empty();
        }
        int value = Integer.parseInt(text);
        return value < number.low() || value > number.high() ? OptionalInt.empty() : OptionalInt.of(value);
    }

    @Override
    Function<Session, Edited> edit() {
        Wish wish = (Wish) wish();
        long bar =
                notes.session().tempo().meter(notes.select().start().orElse(0)).ticksPerBar();
        int[] values = wish.numbers.stream().mapToInt(Integer::intValue).toArray();
        return session -> NoteEdits.change(session, wish.of, wish.change.with(values, TempoMap.PPQ, bar));
    }

    @Override
    String title(int count) {
        return say("change-strip.title", count);
    }

    @Override
    String name() {
        return change.getValue().words();
    }
}
