package dibble.desktop.app;

import dibble.presentation.app.Page;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;

/**
 * Ends the application when its window has been seen: the measure of a start. Where all views are asked for, each is
 * shown first, so that their classes can be kept for later starts.
 */
final class StartupProbe extends AnimationTimer {
    /** The property that asks for all views. */
    static final String ALL_VIEWS = "dibble.all-views";

    /** A frame is on the screen when the next but one begins. */
    private static final int FRAMES = 2;

    private final MainWindow window;
    private final Deque<Page> left = new ArrayDeque<>();
    private int frames;

    StartupProbe(MainWindow window) {
        this.window = window;
        if (Boolean.getBoolean(ALL_VIEWS)) {
            left.addAll(List.of(Page.values()));
        }
    }

    @Override
    public void handle(long now) {
        if (++frames < FRAMES) {
            return;
        }
        frames = 0;
        if (left.isEmpty()) {
            stop();
            Platform.exit();
        } else {
            window.show(left.poll());
        }
    }
}
