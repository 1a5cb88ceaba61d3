package dibble.desktop.takes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.Choice;
import dibble.presentation.takes.TakesPresenter;
import dibble.presentation.takes.TakesPresenter.Again;
import dibble.recording.Take;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;

/** The selected take, and its commands. */
final class TakeHead extends HBox {
    private final ViewContext desk;
    private final TakesPresenter presenter;
    private final Label name = Cards.soft("");
    private final ComboBox<Choice<String>> choice = Cards.box("take-choice", say("take-head.take"));
    private final FlowPane buttons = new FlowPane(6, 4);
    private final Map<Take, Integer> counts = new IdentityHashMap<>();
    private boolean showing;

    /**
     * @param again asks before a take is printed in one of the two ways
     * @param looked run where another take is looked at
     */
    TakeHead(ViewContext desk, TakesPresenter presenter, BiConsumer<Take, Again> again, Runnable looked) {
        super(8);
        this.desk = desk;
        this.presenter = presenter;
        name.setId("take-name");
        choice.setOnAction(event -> {
            if (!showing && choice.getValue() != null) {
                presenter.look(choice.getValue().value());
                looked.run();
            }
        });
        Button heard = Cards.button(
                "print-as-heard",
                say("take-head.restore-as-heard"),
                () -> presenter.lastTake().ifPresent(take -> {
                    // Asked only where something would be lost.
                    if (presenter.isEdited(take)) {
                        again.accept(take, Again.AS_HEARD);
                    } else {
                        presenter.print(desk.jobs(), take, Again.AS_HEARD);
                    }
                }));
        heard.setTooltip(new Tooltip(say("take-head.prints-this-take-onto-the")));
        Button routed = Cards.button(
                "route-again-open",
                say("take-head.route-again"),
                () -> presenter.lastTake().ifPresent(take -> again.accept(take, Again.ROUTED)));
        routed.setTooltip(new Tooltip(say("take-head.prints-the-take-with-the")));
        Button delete = Cards.button(
                "delete-take",
                say("take-head.delete-take"),
                () -> presenter.lastTake().ifPresent(presenter::deleteTake));
        buttons.getChildren().setAll(choice, heard, routed, delete);
        buttons.getStyleClass().add("take-buttons");
        buttons.setPrefWrapLength(700);
        ContextItems.on(
                this,
                () -> presenter.lastTake().isEmpty()
                        ? List.of()
                        : List.of(
                                Cards.item("context-route-again", say("take-head.route-again"), routed::fire),
                                Cards.item("context-heard", say("take-head.restore-as-heard"), heard::fire),
                                Cards.item("context-delete", say("take-head.delete-take"), delete::fire)));
        getStyleClass().add("played-title");
        setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(Cards.heading(say("take-head.what-was-played")), name, buttons);
    }

    /** Returns the number of notes of a take; counted once. */
    private int notes(Take take) {
        return counts.computeIfAbsent(take, Take::noteCount);
    }

    /** @param recording whether a recording is in progress, which is shown instead */
    void show(boolean recording) {
        Optional<Take> take = presenter.lastTake();
        name.setText(recording ? say("take-head.now") : take.isPresent() ? "" : say("take-head.nothing-yet"));
        List<Choice<String>> takes = desk.session().takes().stream()
                .map(it -> new Choice<>(it.id(), say("take-head.notes", it.name(), notes(it))))
                .toList();
        counts.keySet().retainAll(desk.session().takes());
        showing = true;
        Form.choose(choice, takes, take.map(Take::id).orElse(null));
        showing = false;
        Cards.show(buttons, take.isPresent() && !recording);
    }
}
