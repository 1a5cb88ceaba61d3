package dibble.desktop.takes;

import dibble.desktop.ui.Palette;
import dibble.presentation.TimeScale;
import dibble.studio.Studio;
import dibble.studio.Transport;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;

/** The position of playback or recording; the start position while both are stopped. */
final class Playhead extends Pane {
    private final Studio studio;
    private final Rectangle line = new Rectangle(2, 0);
    private final Polygon mark = new Polygon(-5, -10, 5, -10, 0, 0);

    Playhead(Studio studio) {
        this.studio = studio;
        setMouseTransparent(true);
        line.setManaged(false);
        mark.setManaged(false);
        line.setY(4);
        mark.setLayoutY(TimeRuler.HEIGHT - 2);
        getChildren().addAll(line, mark);
    }

    /** Goes where the music is. */
    void follow(TimeScale scale, Palette palette, double foot) {
        Transport transport = studio.transport();
        boolean rests = transport == Transport.STOPPED;
        double at = scale.xOfNanos(rests ? studio.place() : studio.position());
        boolean seen = at >= 0 && at <= scale.width();
        line.setVisible(!rests && seen);
        mark.setVisible(rests && seen && studio.place() > 0);
        double x = TrackRow.HEAD + at;
        line.setX(Math.round(x));
        line.setHeight(foot);
        line.setFill(palette.get(transport == Transport.RECORDING ? "record" : "leaf"));
        mark.setLayoutX(x);
        mark.setFill(palette.get("ink"));
    }
}
