package dibble.desktop.ui;

import dibble.presentation.WheelSteps;
import java.math.BigDecimal;
import java.util.function.Consumer;
import java.util.function.IntConsumer;
import java.util.function.IntSupplier;
import java.util.function.Supplier;
import javafx.animation.PauseTransition;
import javafx.event.ActionEvent;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.util.Duration;

/**
 * Changes the number in a field by dragging up and down, or by the wheel while the field has the focus (scrolling past
 * a panel must change nothing). The field commits when the hand pauses: one undo step for each gesture.
 */
public final class NumberScrubber {
    /** Pixels that a drag takes for one. */
    private static final double EACH = 4;

    private static final int LARGE_STEP = 10;
    private static final Duration RESTS = Duration.millis(350);

    private final TextField field;
    private final int low;
    private final int high;
    private final Supplier<BigDecimal> value;
    private final Consumer<BigDecimal> show;
    private final PauseTransition rest = new PauseTransition(RESTS);
    private final WheelSteps wheel = new WheelSteps();
    private final Runnable done;
    private double pressedAt;
    private BigDecimal pressedValue = BigDecimal.ZERO;

    /** The entry of the drag; another value in the field ends it. */
    private int pressedEntry;

    private boolean held;
    private boolean turned;

    private NumberScrubber(
            TextField field, int low, int high, Supplier<BigDecimal> value, Consumer<BigDecimal> show, Runnable done) {
        this.done = done;
        this.field = field;
        this.low = low;
        this.high = high;
        this.value = value;
        this.show = show;
        rest.setOnFinished(event -> commit());
        field.addEventFilter(ScrollEvent.SCROLL, this::scroll);
        field.addEventFilter(MouseEvent.MOUSE_PRESSED, event -> {
            if (held) {
                cancel();
            }
            // A field that has the focus already is being typed into: there a drag selects.
            held = event.getButton() == MouseButton.PRIMARY && !field.isFocused() && !field.isDisabled();
            turned = false;
            pressedAt = event.getSceneY();
            pressedValue = value.get();
            pressedEntry = entry();
        });
        field.addEventFilter(MouseEvent.MOUSE_DRAGGED, this::drag);
        field.addEventFilter(MouseEvent.MOUSE_RELEASED, event -> {
            if (turned && held) {
                commit();
                event.consume();
            }
            held = false;
        });
        field.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (held && turned && event.getCode() == KeyCode.ESCAPE) {
                cancel();
                event.consume();
            }
        });
    }

    /** Adds scrubbing of a number in a range, which is committed like Enter; invalid text counts as the low end. */
    public static void number(TextField field, int low, int high) {
        new NumberScrubber(
                field, low, high, () -> parse(field, low), number -> field.setText(plain(number)), enter(field));
    }

    /** The same in a question, where only its text counts and Enter would answer. */
    public static void text(TextField field, int low, int high) {
        new NumberScrubber(field, low, high, () -> parse(field, low), number -> field.setText(plain(number)), () -> {});
    }

    /** Anything that has a whole number. */
    static void on(TextField field, int low, int high, IntSupplier value, IntConsumer show) {
        new NumberScrubber(
                field,
                low,
                high,
                () -> BigDecimal.valueOf(value.getAsInt()),
                number -> show.accept(number.intValue()),
                enter(field));
    }

    private static Runnable enter(TextField field) {
        return () -> field.fireEvent(new ActionEvent(field, field));
    }

    private static BigDecimal parse(TextField field, int otherwise) {
        String text = field.getText().strip().replace(',', '.');
        return text.matches("[+-]?\\d{1,6}(\\.\\d{1,6})?") ? new BigDecimal(text) : BigDecimal.valueOf(otherwise);
    }

    private static String plain(BigDecimal number) {
        return number.signum() == 0 ? "0" : number.stripTrailingZeros().toPlainString();
    }

    private int entry() {
        return field instanceof EntryField entry ? entry.entry() : 0;
    }

    /** Changes the number by whole steps; its fraction stays. */
    private void set(BigDecimal from, int steps) {
        show.accept(
                from.add(BigDecimal.valueOf(steps)).max(BigDecimal.valueOf(low)).min(BigDecimal.valueOf(high)));
    }

    private void scroll(ScrollEvent event) {
        double by = event.getDeltaY() != 0 ? event.getDeltaY() : event.getDeltaX();
        if (field.isFocused() && !field.isDisabled() && by != 0) {
            int steps = event.isInertia() ? 0 : wheel.add(by);
            if (steps != 0) {
                set(value.get(), steps * (event.isShiftDown() ? LARGE_STEP : 1));
                rest.playFromStart();
            }
            event.consume();
        }
    }

    private void drag(MouseEvent event) {
        if (held && entry() != pressedEntry) {
            cancel();
        }
        int steps = (int) Math.round((pressedAt - event.getSceneY()) / EACH);
        if (held && (turned || steps != 0)) {
            turned = true;
            set(pressedValue, steps * (event.isShiftDown() ? LARGE_STEP : 1));
            event.consume();
        }
    }

    private void cancel() {
        held = false;
        if (turned && field instanceof EntryField entry && entry() == pressedEntry) {
            entry.restore();
        } else if (turned && entry() == pressedEntry) {
            show.accept(pressedValue);
        }
        turned = false;
    }

    private void commit() {
        rest.stop();
        if (!(field instanceof EntryField entry) || entry.isPending() || turned) {
            done.run();
        }
    }
}
