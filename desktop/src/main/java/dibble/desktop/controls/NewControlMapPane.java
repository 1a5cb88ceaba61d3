package dibble.desktop.controls;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.NumberScrubber;
import dibble.desktop.ui.Question;
import dibble.desktop.ui.ViewContext;
import dibble.edits.ControlEdits;
import dibble.gear.PartRef;
import dibble.midi.ControllerNames;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.controls.ControlsPresenter;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** A question for the data of a crossfade, or of one control for many parts. Esc cancels it. */
final class NewControlMapPane extends Question {
    private static final int FIRST_SLIDER = 21;

    private final ViewContext desk;
    private final ControlsPresenter presenter;
    private final Consumer<String> done;
    private final Label title = Cards.strong("");
    private final ComboBox<Choice<String>> source = Cards.box("make-source", say("make-pane.source-of-the-control"));
    private final TextField number = new TextField();
    private final Label name = Cards.soft(say("make-pane.or-move-it-now"));
    private final ComboBox<Choice<PartRef>> from = Cards.box("fade-from", say("make-pane.sound-at-the-low-end"));
    private final ComboBox<Choice<PartRef>> to = Cards.box("fade-to", say("make-pane.sound-at-the-high-end"));
    private final TextField aim = new TextField();
    private final FlowPane parts = new FlowPane(4, 4);
    private final FlowPane fading;
    private final VBox many;
    private final Button make;
    private boolean fades;
    private ControlMap.Trigger when;

    /** @param done receives the id of the new map */
    NewControlMapPane(ViewContext desk, ControlsPresenter presenter, Consumer<String> done) {
        super("make-control");
        this.desk = desk;
        this.presenter = presenter;
        this.done = done;
        make = Cards.button("make-control-do", say("make-pane.create"), this::make);
        number.setId("make-number");
        number.setAccessibleText(say("make-pane.number-of-the-moving-controller"));
        number.setPrefColumnCount(3);
        NumberScrubber.text(number, 0, 127);
        number.textProperty().subscribe(this::readNumber);
        aim.setId("many-number");
        aim.setAccessibleText(say("make-pane.number-of-the-controller-to"));
        aim.setPrefColumnCount(3);
        NumberScrubber.text(aim, 0, 127);
        aim.textProperty().subscribe(this::check);
        FlowPane control = new FlowPane(
                8,
                6,
                new Label(say("make-pane.moved-by")),
                source,
                new Label(say("common.controller-cc")),
                number,
                name);
        fading = new FlowPane(8, 6, new Label(say("common.from")), from, new Label(say("common.to")), to);
        many = new VBox(
                6,
                new FlowPane(
                        8,
                        6,
                        new Label(say("make-pane.send-cc")),
                        aim,
                        Cards.soft(say("make-pane.to-these-none-selected-all"))),
                parts);
        for (FlowPane pane : List.of(control, fading)) {
            pane.getStyleClass().add("card-line");
        }
        source.setOnAction(event -> check());
        from.setOnAction(event -> check());
        to.setOnAction(event -> check());
        getChildren()
                .addAll(
                        title,
                        fading,
                        many,
                        control,
                        new FlowPane(
                                8, 6, make, Cards.button("make-control-cancel", say("common.cancel"), this::close)));
    }

    void askFade() {
        ask(true, say("make-pane.fade-between-two-sounds"));
    }

    void askMany() {
        ask(false, say("make-pane.one-control-many-parts"));
    }

    private void ask(boolean fade, String words) {
        fades = fade;
        title.setText(words);
        Cards.show(fading, fade);
        Cards.show(many, !fade);
        source.getItems().setAll(Choices.sources(desk.session()));
        String selected = desk.selection().source().get();
        source.setValue(source.getItems().stream()
                .filter(it -> it.value().equals(selected))
                .findFirst()
                .orElse(source.getItems().stream().findFirst().orElse(null)));
        List<Choice<PartRef>> all = Choices.parts(desk.session());
        from.getItems().setAll(all);
        to.getItems().setAll(all);
        List<PartRef> first = presenter.firstTwo(selected);
        from.setValue(choice(all, first, 0));
        to.setValue(choice(all, first, 1));
        parts.getChildren()
                .setAll(all.stream().map(NewControlMapPane::partSwitch).toList());
        number.setText(String.valueOf(FIRST_SLIDER));
        aim.setText(String.valueOf(ControlEdits.EXPRESSION));
        open(number);
        check();
    }

    private static Choice<PartRef> choice(List<Choice<PartRef>> all, List<PartRef> first, int place) {
        return all.stream()
                .filter(it -> place < first.size() && it.value().equals(first.get(place)))
                .findFirst()
                .orElse(null);
    }

    private static ToggleButton partSwitch(Choice<PartRef> part) {
        ToggleButton button = new ToggleButton(part.words());
        button.getStyleClass().add("small");
        button.setId("many-" + part.value().toString().replace('/', '-'));
        button.setUserData(part.value());
        return button;
    }

    /** A control was moved: while this is open, that is the one. */
    void moved(String mover, ControlMap.Trigger trigger) {
        if (!isVisible()) {
            return;
        }
        source.getItems().stream()
                .filter(it -> it.value().equals(mover))
                .findFirst()
                .ifPresent(source::setValue);
        if (trigger.kind() == ControlKind.CONTROLLER) {
            number.setText(String.valueOf(trigger.number()));
        } else {
            number.setText("");
        }
        when = trigger;
        name.setText(SessionFormatter.control(
                trigger.kind(), trigger.number(), desk.session().middleC()));
        check();
    }

    private void readNumber(String text) {
        if (isNumber(text)) {
            int value = Integer.parseInt(text.strip());
            when = ControlMap.Trigger.controller(value);
            name.setText(say(
                    "make-pane.or-move-it-now-2",
                    ControllerNames.name(value).isPresent(),
                    ControllerNames.name(value).orElse("")));
        } else {
            when = null;
            name.setText(say("make-pane.a-number-from-0-to"));
        }
        check();
    }

    private static boolean isNumber(String text) {
        return text.strip().matches("\\d{1,3}") && Integer.parseInt(text.strip()) <= 127;
    }

    private void check() {
        boolean fits = fades
                ? from.getValue() != null
                        && to.getValue() != null
                        && !from.getValue().equals(to.getValue())
                : isNumber(aim.getText()) && !presenter.parts().isEmpty();
        make.setDisable(when == null || source.getValue() == null || !fits);
    }

    private void make() {
        String mover = source.getValue().value();
        String made;
        if (fades) {
            made = presenter.fade(
                    mover, when, from.getValue().value(), to.getValue().value());
        } else {
            List<PartRef> chosen = new ArrayList<>();
            parts.getChildren()
                    .forEach(node -> Optional.of((ToggleButton) node)
                            .filter(ToggleButton::isSelected)
                            .ifPresent(it -> chosen.add((PartRef) it.getUserData())));
            made = presenter.many(mover, when, Integer.parseInt(aim.getText().strip()), chosen);
        }
        close();
        done.accept(made);
    }
}
