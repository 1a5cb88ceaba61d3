package dibble.desktop.channels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.AccessibleText;
import dibble.desktop.ui.PartColours;
import dibble.session.ChannelChart.Way;
import java.util.List;
import javafx.geometry.BoundingBox;
import javafx.geometry.Bounds;
import javafx.scene.AccessibleAttribute;
import javafx.scene.Group;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.paint.Color;
import javafx.scene.shape.CubicCurve;
import javafx.scene.shape.StrokeLineCap;

/** A zone's way from a channel to a part; wide where it takes all keys. */
final class Ribbon extends Group {
    private static final double WHOLE = 9;
    private static final double PARTIAL = 4;
    private static final double SWELL = 4;
    private static final double DIM = 0.12;
    private static final double SWAY = 0.45;
    private static final double[] PLACES = {0.32, 0.2, 0.44, 0.56, 0.14, 0.68, 0.8};

    final Way way;
    private final CubicCurve outline = curve();
    private final CubicCurve face = curve();
    private final CubicCurve current = curve();
    private final CubicCurve hold = curve();
    private final Label label = new Label();
    private final boolean off;
    private boolean sounding;

    Ribbon(Way way, int colour, String words, String sentence) {
        this.way = way;
        off = !way.zone().enabled();
        setId("ribbon-" + way.zone().id() + "-" + way.from().channel());
        setFocusTraversable(true);
        setAccessibleText(sentence);
        getStyleClass().add("ribbon");
        AccessibleText.item(this, say("role.connection"));
        double width = way.whole() ? WHOLE : PARTIAL;
        outline.setStrokeWidth(width + 5);
        outline.getStyleClass().add("ribbon-outline");
        outline.setVisible(false);
        face.setStrokeWidth(width);
        face.setStroke(PartColours.of(colour));
        if (off) {
            face.getStrokeDashArray().addAll(6.0, 12.0);
        }
        current.getStyleClass().add("ribbon-current");
        current.setStrokeWidth(1.5);
        current.setVisible(false);
        hold.setStroke(Color.TRANSPARENT);
        hold.setStrokeWidth(Math.max(14, width + 4));
        label.setText(words);
        label.getStyleClass().add("ribbon-label");
        label.setMouseTransparent(true);
        Tooltip.install(hold, new Tooltip(say("ribbon.drag-an-end-off-to", sentence)));
        getChildren().addAll(outline, face, current, hold);
        dim(false);
    }

    private static CubicCurve curve() {
        CubicCurve curve = new CubicCurve();
        curve.setFill(null);
        curve.setStrokeLineCap(StrokeLineCap.BUTT);
        return curve;
    }

    /** Returns its label, to be placed above all ribbons; hidden if it is empty. */
    Label label() {
        return label;
    }

    void lie(double x1, double y1, double x2, double y2) {
        for (CubicCurve curve : List.of(outline, face, current, hold)) {
            bend(curve, x1, y1, x2, y2);
        }
    }

    static void bend(CubicCurve curve, double x1, double y1, double x2, double y2) {
        double sway = (x2 - x1) * SWAY;
        curve.setStartX(x1);
        curve.setStartY(y1);
        curve.setControlX1(x1 + sway);
        curve.setControlY1(y1);
        curve.setControlX2(x2 - sway);
        curve.setControlY2(y2);
        curve.setEndX(x2);
        curve.setEndY(y2);
    }

    /** Lays the label along the ribbon where it covers none of the others; where there is no room it stays hidden. */
    void layLabel(List<Bounds> taken) {
        boolean any = !label.getText().isEmpty();
        label.setVisible(false);
        if (!any) {
            return;
        }
        double width = label.prefWidth(-1);
        double height = label.prefHeight(-1);
        for (double t : PLACES) {
            double x = at(t, face.getStartX(), face.getControlX1(), face.getControlX2(), face.getEndX()) - width / 2;
            double y = at(t, face.getStartY(), face.getControlY1(), face.getControlY2(), face.getEndY()) - height / 2;
            Bounds bounds = new BoundingBox(x, y, width, height);
            label.resizeRelocate(x, y, width, height);
            if (x > face.getStartX() + 12
                    && x + width < face.getEndX() - 12
                    && taken.stream().noneMatch(bounds::intersects)) {
                taken.add(bounds);
                label.setVisible(true);
                return;
            }
        }
    }

    private static double at(double t, double a, double b, double c, double d) {
        double s = 1 - t;
        return s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d;
    }

    void dim(boolean on) {
        double opacity = off ? 0.6 : 0.88;
        face.setOpacity(on ? DIM : opacity);
        outline.setOpacity(on ? DIM : 1);
        label.setOpacity(on ? DIM : 1);
    }

    void showSelected(boolean on) {
        outline.setVisible(on);
    }

    void showSounding(boolean on) {
        if (on != sounding) {
            sounding = on;
            current.setVisible(on);
            face.setStrokeWidth((way.whole() ? WHOLE : PARTIAL) + (on ? SWELL : 0));
        }
    }

    double startY() {
        return face.getStartY();
    }

    double endY() {
        return face.getEndY();
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        Object answer = AccessibleText.answer(this, attribute);
        return answer == null ? super.queryAccessibleAttribute(attribute, parameters) : answer;
    }
}
