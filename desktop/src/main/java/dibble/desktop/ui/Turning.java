package dibble.desktop.ui;

import java.util.function.IntConsumer;
import java.util.function.IntSupplier;
import javafx.animation.PauseTransition;
import javafx.event.ActionEvent;
import javafx.scene.control.TextField;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.util.Duration;

/**
 * Has the number in a field turned as well as typed: dragged up and down, or by the wheel while the field has the focus
 * (a panel that is scrolled past must change nothing). The field commits when the hand rests: one step of undo a turn.
 */
public final class Turning {
    /** Pixels that a drag takes for one. */
    private static final double EACH = 4;

    private static final int LARGE_STEP = 10;
    private static final Duration RESTS = Duration.millis(350);

    private final TextField field;
    private final int low;
    private final int high;
    private final IntSupplier value;
    private final IntConsumer show;
    private final PauseTransition rest = new PauseTransition(RESTS);
    private double pressedAt;
    private int pressedValue;
    private boolean held;
    private boolean turned;

    private final Runnable done;

    private Turning(TextField field, int low, int high, IntSupplier value, IntConsumer show, Runnable done) {
        this.done = done;
        this.field = field;
        this.low = low;
        this.high = high;
        this.value = value;
        this.show = show;
        rest.setOnFinished(event -> commit());
        field.addEventFilter(ScrollEvent.SCROLL, this::scroll);
        field.addEventFilter(MouseEvent.MOUSE_PRESSED, event -> {
            // A field that has the focus already is being typed into: there a drag selects.
            held = !field.isFocused() && !field.isDisabled();
            turned = false;
            pressedAt = event.getSceneY();
            pressedValue = value.getAsInt();
        });
        field.addEventFilter(MouseEvent.MOUSE_DRAGGED, this::drag);
        field.addEventFilter(MouseEvent.MOUSE_RELEASED, event -> {
            if (turned) {
                commit();
                event.consume();
            }
            held = false;
        });
    }

    /** A whole number in range, which is committed as Enter does; what is no number is turned from the low end. */
    public static void number(TextField field, int low, int high) {
        on(field, low, high, () -> parse(field, low), number -> field.setText(String.valueOf(number)));
    }

    /** The same in a question, where only its text counts and Enter would answer. */
    public static void text(TextField field, int low, int high) {
        new Turning(
                field, low, high, () -> parse(field, low), number -> field.setText(String.valueOf(number)), () -> {});
    }

    private static int parse(TextField field, int otherwise) {
        String text = field.getText().strip();
        return text.matches("[+-]?\\d{1,6}") ? Integer.parseInt(text) : otherwise;
    }

    /** Anything that has a number. */
    static void on(TextField field, int low, int high, IntSupplier value, IntConsumer show) {
        new Turning(field, low, high, value, show, () -> field.fireEvent(new ActionEvent(field, field)));
    }

    private void set(int number) {
        show.accept(Math.max(low, Math.min(high, number)));
    }

    private void scroll(ScrollEvent event) {
        double by = event.getDeltaY() != 0 ? event.getDeltaY() : event.getDeltaX();
        if (field.isFocused() && !field.isDisabled() && by != 0) {
            set(value.getAsInt() + (by > 0 ? 1 : -1) * (event.isShiftDown() ? LARGE_STEP : 1));
            rest.playFromStart();
            event.consume();
        }
    }

    private void drag(MouseEvent event) {
        int steps = (int) Math.round((pressedAt - event.getSceneY()) / EACH);
        if (held && (turned || steps != 0)) {
            turned = true;
            set(pressedValue + steps * (event.isShiftDown() ? LARGE_STEP : 1));
            event.consume();
        }
    }

    private void commit() {
        rest.stop();
        done.run();
    }
}
