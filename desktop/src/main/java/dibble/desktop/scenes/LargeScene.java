package dibble.desktop.scenes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.presentation.scenes.ScenesPresenter;
import dibble.routing.Scene;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.Font;
import javafx.scene.text.Text;

/** The present scene and the next, as large as the room allows: for a stage, or the far side of a studio. */
final class LargeScene extends VBox {
    private static final double LARGEST = 150;
    private static final double SMALLEST = 28;
    private static final String FACE = "Dibble Serif";

    private final ScenesPresenter presenter;
    private final Label now = new Label();
    private final Label next = new Label();
    private final Label then = new Label();

    LargeScene(ScenesPresenter presenter, Runnable leave) {
        super(10);
        this.presenter = presenter;
        setId("large-scene");
        getStyleClass().add("large-scene");
        setAlignment(Pos.CENTER);
        setFocusTraversable(true);
        now.setId("large-now");
        next.setId("large-next");
        next.getStyleClass().add("large-soft");
        then.getStyleClass().add("large-soft");
        then.setFont(Font.font("Dibble Sans", 20));
        Region space = new Region();
        space.setMinHeight(18);
        HBox buttons = new HBox(
                10,
                Cards.button("large-previous", say("large-scene.previous-scene"), () -> presenter.step(-1)),
                Cards.button("large-following", say("large-scene.next-scene"), () -> presenter.step(1)),
                Cards.button("large-leave", say("large-scene.all-scenes"), leave));
        buttons.setAlignment(Pos.CENTER);
        getChildren().addAll(now, then, next, space, buttons);
        layoutBoundsProperty().subscribe(bounds -> size());
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            boolean on = event.getCode() == KeyCode.RIGHT || event.getCode() == KeyCode.PAGE_DOWN;
            boolean back = event.getCode() == KeyCode.LEFT || event.getCode() == KeyCode.PAGE_UP;
            if (event.getTarget() == this && (on || back)) {
                presenter.step(on ? 1 : -1);
                event.consume();
            }
        });
    }

    void show() {
        now.setText(presenter.active().map(Scene::name).orElse(say("large-scene.no-scene")));
        next.setText(presenter.next().map(Scene::name).orElse(say("large-scene.the-last-scene")));
        then.setText(presenter.next().isPresent() ? say("common.then") : say("large-scene.this-is"));
        setAccessibleText(say("large-scene.now", now.getText(), then.getText(), next.getText()));
        size();
    }

    private void size() {
        double width = Math.max(200, getWidth() - 60);
        now.setFont(fitting(now.getText(), width, Math.min(LARGEST, getHeight() * 0.3)));
        next.setFont(fitting(next.getText(), width, Math.min(LARGEST, getHeight() * 0.3) / 2.2));
    }

    private static Font fitting(String words, double width, double most) {
        Text text = new Text(words);
        double size = Math.max(SMALLEST, most);
        text.setFont(Font.font(FACE, size));
        double wide = text.getLayoutBounds().getWidth();
        return Font.font(FACE, wide <= width ? size : Math.max(SMALLEST, size * width / wide));
    }
}
