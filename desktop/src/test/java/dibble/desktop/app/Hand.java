package dibble.desktop.app;

import static org.awaitility.Awaitility.await;

import dibble.testing.PatientAwaiting;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Predicate;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.robot.Robot;
import org.awaitility.core.ConditionTimeoutException;
import org.testfx.api.FxRobot;
import org.testfx.robot.Motion;
import org.testfx.service.query.EmptyNodeQueryException;
import org.testfx.service.query.NodeQuery;
import org.testfx.service.query.PointQuery;
import org.testfx.util.NodeQueryUtils;

/**
 * A hand on the mouse and the keyboard. Every action returns when the toolkit has handled it and laid out the scene again;
 * no action waits for a fixed time.
 */
abstract class Hand extends FxRobot {
    /** A drag is recognized by movements between its ends. */
    private static final int MOVE_STEPS = 4;

    /** What moves all the time is clicked in the end where it last was. */
    private static final int MAX_ATTEMPTS = 20;

    private static final Deque<Object> PRESSED = new ArrayDeque<>();
    private static Robot robot;
    private static Point2D mouse = Point2D.ZERO;

    /** Runs an action on the interface thread and waits for it. */
    static void onFx(Runnable action) {
        onFx(() -> {
            action.run();
            return null;
        });
    }

    /** Returns a value that is computed on the interface thread. */
    static <T> T onFx(Callable<T> computation) {
        FutureTask<T> task = new FutureTask<>(computation);
        if (Platform.isFxApplicationThread()) {
            task.run();
        } else {
            Platform.runLater(task);
        }
        try {
            return task.get(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS);
        } catch (ExecutionException e) {
            throw unchecked(e.getCause());
        } catch (InterruptedException | TimeoutException e) {
            throw new AssertionError("the interface thread does not answer", e);
        }
    }

    private static RuntimeException unchecked(Throwable thrown) {
        if (thrown instanceof Error error) {
            throw error;
        }
        return thrown instanceof RuntimeException runtime ? runtime : new IllegalStateException(thrown);
    }

    /** Waits until all input so far has been handled and the next frame has been laid out. */
    static void settle() {
        // Where a server sends the input, its answer comes after the events.
        onFx(() -> robot().getMousePosition());
        onFx(() -> {});
        frame();
    }

    /** Waits for a whole frame. */
    static void frame() {
        CountDownLatch done = new CountDownLatch(1);
        onFx(() -> new AnimationTimer() {
            @Override
            public void handle(long now) {
                stop();
                Platform.runLater(done::countDown);
            }
        }.start());
        try {
            if (!done.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS)) {
                throw new AssertionError("no frame is drawn");
            }
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /**
     * Waits until a condition holds at the end of a frame; it is evaluated on the interface thread. While a node that it asks
     * for is missing, it does not hold yet.
     */
    void until(Callable<Boolean> condition) {
        try {
            await().pollInSameThread().until(() -> {
                settle();
                return onFx(() -> {
                    try {
                        return condition.call();
                    } catch (EmptyNodeQueryException notYet) {
                        return false;
                    }
                });
            });
        } catch (ConditionTimeoutException e) {
            throw new AssertionError(e.getMessage() + " Focus: " + onFx(this::focusOwners) + ".", e);
        }
    }

    private List<Node> focusOwners() {
        return listWindows().stream()
                .filter(window -> window.getScene() != null)
                .map(window -> window.getScene().getFocusOwner())
                .filter(Objects::nonNull)
                .toList();
    }

    /** Releases all keys and buttons. */
    static void letGo() {
        onFx(() -> {
            while (!PRESSED.isEmpty()) {
                up(PRESSED.peek());
            }
        });
    }

    /** On the interface thread. */
    private static Robot robot() {
        if (robot == null) {
            robot = new Robot();
        }
        return robot;
    }

    private static void down(Object what) {
        if (!PRESSED.contains(what)) {
            PRESSED.push(what);
            if (what instanceof KeyCode key) {
                robot().keyPress(key);
            } else {
                robot().mousePress((MouseButton) what);
            }
        }
    }

    private static void up(Object what) {
        if (PRESSED.remove(what)) {
            if (what instanceof KeyCode key) {
                robot().keyRelease(key);
            } else {
                robot().mouseRelease((MouseButton) what);
            }
        }
    }

    private static void allDown(List<?> keysOrButtons) {
        onFx(() -> keysOrButtons.forEach(Hand::down));
        settle();
    }

    private static void allUp(List<?> keysOrButtons) {
        onFx(() -> keysOrButtons.forEach(Hand::up));
        settle();
    }

    /** Presses and releases within one frame, in which no view can be rebuilt. */
    private static void tap(List<?> keysOrButtons) {
        onFx(() -> downAndUp(keysOrButtons));
        settle();
    }

    private static boolean downAndUp(List<?> keysOrButtons) {
        keysOrButtons.forEach(Hand::down);
        List<Object> backwards = new ArrayList<>(keysOrButtons);
        Collections.reverse(backwards);
        backwards.forEach(Hand::up);
        return true;
    }

    private static List<?> pressed(Class<?> kind) {
        return PRESSED.stream().filter(kind::isInstance).toList();
    }

    private static void move(Point2D to) {
        Point2D from = mouse;
        for (int step = 1; step <= MOVE_STEPS; step++) {
            Point2D next = from.interpolate(to, (double) step / MOVE_STEPS);
            onFx(() -> robot().mouseMove(next));
        }
        mouse = to;
        settle();
    }

    @Override
    public FxRobot interact(Runnable action) {
        onFx(action);
        settle();
        return this;
    }

    @Override
    public FxRobot press(KeyCode... keys) {
        allDown(List.of(keys));
        return this;
    }

    @Override
    public FxRobot release(KeyCode... keys) {
        allUp(keys.length == 0 ? pressed(KeyCode.class) : List.of(keys));
        return this;
    }

    @Override
    public FxRobot press(MouseButton... buttons) {
        allDown(buttons.length == 0 ? List.of(MouseButton.PRIMARY) : List.of(buttons));
        return this;
    }

    @Override
    public FxRobot release(MouseButton... buttons) {
        allUp(buttons.length == 0 ? pressed(MouseButton.class) : List.of(buttons));
        return this;
    }

    @Override
    public FxRobot type(KeyCode... keys) {
        for (KeyCode key : keys) {
            tap(List.of(key));
        }
        return this;
    }

    @Override
    public FxRobot push(KeyCode... combination) {
        tap(List.of(combination));
        return this;
    }

    /** Types letters into the node that has the focus. */
    @Override
    public FxRobot write(String text) {
        interact(() -> {
            for (String letter : text.split("")) {
                var focused = targetWindow().getScene().getFocusOwner();
                focused.fireEvent(
                        new KeyEvent(KeyEvent.KEY_TYPED, letter, "", KeyCode.UNDEFINED, false, false, false, false));
            }
        });
        return this;
    }

    @Override
    public FxRobot moveTo(PointQuery place, Motion motion) {
        return moveTo(() -> place);
    }

    @Override
    public FxRobot moveTo(String query, Motion motion) {
        return moveTo(() -> visible(lookup(query)));
    }

    /** Moves to a place that is looked up when the scene is laid out. */
    private FxRobot moveTo(Callable<PointQuery> place) {
        settle();
        PointQuery found = onFx(place);
        // An entry of an open menu: on the straight way there are other menus, which would open.
        if (found.queryMotion().orElse(Motion.DEFAULT) == Motion.VERTICAL_FIRST) {
            move(new Point2D(mouse.getX(), onFx(found::query).getY()));
        }
        move(onFx(found::query));
        // The nodes under the mouse may have changed the layout.
        Point2D now = onFx(() -> place.call().query());
        if (!now.equals(mouse)) {
            move(now);
        }
        return this;
    }

    private PointQuery visible(NodeQuery nodes) {
        return point(nodes.match(NodeQueryUtils.isVisible()).<Node>query());
    }

    @Override
    public FxRobot clickOn(String query, Motion motion, MouseButton... buttons) {
        return clickAt(() -> visible(lookup(query)), buttons);
    }

    @Override
    public <T extends Node> FxRobot clickOn(Predicate<T> predicate, Motion motion, MouseButton... buttons) {
        return clickAt(() -> visible(lookup(predicate)), buttons);
    }

    /**
     * Clicks on a place. Looks it up again as the button goes down: on a busy machine the layout can change between the move
     * and the click, for example when the line about a long job appears.
     */
    private FxRobot clickAt(Callable<PointQuery> place, MouseButton... buttons) {
        List<?> wanted = buttons.length == 0 ? List.of(MouseButton.PRIMARY) : List.of(buttons);
        moveTo(place);
        boolean done = false;
        for (int i = 0; !done; i++) {
            boolean last = i == MAX_ATTEMPTS;
            done = onFx(() -> (last || isThere(place)) && downAndUp(wanted));
            if (!done) {
                moveTo(place);
            }
        }
        settle();
        return this;
    }

    private static boolean isThere(Callable<PointQuery> place) throws Exception {
        return place.call().query().equals(mouse);
    }

    @Override
    public FxRobot clickOn(MouseButton... buttons) {
        tap(buttons.length == 0 ? List.of(MouseButton.PRIMARY) : List.of(buttons));
        return this;
    }

    @Override
    public FxRobot clickOn(PointQuery place, Motion motion, MouseButton... buttons) {
        moveTo(place, motion);
        return clickOn(buttons);
    }

    @Override
    public FxRobot doubleClickOn(PointQuery place, Motion motion, MouseButton... buttons) {
        moveTo(place, motion);
        return clickOn(buttons).clickOn(buttons);
    }
}
