package dibble.desktop.ui;

import java.util.function.DoubleConsumer;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Region;

/**
 * A number that lies along a line, and is dragged there: by as much as the hand moves, so that nothing jumps at a press; with
 * Shift a tenth as fast. Arrows move it by a step, a double click to where it rests. A drag is one step of undo.
 */
public abstract class Slide extends Region {
    private static final double FINE = 0.1;
    private static final int LARGE = 10;

    private final double low;
    private final double step;
    private double high;
    private double rest;
    private DoubleConsumer preview = value -> {};
    private DoubleConsumer commit = value -> {};
    private double value;
    private double pressedAt;
    private double pressedValue;
    private boolean dragging;
    private boolean moved;

    protected Slide(String name, double low, double high, double rest, double step) {
        this.low = low;
        this.high = high;
        this.rest = rest;
        this.step = step;
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        setAccessibleText(name);
        getStyleClass().add("slide");
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::press);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::drag);
        addEventHandler(MouseEvent.MOUSE_RELEASED, this::release);
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        addEventHandler(ScrollEvent.SCROLL, event -> {
            // A list that is scrolled past must change nothing.
            if (isFocused() && event.getDeltaY() != 0) {
                set(value + Math.signum(event.getDeltaY()) * step);
                event.consume();
            }
        });
    }

    /** Adds something that is drawn: laid out by the slide itself, and no target of the mouse. */
    protected final Region drawn(String style) {
        Region region = new Region();
        region.getStyleClass().add(style);
        region.setManaged(false);
        region.setMouseTransparent(true);
        getChildren().add(region);
        return region;
    }

    /**
     * Says what is done.
     *
     * @param each called while it is dragged
     * @param last called once it is let go
     */
    public void on(DoubleConsumer each, DoubleConsumer last) {
        preview = each;
        commit = last;
    }

    /** Has it end lower or higher than at first. */
    public void setEnd(double most) {
        high = most;
    }

    /** Shows a value, unless a hand is at it. */
    public void show(double next) {
        if (!dragging && next != value) {
            value = next;
            notifyAccessibleAttributeChanged(AccessibleAttribute.VALUE);
            requestLayout();
        }
    }

    /** The value that is shown. */
    public double value() {
        return value;
    }

    /** Where a value is, from 0 at the left to 1 at the right. */
    protected double place(double of) {
        return Math.max(0, Math.min(1, (of - low) / (scaleEnd() - low)));
    }

    /** The value at the right end, which the highest may lie below. */
    protected double scaleEnd() {
        return high;
    }

    private void press(MouseEvent event) {
        if (event.getButton() != MouseButton.PRIMARY || isDisabled()) {
            return;
        }
        requestFocus();
        if (event.getClickCount() == 2) {
            set(rest);
        } else {
            dragging = true;
            moved = false;
            pressedAt = event.getX();
            pressedValue = Math.max(low, value);
        }
        event.consume();
    }

    private void drag(MouseEvent event) {
        if (!dragging) {
            return;
        }
        double by = (event.getX() - pressedAt) / getWidth() * (scaleEnd() - low) * (event.isShiftDown() ? FINE : 1);
        double next = held(pressedValue + by);
        if (next != value) {
            moved = true;
            value = next;
            preview.accept(end(value));
            requestLayout();
        }
        event.consume();
    }

    private void release(MouseEvent event) {
        if (dragging) {
            dragging = false;
            if (moved) {
                commit.accept(end(value));
            }
            event.consume();
        }
    }

    private void key(KeyEvent event) {
        double by = switch (event.getCode()) {
            case LEFT, DOWN -> -step;
            case RIGHT, UP -> step;
            case PAGE_DOWN -> -step * LARGE;
            case PAGE_UP -> step * LARGE;
            case HOME -> low - value;
            case END -> high - value;
            default -> 0;
        };
        if (by != 0 && !event.isAltDown() && !event.isShortcutDown()) {
            set(Math.max(low, value) + by * (event.isShiftDown() ? FINE : 1));
            event.consume();
        }
    }

    private void set(double next) {
        double to = held(next);
        if (to != value) {
            value = to;
            commit.accept(end(to));
            requestLayout();
        }
    }

    private double held(double next) {
        return Math.max(low, Math.min(high, next));
    }

    /** What a value at the low end stands for. */
    protected double end(double of) {
        return of;
    }

    /** The value in words. */
    public abstract String words();

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        return switch (attribute) {
            case VALUE -> value;
            case MIN_VALUE -> low;
            case MAX_VALUE -> high;
            case TEXT -> getAccessibleText() + ", " + words();
            default -> super.queryAccessibleAttribute(attribute, parameters);
        };
    }
}
