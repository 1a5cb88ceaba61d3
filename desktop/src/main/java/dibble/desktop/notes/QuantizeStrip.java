package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.NumberScrubber;
import dibble.desktop.ui.ViewContext;
import dibble.edits.NoteEdits;
import dibble.edits.NoteEdits.Edited;
import dibble.notes.Grid;
import dibble.notes.Groove;
import dibble.notes.NoteFunction;
import dibble.notes.Quantize;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.notes.NotesPresenter;
import dibble.recording.ClipIndex;
import dibble.recording.Track;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;

/** Quantizing, and the feel of another track. */
final class QuantizeStrip extends AskStrip {
    private static final List<Choice<Quantize.What>> WHATS = List.of(
            new Choice<>(Quantize.What.STARTS, say("quantize-strip.starts")),
            new Choice<>(Quantize.What.ENDS, say("quantize-strip.ends")),
            new Choice<>(Quantize.What.BOTH, say("quantize-strip.both")));

    /** Notes within this part of a quarter note are a chord. */
    private static final long CHORD = 60;

    private final ComboBox<Choice<To>> to = Cards.box("quantize-to", say("quantize-strip.grid"));
    private final ComboBox<Choice<Quantize.What>> what = Cards.box("quantize-what", say("quantize-strip.what-moves"));
    private final Slider strength = slider("quantize-strength", say("quantize-strip.strength"), 100);
    private final Label strengthNow = Cards.soft("");
    private final Slider swing = slider("quantize-swing", say("quantize-strip.swing"), 0);
    private final Label swingNow = Cards.soft("");
    private final TextField least = percent("quantize-least", say("quantize-strip.least"), "0");
    private final TextField most = percent("quantize-most", say("quantize-strip.most"), "100");
    private final ToggleButton chords = new ToggleButton(say("quantize-strip.chords"));
    private final HBox only;

    QuantizeStrip(ViewContext desk, NotesPresenter notes) {
        super("quantize", desk, notes);
        to.setOnAction(event -> show());
        what.getItems().setAll(WHATS);
        what.getSelectionModel().selectFirst();
        what.setOnAction(event -> show());
        chords.setId("quantize-chords");
        chords.setTooltip(new Tooltip(say("quantize-strip.about-chords")));
        chords.setOnAction(event -> show());
        only = new HBox(
                6, Cards.soft(say("quantize-strip.only-if-off-by")), least, Cards.soft("–"), most, Cards.soft("%"));
        only.getStyleClass().add("card-line");
        setAsked(
                Cards.soft(say("quantize-strip.to")),
                to,
                what,
                Cards.soft(say("quantize-strip.strength")),
                strength,
                strengthNow,
                Cards.soft(say("quantize-strip.swing")),
                swing,
                swingNow);
        setMore(only, chords);
    }

    private Slider slider(String id, String name, int value) {
        Slider slider = new Slider(0, 100, value);
        slider.setId(id);
        slider.setAccessibleText(name);
        slider.setPrefWidth(90);
        slider.setMinWidth(60);
        slider.setBlockIncrement(5);
        slider.valueProperty().subscribe(now -> show());
        return slider;
    }

    private TextField percent(String id, String name, String value) {
        TextField field = Cards.field(id, name, this::show);
        field.setText(value);
        field.setPrefColumnCount(3);
        NumberScrubber.number(field, 0, 100);
        return field;
    }

    @Override
    void ask() {
        List<Choice<To>> all = new ArrayList<>();
        Choices.gridSteps().forEach(it -> all.add(new Choice<>(new To.Steps(it.value()), it.words())));
        for (Track track : desk.session().tracks()) {
            if (track.sounding().size() > 0) {
                all.add(new Choice<>(new To.FeelOf(track.id()), say("quantize-strip.feel-of", track.name())));
            }
        }
        To usual = new To.Steps(notes.step());
        Form.choose(to, all, to.getValue() == null ? usual : to.getValue().value());
        if (to.getValue() == null) {
            Form.choose(to, all, usual);
        }
        ask(to);
    }

    /** The target of quantization: a grid, or the groove of another track. */
    private sealed interface To {
        record Steps(Grid.Step step) implements To {}

        record FeelOf(String track) implements To {}
    }

    /** The whole request. */
    private record Wish(
            To to,
            Quantize.What what,
            int strength,
            int swing,
            int least,
            int most,
            boolean chords,
            Map<String, BitSet> of) {}

    @Override
    Object wish() {
        strengthNow.setText(say("quantize-strip.percent", Math.round(strength.getValue())));
        swingNow.setText(say("quantize-strip.percent", Math.round(swing.getValue())));
        if (to.getValue() == null) {
            return null;
        }
        boolean isFeel = to.getValue().value() instanceof To.FeelOf;
        for (Node node : List.of(what, swing, swingNow, only, chords)) {
            node.setDisable(isFeel);
        }
        return new Wish(
                to.getValue().value(),
                what.getValue().value(),
                (int) Math.round(strength.getValue()),
                (int) Math.round(swing.getValue()),
                number(least, 0),
                number(most, 100),
                chords.isSelected(),
                notes.chosen());
    }

    private static int number(TextField field, int otherwise) {
        String text = field.getText().strip();
        return text.matches("\\d{1,3}") ? Math.min(100, Integer.parseInt(text)) : otherwise;
    }

    @Override
    Function<Session, Edited> edit() {
        Wish wish = (Wish) wish();
        return session -> NoteEdits.change(session, wish.of, function(session, wish, notes.step()));
    }

    private static NoteFunction function(Session session, Wish wish, Grid.Step step) {
        if (wish.to instanceof To.FeelOf feel) {
            Track other = session.track(feel.track).orElseThrow();
            Grid grid = Grid.of(step, session.tempo(), 0);
            return new Groove(grid, session.tempo(), ClipIndex.of(other.sounding()), wish.strength, wish.strength);
        }
        Grid grid = Grid.of(((To.Steps) wish.to).step, session.tempo(), wish.swing);
        // From one place to the middle between two is all that a note can be off.
        double half = grid.step() / 200.0;
        return new Quantize(
                grid,
                wish.what,
                wish.strength,
                Math.round(wish.least * half),
                Math.max(
                        Math.round(wish.least * half),
                        wish.most >= 100 ? Long.MAX_VALUE : Math.round(wish.most * half)),
                wish.chords ? CHORD : 0);
    }

    @Override
    String title(int count) {
        return say("quantize-strip.title", count);
    }

    @Override
    String name() {
        return say("edit.quantize");
    }
}
