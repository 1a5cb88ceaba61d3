package dibble.desktop.app;

import dibble.presentation.Preferences;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.transform.Scale;

/** Shows its content larger than it is made, as far as the content then still has the room that it needs. */
final class Enlarged extends Pane {
    /** What makes text readable from a step away. */
    private static final double LARGE = 1.4;

    /** The narrowest and lowest that the window works at. */
    private static final double LEAST_WIDTH = 1024;

    private static final double LEAST_HEIGHT = 620;

    private final Region content;
    private final Scale scale = new Scale(1, 1);
    private boolean large;

    /** @param preferences say whether it is large */
    Enlarged(Region content, Preferences preferences) {
        this.content = content;
        content.getTransforms().add(scale);
        getChildren().add(content);
        preferences.follow(settings -> {
            large = settings.large();
            requestLayout();
        });
    }

    @Override
    protected void layoutChildren() {
        double fits = Math.min(getWidth() / LEAST_WIDTH, getHeight() / LEAST_HEIGHT);
        double factor = large ? Math.max(1, Math.min(LARGE, fits)) : 1;
        scale.setX(factor);
        scale.setY(factor);
        content.resizeRelocate(0, 0, getWidth() / factor, getHeight() / factor);
    }
}
