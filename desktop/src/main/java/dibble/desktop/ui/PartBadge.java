package dibble.desktop.ui;

import javafx.scene.control.Label;

/** A part's mark: its channel's number on its colour. */
public final class PartBadge extends Label {
    /** Without a colour and a number yet. */
    public PartBadge() {
        getStyleClass().add("chip");
        setStyle(PartColours.css(0));
        setMinWidth(USE_PREF_SIZE);
    }

    /** @param channel the text on it, or empty */
    public PartBadge show(int colour, String channel) {
        setStyle(PartColours.css(colour));
        setText(channel);
        return this;
    }
}
