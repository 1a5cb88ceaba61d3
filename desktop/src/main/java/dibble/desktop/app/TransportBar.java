package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.app.TransportWords;
import dibble.studio.Studio;
import dibble.studio.Transport;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;

/** Record, Play, where the music is, and how fast. */
final class TransportBar extends HBox {
    private static final PseudoClass RECORDING = PseudoClass.getPseudoClass("recording");

    private final ViewContext desk;
    private final Label recordWord = new Label(say("common.record"));
    private final Button play = new Button(say("transport-bar.play"));
    private final Label position = new Label("1 · 1");
    private final Label tempo = Cards.soft("");

    TransportBar(ViewContext desk) {
        this.desk = desk;
        Label mark = new Label("●");
        mark.getStyleClass().add("record-mark");
        recordWord.getStyleClass().add("record-word");
        HBox face = new HBox(6, mark, recordWord);
        face.setAlignment(Pos.CENTER_LEFT);
        Button record = desk.commands().on("record", new Button());
        record.setGraphic(face);
        record.setId("record");
        record.setAccessibleText(say("transport-bar.record"));
        record.setMinWidth(100);
        desk.commands().on("play", play);
        play.setId("play");
        play.setMinWidth(58);
        // The buttons have keys; a click must not take the focus, or Space would press them instead of playing and
        // stopping.
        record.setFocusTraversable(false);
        play.setFocusTraversable(false);
        position.getStyleClass().add("position");
        position.setId("position");
        position.setAccessibleText(say("transport-bar.position-bar-and-beat"));
        tempo.setMinWidth(USE_PREF_SIZE);
        getStyleClass().add("transport");
        setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(record, play, position, tempo);
    }

    /** The tempo is in Takes too; in a narrow window, Silence must remain visible. */
    void setNarrow(boolean narrow) {
        Cards.show(tempo, !narrow);
    }

    void show() {
        tempo.setText(say("transport-bar.bpm", Math.round(desk.session().tempo().bpm(0))));
    }

    /** Updates the state of the transport. */
    void follow() {
        Studio studio = desk.studio();
        Transport now = studio.transport();
        pseudoClassStateChanged(RECORDING, now == Transport.RECORDING);
        recordWord.setText(
                now != Transport.RECORDING
                        ? studio.waitsToRecord() ? say("transport-bar.waiting") : say("common.record")
                        : studio.countsIn() > 0 ? say("transport-bar.count-in") : say("transport-bar.recording"));
        play.setText(now == Transport.STOPPED ? say("transport-bar.play") : say("common.stop"));
        position.setText(TransportWords.place(desk.session().tempo(), studio.position(), studio.countsIn()));
    }
}
