package dibble.desktop.ui;

import dibble.presentation.FrameScheduler;
import dibble.presentation.Listeners;
import dibble.presentation.Subscription;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;

/**
 * Runs the updates of each frame, and rests while nothing moves. Event threads never post to the interface: their
 * events are read here, and while the timer rests its own thread polls for news.
 */
public final class FrameTimer implements FrameScheduler {
    /** Frames without news before it rests, so that released keys can fade. */
    private static final int LINGER = 60;

    /** Frames until a drawing is on the screen. */
    private static final int SEEN = 2;

    /** The interval of polls while it rests, which is too short to see. */
    private static final long LOOK_EVERY = TimeUnit.MILLISECONDS.toNanos(10);

    private final Listeners frames = new Listeners();
    private final List<BooleanSupplier> busy = new ArrayList<>();
    private final AnimationTimer timer = new AnimationTimer() {
        @Override
        public void handle(long now) {
            frame();
        }
    };
    private BooleanSupplier news = () -> false;
    private volatile boolean started;
    private volatile boolean awake;
    private int still;

    /** @param any asked on any thread: whether there is something to read */
    public void onNews(BooleanSupplier any) {
        news = any;
    }

    /** Begins to beat, once a frame while there is something to do. */
    public void start() {
        started = true;
        Thread looker = new Thread(this::look, "dibble-pulse");
        looker.setDaemon(true);
        looker.start();
        wake();
    }

    /** Stops the timer. */
    public void stop() {
        started = false;
        awake = false;
        timer.stop();
    }

    @Override
    public void wake() {
        still = 0;
        if (started && !awake) {
            awake = true;
            timer.start();
        }
    }

    /** Returns true if frames are drawn now. */
    public boolean isAwake() {
        return awake;
    }

    /** Returns the number of frames since something last moved. */
    public int stillFrames() {
        return still;
    }

    @Override
    public Subscription each(Runnable reader) {
        frames.add(reader);
        wake();
        return () -> frames.remove(reader);
    }

    @Override
    public void once(Runnable action) {
        frames.add(new Runnable() {
            private int seen;

            @Override
            public void run() {
                if (++seen > SEEN) {
                    frames.remove(this);
                    action.run();
                }
            }
        });
        wake();
    }

    /** Keeps it from resting while something is so. */
    public Subscription whileSo(BooleanSupplier moves) {
        busy.add(moves);
        return () -> busy.remove(moves);
    }

    private void frame() {
        frames.run();
        still = busy.stream().anyMatch(BooleanSupplier::getAsBoolean) ? 0 : still + 1;
        if (still > LINGER) {
            awake = false;
            timer.stop();
        }
    }

    private void look() {
        while (started) {
            LockSupport.parkNanos(LOOK_EVERY);
            if (started && !awake && news.getAsBoolean()) {
                Platform.runLater(this::wake);
            }
        }
    }
}
