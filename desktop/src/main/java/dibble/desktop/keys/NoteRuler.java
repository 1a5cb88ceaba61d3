package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Palette;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.presentation.keys.NoteScale;
import java.util.List;
import java.util.Objects;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.text.Font;
import javafx.scene.text.FontWeight;

/** The note ruler over all keyboards, with the zoom at its left. */
final class NoteRuler extends Pane {
    private static final double HEIGHT = 28;
    private static final Font PLAIN = Font.font("Dibble Sans", 13);
    private static final Font BOLD = Font.font("Dibble Sans", FontWeight.BOLD, 13);

    private final Canvas canvas = new Canvas();
    private List<Object> drawn;

    NoteRuler(Runnable out, Runnable in, Runnable fit) {
        getStyleClass().add("ruler");
        setMinHeight(HEIGHT);
        setPrefHeight(HEIGHT);
        HBox zooming = new HBox(
                2,
                link("zoom-out", "−", say("note-ruler.zoom-out"), out),
                link("zoom-in", "+", say("note-ruler.zoom-in"), in),
                link("zoom-fit", say("note-ruler.fit"), say("note-ruler.zoom-to-fit"), fit));
        zooming.setLayoutX(112);
        zooming.setLayoutY(3);
        getChildren().addAll(canvas, zooming);
    }

    private static Button link(String id, String text, String about, Runnable action) {
        Button button = Cards.button(id, text, action);
        button.getStyleClass().add("link");
        button.setAccessibleText(about);
        return button;
    }

    /** Shows the notes of a scale; redrawn only after a change. */
    void show(NoteScale scale, MiddleC middleC, Palette palette) {
        List<Object> next = List.of(scale, middleC, palette);
        if (!Objects.equals(next, drawn)) {
            drawn = next;
            draw(scale, middleC, palette);
        }
    }

    private void draw(NoteScale scale, MiddleC middleC, Palette palette) {
        canvas.setWidth(SourceRow.HEAD + scale.width() + 8);
        canvas.setHeight(HEIGHT);
        GraphicsContext g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, canvas.getWidth(), HEIGHT);
        g.setFill(palette.get("soft"));
        g.setFont(PLAIN);
        g.fillText(say("common.played-by"), 16, 18);
        Range span = scale.span();
        for (int note = span.low(); note <= span.high(); note++) {
            if (note % 12 == 0) {
                boolean middle = note == 60;
                double x = SourceRow.HEAD + Math.round(scale.x(note));
                g.setFill(palette.get(middle ? "soft" : "strong-rule"));
                g.fillRect(x, 8, 1, HEIGHT - 8);
                if (x + 54 < canvas.getWidth()) {
                    g.setFill(palette.get(middle ? "ink" : "soft"));
                    g.setFont(middle ? BOLD : PLAIN);
                    g.fillText(NoteNames.name(note, middleC) + " · " + note, x + 4, 18);
                }
            }
        }
    }
}
