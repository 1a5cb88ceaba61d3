package dibble.desktop.ui;

import javafx.scene.control.Label;

/** A part's mark: its channel's number on its colour. */
public final class Chip extends Label {
    public Chip() {
        getStyleClass().add("chip");
        setStyle(PartColours.css(0));
        setMinWidth(USE_PREF_SIZE);
    }

    public Chip show(int colour, String channel) {
        setStyle(PartColours.css(colour));
        setText(channel);
        return this;
    }
}
