package dibble.desktop.ui;

import java.util.ArrayList;
import java.util.List;
import javafx.animation.AnimationTimer;
import javafx.util.Subscription;

/** Runs once a frame what has to follow the music; event threads never post to the interface, they are read here. */
public final class Pulse {
    private final List<Runnable> readers = new ArrayList<>();
    private final AnimationTimer timer = new AnimationTimer() {
        @Override
        public void handle(long now) {
            List.copyOf(readers).forEach(Runnable::run);
        }
    };

    public void start() {
        timer.start();
    }

    public void stop() {
        timer.stop();
    }

    /** Has the reader run each frame, in the order of calls. */
    public Subscription each(Runnable reader) {
        readers.add(reader);
        return () -> readers.remove(reader);
    }
}
