package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.CurveEditor;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.ViewContext;
import dibble.midi.Range;
import dibble.presentation.keys.KeysPresenter;
import dibble.routing.Zone;
import dibble.session.SessionFormatter;
import java.util.List;
import javafx.scene.layout.StackPane;

/** The velocity curve of a zone: its ends are the zone's velocity window and the resulting velocities. */
final class VelocityCurve extends StackPane {
    private static final double WIDTH = 250;
    private static final double HEIGHT = 84;
    private static final int MAX = 127;

    private final ViewContext desk;
    private final CurveEditor curve;
    private String zone;

    VelocityCurve(ViewContext desk, KeysPresenter presenter) {
        this.desk = desk;
        setMaxSize(WIDTH, HEIGHT);
        // The nearer end is taken, wherever it is pressed.
        curve = new CurveEditor(desk, WIDTH, HEIGHT, WIDTH, (line, low) -> {
            String dragged = zone;
            return (in, out) -> presenter.zoneEdit(say("edit.velocity"), dragged, it -> dragged(it, low, in, out));
        });
        curve.setId("velocity-curve");
        curve.setAccessibleText(say("velocity-curve.velocity-in-and-out-the"));
        getChildren().add(curve);
    }

    void show(String id) {
        zone = id;
        Zone now = now();
        Range in = now.velocity();
        Zone.VelocityMap out = now.velocityTo() == null ? new Zone.VelocityMap(in.low(), in.high()) : now.velocityTo();
        CurveEditor.Line line = new CurveEditor.Line(
                PartColours.of(SessionFormatter.colour(now, desk.session())),
                MAX,
                out.first(),
                out.last(),
                CurveEditor.NO_STEP);
        curve.show(new CurveEditor.Curve(MAX, in.low(), in.high(), false, List.of(line), List.of()));
    }

    private Zone now() {
        return desk.session().zone(zone).orElseThrow();
    }

    private static Zone dragged(Zone before, boolean low, int in, int out) {
        int from = before.velocity().low();
        int to = before.velocity().high();
        Range window = low ? new Range(Math.min(Math.max(1, in), to), to) : new Range(from, Math.max(in, from));
        return ZoneForm.withVelocity(before.withVelocity(window), low, out);
    }
}
