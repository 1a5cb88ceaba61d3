package dibble.desktop.app;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
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

    private final Desk desk;
    private final Label recordWord = new Label("Record");
    private final Button play = new Button("Play");
    private final Label position = new Label("1 · 1");
    private final Label tempo = Cards.soft("");

    TransportBar(Desk desk) {
        this.desk = desk;
        Label mark = new Label("●");
        mark.getStyleClass().add("record-mark");
        recordWord.getStyleClass().add("record-word");
        HBox face = new HBox(6, mark, recordWord);
        face.setAlignment(Pos.CENTER_LEFT);
        Button record = desk.commands().on("record", new Button());
        record.setGraphic(face);
        record.setId("record");
        record.setAccessibleText("record");
        record.setMinWidth(100);
        desk.commands().on("play", play);
        play.setId("play");
        play.setMinWidth(58);
        // They have keys of their own; a click must not take Space away from playing and stopping.
        record.setFocusTraversable(false);
        play.setFocusTraversable(false);
        position.getStyleClass().add("position");
        position.setId("position");
        position.setAccessibleText("position: bar and beat");
        tempo.setMinWidth(USE_PREF_SIZE);
        getStyleClass().add("transport");
        setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(record, play, position, tempo);
    }

    /** The tempo stands in Takes too; where there is little room, Silence must not be pushed out. */
    void setNarrow(boolean narrow) {
        Cards.show(tempo, !narrow);
    }

    void show() {
        tempo.setText(Math.round(desk.session().tempo().bpm(0)) + " bpm");
    }

    /** Follows what the transport does. */
    void follow() {
        Studio studio = desk.studio();
        Transport now = studio.transport();
        pseudoClassStateChanged(RECORDING, now == Transport.RECORDING);
        recordWord.setText(
                now != Transport.RECORDING
                        ? studio.waitsToRecord() ? "Waiting" : "Record"
                        : studio.countsIn() > 0 ? "Count-in" : "Recording");
        play.setText(now == Transport.STOPPED ? "Play" : "Stop");
        position.setText(TransportWords.place(desk.session().tempo(), studio.position(), studio.countsIn()));
    }
}
