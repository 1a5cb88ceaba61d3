package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import dibble.midi.ChannelSet;
import dibble.midi.MiddleC;
import dibble.midi.Range;
import dibble.presentation.Choice;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * The fields for the values of one object. Built once; showing another object, or the same after an edit, sets only
 * different values, so that typing is never interrupted.
 *
 * @param <T> the type of the object
 */
public final class Form<T> extends GridPane {
    /** Applies an edit of the displayed object. */
    @FunctionalInterface
    public interface Editor<T> {
        /**
         * @param shown the object as displayed
         * @param what a few words for undo
         */
        void edit(T shown, String what, UnaryOperator<T> change);
    }

    private static final double WIDE = 250;

    /** The largest value that any control has: a pitch bend. */
    private static final int LARGEST = 16_383;

    /** The channels 1-16. */
    public static final List<Choice<Integer>> CHANNELS = IntStream.rangeClosed(1, 16)
            .mapToObj(channel -> new Choice<>(channel, String.valueOf(channel)))
            .toList();

    private final Editor<T> editor;
    private final Predicate<T> isThere;
    private final Supplier<MiddleC> middleC;
    private final List<Consumer<T>> showers = new ArrayList<>();
    private Function<T, ?> identity = thing -> thing;
    private T shown;
    private boolean showing;

    /** @param isThere whether a thing that was shown is still there: a field can commit after its thing has gone */
    public Form(Supplier<MiddleC> middleC, Predicate<T> isThere, Editor<T> editor) {
        this.middleC = middleC;
        this.isThere = isThere;
        this.editor = editor;
        setHgap(8);
        setVgap(6);
    }

    /** Identifies things by what this returns of them, where they are not the same while they change. */
    public Form<T> by(Function<T, ?> id) {
        identity = id;
        return this;
    }

    /** Shows an object. Text that is being typed for another object is committed to that one. */
    public void show(T thing) {
        if (shown != null && (thing == null || !identity.apply(shown).equals(identity.apply(thing)))) {
            EntryField.commitWithin(this);
        }
        shown = thing;
        showing = true;
        showers.forEach(shower -> shower.accept(thing));
        showing = false;
    }

    /** Returns true if there is something that a hand can change now. */
    private boolean isLive() {
        return !showing && shown != null && isThere.test(shown);
    }

    private void edit(String what, UnaryOperator<T> change) {
        if (isLive()) {
            editor.edit(shown, what, change);
        }
    }

    /** Adds a row with any node, and a function that shows an object in it. */
    public Form<T> row(String name, Node node, Consumer<T> shower) {
        Label label = Cards.soft(name);
        label.setMinWidth(76);
        addRow(getRowCount(), label, node);
        showers.add(shower);
        return this;
    }

    /** Shows the last added row for some objects only. */
    public Form<T> onlyFor(Predicate<T> those) {
        int last = getRowCount() - 1;
        List<Node> nodes = getChildren().stream()
                .filter(node -> Objects.equals(GridPane.getRowIndex(node), last))
                .toList();
        showers.add(thing -> nodes.forEach(node -> {
            node.setVisible(those.test(thing));
            node.setManaged(node.isVisible());
        }));
        return this;
    }

    /** Adds two whole numbers in a range, in any order, such as the ends of a range. */
    public Form<T> ends(
            String id,
            String label,
            String name,
            Function<T, Integer> most,
            Function<T, int[]> get,
            BiFunction<T, int[], T> with) {
        EntryField[] fields = new EntryField[2];
        for (int end = 0; end < 2; end++) {
            int at = end;
            fields[end] = field(id + (end == 0 ? "-first" : "-last"), say("form.first", name, end == 0), it -> {
                int[] now = get.apply(shown);
                Integer value = parse(it.getText().strip(), 0, most.apply(shown));
                if (value == null || value == now[at]) {
                    it.setText(String.valueOf(now[at]));
                } else {
                    int[] next = now.clone();
                    next[at] = value;
                    edit(label, thing -> with.apply(thing, next));
                }
            });
            fields[end].setPrefColumnCount(4);
            NumberScrubber.on(
                    fields[end],
                    0,
                    LARGEST,
                    () -> get.apply(shown)[at],
                    number -> fields[at].setText(String.valueOf(Math.min(number, most.apply(shown)))));
        }
        Label to = Cards.soft(say("common.to"));
        HBox line = new HBox(6, fields[0], to, fields[1]);
        line.getStyleClass().add("card-line");
        return row(label, line, thing -> {
            for (int end = 0; end < 2; end++) {
                fields[end].show(String.valueOf(get.apply(thing)[end]));
            }
        });
    }

    /** Adds a row whose node has the whole width, under its label. */
    public Form<T> wideRow(String name, Node node, Consumer<T> shower) {
        add(new VBox(4, Cards.soft(name), node), 0, getRowCount(), 2, 1);
        showers.add(shower);
        return this;
    }

    private EntryField field(String id, String name, Consumer<EntryField> commit) {
        EntryField[] field = new EntryField[1];
        field[0] = Cards.field(id, name, () -> {
            if (isLive()) {
                commit.accept(field[0]);
            }
        });
        return field[0];
    }

    /** A text that is not empty. */
    public Form<T> text(String id, String label, String name, Function<T, String> get, BiFunction<T, String, T> with) {
        EntryField field = field(id, name, it -> {
            String text = it.getText().strip();
            if (text.isEmpty() || text.equals(get.apply(shown))) {
                it.setText(get.apply(shown));
            } else {
                edit(label, thing -> with.apply(thing, text));
            }
        });
        return row(label, field, thing -> field.show(get.apply(thing)));
    }

    /** A whole number in range, or nothing where that is allowed: then a dash. */
    public Form<T> number(
            String id,
            String label,
            String name,
            int lowest,
            int highest,
            boolean optional,
            Function<T, Integer> get,
            BiFunction<T, Integer, T> with) {
        EntryField field = field(id, name, it -> {
            String text = it.getText().strip();
            boolean none = optional && (text.isEmpty() || text.equals("–") || text.equals("-"));
            Integer value = none ? null : parse(text, lowest, highest);
            if (!none && value == null || Objects.equals(value, get.apply(shown))) {
                it.setText(number(get.apply(shown)));
            } else {
                edit(label, thing -> with.apply(thing, value));
            }
        });
        field.setPrefColumnCount(4);
        NumberScrubber.number(field, lowest, highest);
        return row(label, field, thing -> field.show(number(get.apply(thing))));
    }

    private static String number(Integer value) {
        return value == null ? "–" : String.valueOf(value);
    }

    private static Integer parse(String text, int lowest, int highest) {
        if (!text.matches("[+-]?\\d{1,5}")) {
            return null;
        }
        int value = Integer.parseInt(text);
        return value >= lowest && value <= highest ? (Integer) value : null;
    }

    /** One of several; which there are can depend on the thing. */
    public <V> Form<T> choice(
            String id,
            String label,
            String name,
            Function<T, List<Choice<V>>> choices,
            Function<T, V> get,
            BiFunction<T, V, T> with) {
        ComboBox<Choice<V>> box = new ComboBox<>();
        box.setId(id);
        box.setAccessibleText(name);
        box.getStyleClass().add("gear-choice");
        box.setOnAction(event -> {
            Choice<V> chosen = box.getValue();
            if (chosen != null && isLive() && !Objects.equals(chosen.value(), get.apply(shown))) {
                edit(label, thing -> with.apply(thing, chosen.value()));
            }
        });
        return row(label, box, thing -> {
            choose(box, choices.apply(thing), get.apply(thing));
        });
    }

    /** Sets the choices of a box, and selects the one of a value, or none. */
    public static <V> void choose(ComboBox<Choice<V>> box, List<Choice<V>> all, V value) {
        if (!box.getItems().equals(all)) {
            box.getItems().setAll(all);
        }
        box.setValue(all.stream()
                .filter(it -> Objects.equals(it.value(), value))
                .findFirst()
                .orElse(null));
    }

    /** One of the sixteen colours of parts, each as a patch of itself. */
    public Form<T> colour(String id, String label, Function<T, Integer> get, BiFunction<T, Integer, T> with) {
        FlowPane flow = new FlowPane(4, 4);
        flow.setPrefWrapLength(WIDE);
        for (int number = 1; number <= 16; number++) {
            int colour = number;
            ToggleButton patch = new ToggleButton();
            patch.setId(id + "-" + number);
            patch.setAccessibleText(say("form.colour", number));
            patch.getStyleClass().add("patch");
            patch.setStyle(PartColours.css(number));
            patch.setOnAction(event -> edit(label, thing -> with.apply(thing, colour)));
            flow.getChildren().add(patch);
        }
        return wideRow(label, flow, thing -> {
            for (int number = 1; number <= 16; number++) {
                ((ToggleButton) flow.getChildren().get(number - 1)).setSelected(get.apply(thing) == number);
            }
        });
    }

    /** Yes or no. */
    public Form<T> flag(
            String id,
            String label,
            String name,
            String yes,
            String no,
            Function<T, Boolean> get,
            BiFunction<T, Boolean, T> with) {
        ToggleButton button = new ToggleButton(no);
        button.setId(id);
        button.setAccessibleText(name);
        button.getStyleClass().add("small");
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(event -> {
            boolean on = button.isSelected();
            edit(label, thing -> with.apply(thing, on));
        });
        return row(label, button, thing -> {
            button.setSelected(get.apply(thing));
            button.setText(get.apply(thing) ? yes : no);
        });
    }

    /** Two notes: the lowest and the highest. */
    public Form<T> keys(String id, String label, Function<T, Range> get, BiFunction<T, Range, T> with) {
        NoteField low = new NoteField(say("common.lowest-key"));
        NoteField high = new NoteField(say("common.highest-key"));
        low.setId(id + "-low");
        high.setId(id + "-high");
        for (NoteField field : List.of(low, high)) {
            field.setPrefColumnCount(5);
            field.setOnNote(note -> {
                if (!isLive()) {
                    return;
                }
                boolean isLow = field == low;
                Range keys = get.apply(shown);
                Range next = isLow
                        ? new Range(note, Math.max(note, keys.high()))
                        : new Range(Math.min(note, keys.low()), note);
                edit(label, thing -> with.apply(thing, next));
            });
        }
        return row(label, new HBox(6, low, high), thing -> {
            low.setNote(get.apply(thing).low(), middleC.get());
            high.setNote(get.apply(thing).high(), middleC.get());
        });
    }

    /** The sixteen channels, each with a switch. */
    public Form<T> channels(String id, String label, Function<T, ChannelSet> get, BiFunction<T, ChannelSet, T> with) {
        return several(
                id,
                label,
                thing -> CHANNELS,
                thing -> new TreeSet<>(get.apply(thing).numbers()),
                (thing, numbers) -> with.apply(
                        thing,
                        ChannelSet.of(
                                numbers.stream().mapToInt(Integer::intValue).toArray())));
    }

    /** Several of a set, each with a switch; which there are can depend on the thing. */
    public <V extends Comparable<? super V>> Form<T> several(
            String id,
            String label,
            Function<T, List<Choice<V>>> choices,
            Function<T, Set<V>> get,
            BiFunction<T, Set<V>, T> with) {
        FlowPane flow = new FlowPane(4, 4);
        flow.setPrefWrapLength(WIDE);
        List<Choice<V>> there = new ArrayList<>();
        return wideRow(label, flow, thing -> {
            List<Choice<V>> all = choices.apply(thing);
            if (!there.equals(all) || flow.getChildren().isEmpty() && !all.isEmpty()) {
                there.clear();
                there.addAll(all);
                flow.getChildren()
                        .setAll(all.stream()
                                .map(it -> toggle(id, label, it, get, with))
                                .toList());
            }
            Set<V> chosen = get.apply(thing);
            for (int i = 0; i < all.size(); i++) {
                ((ToggleButton) flow.getChildren().get(i))
                        .setSelected(chosen.contains(all.get(i).value()));
            }
        });
    }

    private <V extends Comparable<? super V>> ToggleButton toggle(
            String id, String label, Choice<V> choice, Function<T, Set<V>> get, BiFunction<T, Set<V>, T> with) {
        ToggleButton button = new ToggleButton(choice.words());
        boolean isWord = choice.words().length() > 2;
        button.getStyleClass().add(isWord ? "small" : "channel-switch");
        button.setId(id + "-" + choice.value());
        button.setAccessibleText(label + " " + choice.words());
        button.setOnAction(event -> {
            boolean on = button.isSelected();
            edit(label, thing -> {
                Set<V> chosen = new TreeSet<>(get.apply(thing));
                if (on) {
                    chosen.add(choice.value());
                } else {
                    chosen.remove(choice.value());
                }
                return with.apply(thing, chosen);
            });
        });
        return button;
    }
}
