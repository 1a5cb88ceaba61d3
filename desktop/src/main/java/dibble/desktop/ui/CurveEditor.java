package dibble.desktop.ui;

import dibble.session.Edit;
import dibble.session.Gesture;
import java.util.List;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;

/**
 * A curve of values: input from left to right, output from bottom to top, a line for each output, and a mark at the
 * present values. The ends of an editable curve can be dragged in both directions; a drag is one undo step.
 */
public final class CurveEditor extends Pane {
    /** No step: the output is continuous. */
    public static final int NO_STEP = -1;

    private static final double GRIP = 5;

    /**
     * A line of outputs.
     *
     * @param most the largest output
     * @param first the output at the low end of the window
     * @param last the output at its high end
     * @param step the input from which the output switches at once; {@link #NO_STEP} for none
     */
    public record Line(Color colour, int most, int first, int last, int step) {}

    /**
     * The displayed curve.
     *
     * @param most the largest input
     * @param low the low end of the window of inputs
     * @param beyond whether inputs outside the window have the output of the nearer end
     * @param now the present inputs
     */
    public record Curve(int most, int low, int high, boolean beyond, List<Line> lines, List<Integer> now) {}

    /** Makes edits of a curve's ends. */
    public interface Hands {
        /** Returns the edits of one end, of the object that is shown now. */
        Grip take(int line, boolean low);
    }

    /** An end that is dragged. */
    public interface Grip {
        /** Returns the edit that puts it to a value in and a value out. */
        Edit at(int in, int out);
    }

    private final Theme theme;
    private final Hands hands;
    private final double edge;
    private final double near;
    private final Canvas canvas;
    private Curve curve;
    private Palette drawn;

    /**
     * @param hands where it is edited, or null
     * @param near how near a press takes an end, in pixels
     */
    public CurveEditor(ViewContext desk, double width, double height, double near, Hands hands) {
        theme = desk.theme();
        this.hands = hands;
        this.near = near;
        edge = hands == null ? 6 : 9;
        canvas = new Canvas(width, height);
        setMinSize(width, height);
        setMaxSize(width, height);
        getStyleClass().add("control-curve");
        getChildren().add(canvas);
        if (hands == null) {
            setMouseTransparent(true);
        } else {
            desk.pointer().edits(this, new Drag());
        }
    }

    /** Shows a curve; redrawn only after a change. */
    public void show(Curve next) {
        if (!next.equals(curve) || theme.palette() != drawn) {
            curve = next;
            drawn = theme.palette();
            draw();
        }
    }

    private double x(int value) {
        return edge + (canvas.getWidth() - 2 * edge) * value / curve.most;
    }

    private double y(Line line, int value) {
        return canvas.getHeight() - edge - (canvas.getHeight() - 2 * edge) * value / line.most;
    }

    private static int within(double value, int highest) {
        return (int) Math.max(0, Math.min(highest, Math.round(value)));
    }

    private final class Drag implements Pointer.Handler {
        private Grip grip;
        private int mostIn;
        private int mostOut;

        /** The nearest end is taken, where one is near. */
        @Override
        public boolean press(MouseEvent event) {
            grip = null;
            double nearest = near;
            for (int i = 0; i < curve.lines.size(); i++) {
                Line line = curve.lines.get(i);
                double low = Math.hypot(event.getX() - x(curve.low), event.getY() - y(line, line.first));
                double high = Math.hypot(event.getX() - x(curve.high), event.getY() - y(line, line.last));
                if (line.step == NO_STEP && Math.min(low, high) <= nearest) {
                    nearest = Math.min(low, high);
                    grip = hands.take(i, low < high);
                    mostIn = curve.most;
                    mostOut = line.most;
                }
            }
            return grip != null;
        }

        private Edit edit(MouseEvent event) {
            double in = (event.getX() - edge) / (canvas.getWidth() - 2 * edge) * mostIn;
            double out = (canvas.getHeight() - edge - event.getY()) / (canvas.getHeight() - 2 * edge) * mostOut;
            return grip.at(within(in, mostIn), within(out, mostOut));
        }

        @Override
        public void drag(MouseEvent event, Gesture gesture) {
            gesture.preview(edit(event).change());
        }

        @Override
        public void release(MouseEvent event, Gesture gesture) {
            if (!event.isStillSincePress()) {
                gesture.finish(edit(event));
            }
        }

        @Override
        public void cancel() {
            // The curve is drawn as the document has it.
        }
    }

    private void draw() {
        GraphicsContext g = canvas.getGraphicsContext2D();
        double width = canvas.getWidth();
        double height = canvas.getHeight();
        g.clearRect(0, 0, width, height);
        g.setStroke(theme.palette().get("rule"));
        g.setLineWidth(1);
        for (int quarter = 0; quarter <= 4; quarter++) {
            double x = Math.round(edge + (width - 2 * edge) * quarter / 4) + 0.5;
            double y = Math.round(edge + (height - 2 * edge) * quarter / 4) + 0.5;
            if (hands != null || quarter % 4 == 0) {
                g.strokeLine(x, edge, x, height - edge);
                g.strokeLine(edge, y, width - edge, y);
            }
        }
        curve.lines.forEach(line -> drawLine(g, line));
        g.setStroke(theme.palette().get("ink"));
        g.setLineWidth(hands == null ? 2 : 1.5);
        curve.now.forEach(value -> g.strokeLine(x(value), edge, x(value), height - edge));
        if (hands != null) {
            curve.lines.forEach(line -> drawGrips(g, line));
        }
    }

    private void drawLine(GraphicsContext g, Line line) {
        g.setStroke(line.colour);
        g.setLineWidth(3);
        if (line.step != NO_STEP) {
            double step = x(line.step);
            g.strokeLine(x(0), y(line, 0), step, y(line, 0));
            g.strokeLine(step, y(line, 0), step, y(line, line.most));
            g.strokeLine(step, y(line, line.most), x(curve.most), y(line, line.most));
            return;
        }
        double low = x(curve.low);
        double high = x(curve.high);
        g.strokeLine(low, y(line, line.first), high, y(line, line.last));
        if (curve.beyond) {
            g.strokeLine(x(0), y(line, line.first), low, y(line, line.first));
            g.strokeLine(high, y(line, line.last), x(curve.most), y(line, line.last));
        }
    }

    private void drawGrips(GraphicsContext g, Line line) {
        if (line.step != NO_STEP) {
            return;
        }
        g.setFill(theme.palette().get("raised"));
        g.setStroke(theme.palette().get("ink"));
        g.setLineWidth(2);
        drawGrip(g, x(curve.low), y(line, line.first));
        drawGrip(g, x(curve.high), y(line, line.last));
    }

    private static void drawGrip(GraphicsContext g, double x, double y) {
        g.fillRoundRect(x - GRIP, y - GRIP, 2 * GRIP, 2 * GRIP, 4, 4);
        g.strokeRoundRect(x - GRIP, y - GRIP, 2 * GRIP, 2 * GRIP, 4, 4);
    }
}
