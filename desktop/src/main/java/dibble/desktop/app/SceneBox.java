package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.Choice;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.HBox;

/** The scene that holds, to be changed, and the way to all of them. */
final class SceneBox extends HBox {
    private final ViewContext desk;
    private final ComboBox<Choice<String>> scenes = Cards.box("scene", say("common.scene"));
    private final Button label;
    private boolean showing;

    SceneBox(ViewContext desk) {
        super(8);
        this.desk = desk;
        label = desk.commands().on("scenes", new Button(say("common.scene-2")));
        label.setId("scenes-link");
        label.getStyleClass().add("link");
        label.setMinWidth(USE_PREF_SIZE);
        scenes.getStyleClass().setAll("combo-box-base", "combo-box", "scene-choice");
        scenes.setMinWidth(96);
        scenes.setOnAction(event -> {
            if (!showing && scenes.getValue() != null) {
                desk.callScene(scenes.getValue().value());
            }
        });
        setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(label, scenes);
    }

    /** The command is in the menu too. */
    void setNarrow(boolean narrow) {
        Cards.show(label, !narrow);
    }

    void show() {
        List<Choice<String>> all = desk.session().scenes().stream()
                .map(scene -> new Choice<>(scene.id(), scene.name()))
                .toList();
        showing = true;
        Form.choose(scenes, all, desk.session().activeScene(desk.performance()));
        showing = false;
        Cards.show(scenes, !all.isEmpty());
    }
}
