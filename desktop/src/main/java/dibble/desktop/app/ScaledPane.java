package dibble.desktop.app;

import dibble.presentation.Preferences;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.transform.Scale;

/**
 * Shows its content larger than it is made, as far as the content then still has the room that it needs, and smaller where a
 * screen has less room than that.
 */
final class ScaledPane extends Pane {
    /** The factor that makes text readable from a distance. */
    private static final double LARGE = 1.4;

    /** The narrowest and lowest that the window works at. */
    static final double MIN_WIDTH = 1024;

    static final double MIN_HEIGHT = 620;

    /** The room that the content needs at least, within the frame of the smallest window. */
    private static final double SMALL_WIDTH = 1000;

    private static final double SMALL_HEIGHT = 570;

    /** The smallest scale that can be read. */
    private static final double MIN = 0.5;

    private final Region content;
    private final Scale scale = new Scale(1, 1);
    private boolean large;

    /** @param preferences say whether it is large */
    ScaledPane(Region content, Preferences preferences) {
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
        double fits = Math.min(getWidth() / MIN_WIDTH, getHeight() / MIN_HEIGHT);
        double factor = large ? Math.max(1, Math.min(LARGE, fits)) : 1;
        // On a screen that is smaller than the window can be, all of it is shown smaller.
        factor = Math.min(factor, Math.max(MIN, Math.min(getWidth() / SMALL_WIDTH, getHeight() / SMALL_HEIGHT)));
        scale.setX(factor);
        scale.setY(factor);
        content.resizeRelocate(0, 0, getWidth() / factor, getHeight() / factor);
    }
}
