package dibble.desktop.scenes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.AccessibleText;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.FocusKeys;
import dibble.presentation.scenes.ScenesPresenter;
import dibble.routing.Scene;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.scene.AccessibleAttribute;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** One scene in the order of scenes. */
final class SceneCard extends HBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass HOLDS = PseudoClass.getPseudoClass("holds");

    private final ScenesPresenter presenter;
    private final Label name = new Label();
    private final Label holds = Cards.soft("");
    private final Label called = Cards.soft("");
    private final Button call;

    SceneCard(ScenesPresenter presenter, String id, Runnable select) {
        super(14);
        this.presenter = presenter;
        setId("scene-" + id);
        AccessibleText.item(this, say("role.scene"));
        getStyleClass().addAll("gear-card", "scene-card");
        setFocusTraversable(true);
        name.getStyleClass().add("scene-name");
        name.setMinWidth(0);
        call = Cards.button("call-" + id, say("scene-card.switch"), () -> presenter.call(id));
        call.setTooltip(new Tooltip(say("scene-card.switch-to-this-scene-now")));
        called.setMinWidth(USE_PREF_SIZE);
        VBox words = new VBox(1, name, holds);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        getChildren().addAll(words, called, call);
        setOnMouseClicked(event -> {
            requestFocus();
            select.run();
        });
        FocusKeys.choose(this, event -> select.run());
        FocusKeys.delete(this, () -> presenter.delete(id));
        FocusKeys.move(this, by -> presenter.move(id, by));
        ContextItems.on(
                this,
                () -> {
                    select.run();
                    return List.of(
                            Cards.item("context-call", say("scene-card.switch"), () -> presenter.call(id)),
                            Cards.item("context-duplicate", say("common.duplicate"), () -> presenter.duplicate(id)));
                },
                by -> presenter.move(id, by),
                () -> presenter.delete(id));
    }

    void show(Scene scene, boolean selected, boolean active) {
        name.setText(scene.name());
        holds.setText(ScenesPresenter.holds(scene));
        called.setText(presenter.calledBy(scene));
        call.setText(active ? say("scene-card.active") : say("scene-card.switch"));
        call.setDisable(active);
        call.setAccessibleText(
                active ? say("scene-card.is-active", scene.name()) : say("scene-card.switch-to", scene.name()));
        setAccessibleText(say("scene-card.scene-active", scene.name(), holds.getText(), active));
        pseudoClassStateChanged(SELECTED, selected);
        pseudoClassStateChanged(HOLDS, active);
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        Object answer = AccessibleText.answer(this, attribute);
        return answer == null ? super.queryAccessibleAttribute(attribute, parameters) : answer;
    }
}
