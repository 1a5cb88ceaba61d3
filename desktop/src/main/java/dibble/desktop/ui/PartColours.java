package dibble.desktop.ui;

import dibble.session.Colours;
import javafx.scene.paint.Color;

/** The sixteen colours of parts, 1-16, with the ink that is read on each; the same in both themes. */
public final class PartColours {
    private PartColours() {}

    /** The colour of a part; a quiet grey for 0, no part. */
    public static Color of(int colour) {
        return Color.web(Colours.hex(colour));
    }

    /** The ink that is read on that colour. */
    public static Color ink(int colour) {
        return Color.web(Colours.inkHex(colour));
    }

    /** The colour and its ink as looked-up colours, for one node. */
    public static String css(int colour) {
        return "-part: " + Palette.hex(of(colour)) + "; -part-ink: " + Palette.hex(ink(colour)) + ";";
    }
}
