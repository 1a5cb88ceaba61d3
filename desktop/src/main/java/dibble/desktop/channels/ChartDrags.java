package dibble.desktop.channels;

import dibble.desktop.ui.Pointer;
import dibble.session.ChannelChart.Arrival;
import dibble.session.ChannelChart.Place;
import dibble.session.Gesture;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.MouseEvent;
import javafx.scene.shape.CubicCurve;

/**
 * Mouse gestures on a chart: dragging from dot to dot connects; dragging the end of a ribbon moves or disconnects it.
 */
final class ChartDrags {
    private static final double DRAGGED_OFF = 24;

    private final Pointer pointer;
    private final ChartPane pane;
    private final ChartPane.Hands hands;
    private final CubicCurve drawn = new CubicCurve();
    private Point2D pressed;

    ChartDrags(Pointer pointer, ChartPane pane, ChartPane.Hands hands) {
        this.pointer = pointer;
        this.pane = pane;
        this.hands = hands;
        drawn.setFill(null);
        drawn.getStyleClass().add("ribbon-drawn");
        drawn.setMouseTransparent(true);
        drawn.setVisible(false);
        drawn.setManaged(false);
    }

    /** Returns the drawing of the present drag, above everything else. */
    Node drawn() {
        return drawn;
    }

    /** Joins by dragging from the dot of a row to one on the other side. */
    void joinFrom(ChartRow<?> row) {
        pointer.edits(row.dot, new Drag() {
            @Override
            public boolean press(MouseEvent event) {
                pressed = here(event);
                return true;
            }

            @Override
            public void drag(MouseEvent event, Gesture gesture) {
                Point2D at = here(event);
                Point2D from = new Point2D(row.dot.getLayoutX(), row.dot.getLayoutY());
                Ribbon.bend(drawn, from.getX(), from.getY(), at.getX(), at.getY());
                drawn.setVisible(true);
                aim(at);
            }

            @Override
            void drop(Point2D at) {
                Object end = row.end;
                if (end instanceof Arrival from) {
                    under(pane.places(), at).ifPresent(to -> hands.join(from, to));
                } else if (end instanceof Place to) {
                    under(pane.arrivals(), at).ifPresent(from -> hands.join(from, to));
                }
            }
        });
    }

    /** An end of a ribbon that is dragged off follows the pointer: the nearer one. */
    void leadEnds(Ribbon ribbon) {
        pointer.edits(ribbon, new Drag() {
            @Override
            public boolean press(MouseEvent event) {
                pressed = here(event);
                ribbon.requestFocus();
                hands.choose(ribbon.way);
                return true;
            }

            @Override
            public void drag(MouseEvent event, Gesture gesture) {
                Point2D at = here(event);
                if (at.distance(pressed) < DRAGGED_OFF / 2) {
                    return;
                }
                double begin = pane.side() + ChartPane.EDGE;
                double end = pane.getWidth() - begin;
                if (isStart(pressed)) {
                    Ribbon.bend(drawn, at.getX(), at.getY(), end, ribbon.endY());
                } else {
                    Ribbon.bend(drawn, begin, ribbon.startY(), at.getX(), at.getY());
                }
                ribbon.dim(true);
                drawn.setVisible(true);
                aim(at);
            }

            @Override
            void drop(Point2D at) {
                dropEnd(ribbon, at);
            }

            @Override
            public void cancel() {
                ribbon.dim(false);
                super.cancel();
            }
        });
    }

    /** Something that is drawn until it is dropped. */
    private abstract class Drag implements Pointer.Handler {
        abstract void drop(Point2D at);

        @Override
        public void release(MouseEvent event, Gesture gesture) {
            boolean wasDrawn = drawn.isVisible();
            cancel();
            gesture.leave();
            if (wasDrawn) {
                drop(here(event));
            }
        }

        @Override
        public void cancel() {
            drawn.setVisible(false);
            aim(new Point2D(-1, -1));
        }
    }

    private Point2D here(MouseEvent event) {
        return pane.sceneToLocal(event.getSceneX(), event.getSceneY());
    }

    private boolean isStart(Point2D at) {
        return at.getX() < pane.getWidth() / 2;
    }

    private void dropEnd(Ribbon ribbon, Point2D at) {
        if (isStart(pressed)) {
            under(pane.arrivals(), at)
                    .filter(from -> !from.equals(ribbon.way.from()))
                    .ifPresentOrElse(from -> hands.beginAt(ribbon.way, from), () -> dropNowhere(ribbon, at));
        } else {
            under(pane.places(), at)
                    .filter(to -> !to.equals(ribbon.way.to()))
                    .ifPresentOrElse(to -> hands.lead(ribbon.way, to), () -> dropNowhere(ribbon, at));
        }
    }

    private void dropNowhere(Ribbon ribbon, Point2D at) {
        boolean home = under(pane.arrivals(), at).isPresent()
                || under(pane.places(), at).isPresent();
        if (!home && at.distance(pressed) >= DRAGGED_OFF) {
            hands.unplug(ribbon.way);
        }
    }

    private static <T> Optional<T> under(Map<T, ChartRow<T>> rows, Point2D at) {
        return rows.values().stream()
                .filter(row -> row.getBoundsInParent().contains(at)
                        || row.dot.getBoundsInParent().contains(at))
                .map(row -> row.end)
                .findFirst();
    }

    private void aim(Point2D at) {
        pane.arrivals()
                .values()
                .forEach(row -> row.showAimed(row.getBoundsInParent().contains(at)));
        pane.places()
                .values()
                .forEach(row -> row.showAimed(row.getBoundsInParent().contains(at)));
    }
}
