package dibble.desktop.keys;

import dibble.desktop.ui.Desk;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.Words;
import dibble.midi.Range;
import dibble.routing.Zone;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;

/** What velocities become: in from left to right, out from below up. Its ends are dragged, each way; one step a drag. */
final class VelocityCurve extends Pane {
    private static final double WIDTH = 250;
    private static final double HEIGHT = 84;
    private static final double EDGE = 8;
    private static final int MOST = 127;

    private final Desk desk;
    private final KeysPresenter presenter;
    private final Canvas canvas = new Canvas(WIDTH, HEIGHT);
    private String zone;
    private boolean low;
    private boolean held;

    VelocityCurve(Desk desk, KeysPresenter presenter) {
        this.desk = desk;
        this.presenter = presenter;
        setId("velocity-curve");
        setAccessibleText("velocities in and out, as the fields say");
        setMinSize(WIDTH, HEIGHT);
        setMaxSize(WIDTH, HEIGHT);
        getStyleClass().add("curve");
        getChildren().add(canvas);
        setOnMousePressed(this::press);
        setOnMouseDragged(event -> {
            if (held) {
                Zone next = dragged(event);
                presenter.preview(zone, it -> next);
            }
            event.consume();
        });
        setOnMouseReleased(event -> {
            if (held) {
                held = false;
                Zone next = dragged(event);
                presenter.change("velocity", zone, it -> next);
            }
            event.consume();
        });
    }

    void show(String id) {
        zone = id;
        draw();
    }

    private Zone now() {
        return desk.session().zone(zone).orElseThrow();
    }

    private static Zone.VelocityMap out(Zone zone) {
        return zone.velocityTo() == null
                ? new Zone.VelocityMap(zone.velocity().low(), zone.velocity().high())
                : zone.velocityTo();
    }

    private static double x(int velocity) {
        return EDGE + (WIDTH - 2 * EDGE) * velocity / MOST;
    }

    private static double y(int velocity) {
        return HEIGHT - EDGE - (HEIGHT - 2 * EDGE) * velocity / MOST;
    }

    private static int clamp(double value, int lowest, int highest) {
        return (int) Math.max(lowest, Math.min(highest, Math.round(value)));
    }

    /** The nearer end is taken. */
    private void press(MouseEvent event) {
        if (zone != null && desk.session().zone(zone).isPresent()) {
            Range in = now().velocity();
            low = Math.abs(event.getX() - x(in.low())) <= Math.abs(event.getX() - x(in.high()));
            held = true;
        }
        event.consume();
    }

    private Zone dragged(MouseEvent event) {
        Zone before = now();
        int in = clamp((event.getX() - EDGE) / (WIDTH - 2 * EDGE) * MOST, 1, MOST);
        int out = clamp((HEIGHT - EDGE - event.getY()) / (HEIGHT - 2 * EDGE) * MOST, 0, MOST);
        Range window = low
                ? new Range(
                        Math.min(in, before.velocity().high()),
                        before.velocity().high())
                : new Range(
                        before.velocity().low(), Math.max(in, before.velocity().low()));
        return ZoneForm.withVelocity(before.withVelocity(window), low, out);
    }

    private void draw() {
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, WIDTH, HEIGHT);
        Zone shown = now();
        g.setStroke(desk.theme().palette().get("rule"));
        g.setLineWidth(1);
        g.strokeLine(x(0), y(0), x(MOST), y(0));
        g.strokeLine(x(0), y(0), x(0), y(MOST));
        g.strokeLine(x(0), y(0), x(MOST), y(MOST));
        Zone.VelocityMap out = out(shown);
        g.setStroke(PartColours.of(Words.colour(shown, desk.session())));
        g.setLineWidth(3);
        g.strokeLine(
                x(shown.velocity().low()), y(out.first()), x(shown.velocity().high()), y(out.last()));
        g.setFill(desk.theme().palette().get("ink"));
        g.fillOval(x(shown.velocity().low()) - 4, y(out.first()) - 4, 8, 8);
        g.fillOval(x(shown.velocity().high()) - 4, y(out.last()) - 4, 8, 8);
    }
}
