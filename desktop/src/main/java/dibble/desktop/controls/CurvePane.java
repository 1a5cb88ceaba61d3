package dibble.desktop.controls;

import dibble.desktop.ui.Desk;
import dibble.desktop.ui.LiveState;
import dibble.desktop.ui.PartColours;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;

/**
 * What a control map makes of its control: in from left to right, out from below up, a curve for each send, a line for
 * where the control is now. Where it may be edited the ends of the curves are dragged, each way; one step a drag.
 */
final class CurvePane extends Pane {
    private static final double GRIP = 5;
    private static final double NEAR = 14;

    private final Desk desk;
    private final ControlsPresenter presenter;
    private final boolean edits;
    private final double edge;
    private final Canvas canvas = new Canvas();
    private ControlMap map;
    private List<Integer> values = List.of();
    private int held = -1;
    private boolean heldLow;

    /** @param edits whether the ends can be dragged */
    CurvePane(Desk desk, ControlsPresenter presenter, double width, double height, boolean edits) {
        this.desk = desk;
        this.presenter = presenter;
        this.edits = edits;
        edge = edits ? 9 : 6;
        canvas.setWidth(width);
        canvas.setHeight(height);
        setMinSize(width, height);
        setMaxSize(width, height);
        getStyleClass().add("control-curve");
        getChildren().add(canvas);
        if (edits) {
            setId("control-curve");
            setAccessibleText("values in and out, as the fields say");
            setOnMousePressed(this::press);
            setOnMouseDragged(this::drag);
            setOnMouseReleased(this::release);
        } else {
            setMouseTransparent(true);
        }
    }

    void show(ControlMap shown) {
        map = shown;
        values = positions();
        draw();
    }

    /** Moves the line where the control moved. */
    void follow() {
        if (map != null && !positions().equals(values)) {
            values = positions();
            draw();
        }
    }

    /** Where the control is now, at each source that has it. */
    private List<Integer> positions() {
        List<Integer> positions = new ArrayList<>();
        for (String source : presenter.players(map)) {
            int value = desk.live().value(source, map.when().kind(), map.when().number(), map.channels());
            if (value != LiveState.UNKNOWN) {
                positions.add(value);
            }
        }
        return positions;
    }

    private double x(int value) {
        return edge + (canvas.getWidth() - 2 * edge) * value / map.when().kind().most();
    }

    private double y(ControlKind kind, int value) {
        return canvas.getHeight() - edge - (canvas.getHeight() - 2 * edge) * value / kind.most();
    }

    private static int within(double value, int lowest, int highest) {
        return (int) Math.max(lowest, Math.min(highest, Math.round(value)));
    }

    /** The nearest end is taken, where one is near. */
    private void press(MouseEvent event) {
        held = -1;
        double nearest = NEAR;
        for (int s = 0; s < map.sends().size(); s++) {
            ControlMap.Send send = map.sends().get(s);
            double low = distance(event, x(map.when().low()), y(send.kind(), send.first()));
            double high = distance(event, x(map.when().high()), y(send.kind(), send.last()));
            if (send.kind() != ControlKind.SCENE && Math.min(low, high) <= nearest) {
                nearest = Math.min(low, high);
                held = s;
                heldLow = low < high;
            }
        }
        event.consume();
    }

    private static double distance(MouseEvent event, double x, double y) {
        return Math.hypot(event.getX() - x, event.getY() - y);
    }

    private void drag(MouseEvent event) {
        if (held >= 0) {
            ControlMap next = dragged(event);
            presenter.preview(map.id(), it -> next);
        }
        event.consume();
    }

    private void release(MouseEvent event) {
        if (held >= 0) {
            ControlMap next = dragged(event);
            held = -1;
            presenter.change("curve", map.id(), it -> next);
        }
        event.consume();
    }

    private ControlMap dragged(MouseEvent event) {
        ControlMap.Trigger when = map.when();
        ControlMap.Send send = map.sends().get(held);
        int in = within(
                (event.getX() - edge)
                        / (canvas.getWidth() - 2 * edge)
                        * when.kind().most(),
                0,
                when.kind().most());
        int out = within(
                (canvas.getHeight() - edge - event.getY())
                        / (canvas.getHeight() - 2 * edge)
                        * send.kind().most(),
                0,
                send.kind().most());
        ControlMap.Trigger window = heldLow
                ? new ControlMap.Trigger(when.kind(), when.number(), Math.min(in, when.high()), when.high())
                : new ControlMap.Trigger(when.kind(), when.number(), when.low(), Math.max(in, when.low()));
        boolean low = heldLow;
        return map.withWhen(window)
                .withSend(held, it -> low ? it.withWindow(out, it.last()) : it.withWindow(it.first(), out));
    }

    private void draw() {
        GraphicsContext g = canvas.getGraphicsContext2D();
        double width = canvas.getWidth();
        double height = canvas.getHeight();
        g.clearRect(0, 0, width, height);
        Color rule = desk.theme().palette().get("rule");
        g.setStroke(rule);
        g.setLineWidth(1);
        for (int quarter = 0; quarter <= 4; quarter++) {
            double x = Math.round(edge + (width - 2 * edge) * quarter / 4) + 0.5;
            double y = Math.round(edge + (height - 2 * edge) * quarter / 4) + 0.5;
            if (edits || quarter % 4 == 0) {
                g.strokeLine(x, edge, x, height - edge);
                g.strokeLine(edge, y, width - edge, y);
            }
        }
        ControlMap.Trigger when = map.when();
        for (ControlMap.Send send : map.sends()) {
            g.setStroke(colour(send));
            g.setLineWidth(3);
            double low = x(when.low());
            double high = x(when.high());
            double first = y(send.kind(), send.first());
            double last = y(send.kind(), send.last());
            if (send.kind() == ControlKind.SCENE) {
                drawCall(g, send);
                continue;
            }
            g.strokeLine(low, first, high, last);
            if (!map.ignoreOutside()) {
                g.strokeLine(x(0), first, low, first);
                g.strokeLine(high, last, x(when.kind().most()), last);
            }
        }
        Color ink = desk.theme().palette().get("ink");
        g.setStroke(ink);
        g.setLineWidth(edits ? 1.5 : 2);
        for (int value : values) {
            g.strokeLine(x(value), edge, x(value), height - edge);
        }
        if (edits) {
            drawGrips(g, ink);
        }
    }

    /** A call is a step: where the value comes to be over 0. */
    private void drawCall(GraphicsContext g, ControlMap.Send send) {
        ControlMap.Trigger when = map.when();
        int most = when.kind().most();
        int from = when.low();
        while (from < when.high() && send.output(when, from) == 0) {
            from++;
        }
        double step = x(from);
        g.strokeLine(x(0), y(send.kind(), 0), step, y(send.kind(), 0));
        g.strokeLine(step, y(send.kind(), 0), step, y(send.kind(), send.kind().most()));
        g.strokeLine(
                step,
                y(send.kind(), send.kind().most()),
                x(most),
                y(send.kind(), send.kind().most()));
    }

    private void drawGrips(GraphicsContext g, Color ink) {
        g.setFill(desk.theme().palette().get("raised"));
        g.setStroke(ink);
        g.setLineWidth(2);
        for (ControlMap.Send send : map.sends()) {
            if (send.kind() == ControlKind.SCENE) {
                continue;
            }
            double[][] ends = {
                {x(map.when().low()), y(send.kind(), send.first())},
                {x(map.when().high()), y(send.kind(), send.last())}
            };
            for (double[] end : ends) {
                g.fillRoundRect(end[0] - GRIP, end[1] - GRIP, 2 * GRIP, 2 * GRIP, 4, 4);
                g.strokeRoundRect(end[0] - GRIP, end[1] - GRIP, 2 * GRIP, 2 * GRIP, 4, 4);
            }
        }
    }

    private Color colour(ControlMap.Send send) {
        int colour = presenter.said(map, send).colour();
        return colour == 0 ? desk.theme().palette().get("soft") : PartColours.of(colour);
    }
}
