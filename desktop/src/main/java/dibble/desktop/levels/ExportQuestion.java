package dibble.desktop.levels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.NumberScrubber;
import dibble.desktop.ui.Question;
import dibble.gear.PartRef;
import dibble.gear.StripRef;
import dibble.presentation.Choice;
import dibble.presentation.levels.LevelsPresenter;
import dibble.sound.Bounce;
import dibble.user.Settings;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;

/** Asks how the sound is to be exported; where to is asked next. */
final class ExportQuestion extends Question {
    private static final int LONGEST = (int) Bounce.Wanted.LONGEST_TAIL;
    private static final List<Choice<Bounce.Bits>> BITS = List.of(
            new Choice<>(Bounce.Bits.PCM_24, say("export-question.bits-24")),
            new Choice<>(Bounce.Bits.PCM_16, say("export-question.bits-16")),
            new Choice<>(Bounce.Bits.FLOAT, say("export-question.float")));

    private final LevelsPresenter presenter;
    private final Label about = Cards.soft("");
    private final ComboBox<Choice<Bounce.Bits>> bits = Cards.box("export-bits", say("export-question.bits"));
    private final ComboBox<Choice<Integer>> rate = Cards.box("export-rate", say("export-question.rate"));
    private final TextField tail = new TextField();
    private final ToggleButton mixOnly = new ToggleButton(say("export-question.mix-only"));
    private final ToggleButton chosenOnly = new ToggleButton();

    /** @param export receives the options */
    ExportQuestion(LevelsPresenter presenter, Consumer<Bounce.Wanted> export) {
        super("export-question");
        this.presenter = presenter;
        bits.getItems().setAll(BITS);
        bits.setValue(BITS.get(0));
        rate.getItems()
                .setAll(Settings.AUDIO_RATES.stream()
                        .map(it -> new Choice<>(it, say("export-question.kilohertz", it / 1000.0)))
                        .toList());
        rate.getSelectionModel().selectFirst();
        tail.setId("export-tail");
        tail.setPrefColumnCount(5);
        tail.setPromptText(say("export-question.until-silent"));
        tail.setAccessibleText(say("export-question.tail"));
        NumberScrubber.text(tail, 0, LONGEST);
        mixOnly.setId("export-mix-only");
        chosenOnly.setId("export-chosen-only");
        mixOnly.getStyleClass().add("small");
        chosenOnly.getStyleClass().add("small");
        about.setId("export-about");
        Button go = Cards.button("export-go", say("export-question.choose-folder"), () -> {
            Bounce.Wanted wanted = wanted();
            close();
            export.accept(wanted);
        });
        FlowPane line = Cards.flow(
                Cards.strong(say("export-question.title")),
                bits,
                rate,
                Cards.soft(say("export-question.tail")),
                tail,
                Cards.soft(say("export-question.seconds")),
                mixOnly,
                chosenOnly,
                go,
                Cards.button("export-cancel", say("common.cancel"), this::close));
        line.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(line, about);
    }

    void ask() {
        show();
        open(bits);
    }

    /** The text changes with the selection. */
    void show() {
        Set<PartRef> chosen = chosen();
        Cards.show(chosenOnly, !chosen.isEmpty());
        chosenOnly.setText(say("export-question.chosen-only", chosen.size()));
        long outside = presenter.groups().stream()
                .filter(group -> !group.instrument().builtIn())
                .mapToLong(group -> group.rows().size())
                .sum();
        about.setText(say("export-question.about", presenter.stems(), outside));
    }

    private Set<PartRef> chosen() {
        return presenter.selection().stream().map(StripRef::part).collect(Collectors.toSet());
    }

    private Bounce.Wanted wanted() {
        String seconds = tail.getText().strip();
        boolean said = seconds.matches("\\d{1,3}") && Integer.parseInt(seconds) <= LONGEST;
        return new Bounce.Wanted(
                rate.getValue().value(),
                bits.getValue().value(),
                said ? Integer.parseInt(seconds) : -1,
                chosenOnly.isVisible() && chosenOnly.isSelected() ? chosen() : Set.of(),
                mixOnly.isSelected());
    }
}
