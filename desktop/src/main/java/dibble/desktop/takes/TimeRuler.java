package dibble.desktop.takes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Palette;
import dibble.presentation.TimeScale;
import dibble.studio.RecordOptions;
import dibble.studio.Studio;
import dibble.time.Marker;
import dibble.time.TempoMap;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.scene.text.Text;

/** Bars and tempo changes over the lanes; a click or the arrow keys set where it plays and records from. */
final class TimeRuler extends Pane {
    static final double HEIGHT = 28;
    private static final Font FONT = Font.font("Dibble Sans", 13);

    private static final double MAX_NAME = 160;

    private final Studio studio;
    private final Canvas canvas = new Canvas();
    private TimeScale scale;
    private List<Object> drawn;

    TimeRuler(Studio studio) {
        this.studio = studio;
        setId("ruler");
        setAccessibleText(say("time-ruler.ruler-click-to-set-the"));
        setFocusTraversable(true);
        getChildren().add(canvas);
        Cards.onClick(this, event -> locate(event.getX()));
        setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.HOME) {
                studio.locate(0);
            } else if (event.getCode() == KeyCode.LEFT || event.getCode() == KeyCode.RIGHT) {
                step(event.getCode() == KeyCode.LEFT ? -1 : 1);
            }
        });
    }

    /** The beat that is nearest is where it plays and records from. */
    private void locate(double x) {
        if (scale != null) {
            long tick = scale.tickAt(x);
            long beat = scale.tempo().meter(tick).ticksPerBeat();
            studio.locate(scale.tempo().nanos(Math.max(0, (tick + beat / 2) / beat * beat)));
        }
    }

    private void step(int bars) {
        TempoMap tempo = scale.tempo();
        long bar = tempo.place(tempo.ticks(studio.place())).bar();
        studio.locate(tempo.nanos(tempo.barStart(Math.max(1, bar + bars))));
    }

    /** Shows a scale with the range to loop or to punch into; redrawn only after a change. */
    void show(TimeScale next, RecordOptions options, List<Marker> markers, Palette palette) {
        RecordOptions.Stretch range = options.loops() || options.punches() ? options.range() : null;
        List<Object> now = Arrays.asList(next, range, markers, palette);
        if (!Objects.equals(now, drawn)) {
            drawn = now;
            scale = next;
            draw(range, markers, palette);
        }
    }

    private static double nameWidth(String name) {
        Text text = new Text(name);
        text.setFont(FONT);
        return text.getLayoutBounds().getWidth();
    }

    private void draw(RecordOptions.Stretch range, List<Marker> markers, Palette palette) {
        canvas.setWidth(scale.width());
        canvas.setHeight(HEIGHT);
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), HEIGHT);
        g.setFont(FONT);
        if (range != null) {
            g.setFill(palette.get("leaf-wash"));
            double from = scale.xOfTick(range.from());
            g.fillRect(from, 4, scale.xOfTick(range.to()) - from, HEIGHT - 4);
        }
        g.setFill(palette.get("leaf"));
        for (TempoMap.Tempo change : scale.tempo().tempos()) {
            if (change.at() > 0) {
                // A change of tempo is a mark over its bar.
                g.fillRect(Math.round(scale.xOfTick(change.at())), 2, 10, 3);
            }
        }
        scale.eachBar(bar -> {
            double x = Math.round(scale.xOfTick(scale.tempo().barStart(bar)));
            g.setFill(palette.get("strong-rule"));
            g.fillRect(x, 8, 1, HEIGHT - 8);
            g.setFill(palette.get("soft"));
            g.fillText(String.valueOf(bar), x + 4, 18);
        });
        for (Marker marker : markers) {
            double x = Math.round(scale.xOfTick(marker.at()));
            double wide = Math.min(MAX_NAME, nameWidth(marker.name()));
            g.setFill(palette.get("leaf-wash"));
            g.fillRect(x, HEIGHT - 15, wide + 12, 15);
            g.setFill(palette.get("leaf"));
            g.fillRect(x, HEIGHT - 15, 3, 15);
            g.setFill(palette.get("ink"));
            g.fillText(marker.name(), x + 7, HEIGHT - 3, wide);
        }
    }
}
