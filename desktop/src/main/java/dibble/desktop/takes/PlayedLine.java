package dibble.desktop.takes;

import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/** The events of one source. */
final class PlayedLine extends HBox {
    private static final double HEIGHT = 24;

    private final Label name = new Label();
    private final NoteLane lane = new NoteLane(3);

    PlayedLine() {
        HBox.setHgrow(lane, Priority.ALWAYS);
        name.getStyleClass().add("played-name");
        name.setMinWidth(TrackRow.HEAD);
        name.setMaxWidth(TrackRow.HEAD);
        getChildren().addAll(name, lane);
        setMinHeight(HEIGHT);
        setMaxHeight(HEIGHT);
    }

    void setName(String text) {
        name.setText(text);
    }

    NoteLane lane() {
        return lane;
    }
}
