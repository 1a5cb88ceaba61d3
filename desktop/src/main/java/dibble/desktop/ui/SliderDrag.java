package dibble.desktop.ui;

import dibble.presentation.WheelSteps;
import dibble.session.Edit;
import dibble.session.Gesture;
import java.util.function.DoubleFunction;
import java.util.function.Supplier;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Region;

/**
 * A number that lies along a line, and is dragged there: by as much as the hand moves, so that nothing jumps at a press; with
 * Shift a tenth as fast. Arrows move it by a step, a double click to where it rests. A drag is one step of undo.
 */
public abstract class SliderDrag extends Region {
    private static final double FINE = 0.1;
    private static final int LARGE = 10;

    private final double low;
    private final double step;
    private double high;
    private double rest;
    private ViewContext desk;
    private Supplier<DoubleFunction<Edit>> edits;
    private DoubleFunction<Edit> edited;
    private final WheelSteps wheel = new WheelSteps();
    private double value;
    private double pressedAt;
    private double pressedValue;
    private boolean dragging;

    protected SliderDrag(String name, double low, double high, double rest, double step) {
        this.low = low;
        this.high = high;
        this.rest = rest;
        this.step = step;
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        setAccessibleText(name);
        getStyleClass().add("slide");
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        addEventHandler(ScrollEvent.SCROLL, event -> {
            // Scrolling past a slider must change nothing, and neither must the inertia of a scroll gesture.
            if (isFocused() && event.getDeltaY() != 0) {
                if (!event.isInertia()) {
                    set(value + wheel.add(event.getDeltaY()) * step);
                }
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
     * Makes it edit the document.
     *
     * @param subject returns the edit of each value, for the object that is shown when a drag or a step begins
     */
    public void on(ViewContext to, Supplier<DoubleFunction<Edit>> subject) {
        desk = to;
        edits = subject;
        desk.pointer().edits(this, new Drag());
    }

    /** Sets the high end. */
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

    /** Returns the position of a value, from 0 at the left to 1 at the right. */
    protected double place(double of) {
        return Math.max(0, Math.min(1, (of - low) / (scaleEnd() - low)));
    }

    /** The value at the right end, which the highest may lie below. */
    protected double scaleEnd() {
        return high;
    }

    /** A drag moves by as much as the pointer, and is one step of undo. */
    private final class Drag implements Pointer.Handler {
        private double before;

        @Override
        public boolean press(MouseEvent event) {
            if (isDisabled()) {
                return false;
            }
            requestFocus();
            if (event.getClickCount() == 2) {
                set(rest);
                return false;
            }
            dragging = true;
            edited = edits.get();
            before = value;
            pressedAt = event.getX();
            pressedValue = Math.max(low, value);
            return true;
        }

        @Override
        public void drag(MouseEvent event, Gesture gesture) {
            double by = (event.getX() - pressedAt) / getWidth() * (scaleEnd() - low) * (event.isShiftDown() ? FINE : 1);
            double next = held(pressedValue + by);
            if (next != value) {
                value = next;
                gesture.preview(edited.apply(end(value)).change());
                requestLayout();
            }
        }

        @Override
        public void release(MouseEvent event, Gesture gesture) {
            dragging = false;
            if (value != before) {
                gesture.finish(edited.apply(end(value)));
            }
        }

        @Override
        public void cancel() {
            dragging = false;
            show(before);
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
            // Turns of a wheel and a held arrow key are one step of undo.
            desk.document().edit(edits.get().apply(end(to)), desk.run(this));
            requestLayout();
        }
    }

    private double held(double next) {
        return Math.max(low, Math.min(high, next));
    }

    /** Returns the value of a position at the low end. */
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
