package dibble.desktop.ui;

import java.util.Set;
import javafx.scene.paint.Color;

/** The sixteen colours of parts, 1-16, with the ink that is read on each; the same in both themes. */
public final class PartColours {
    private static final String[] COLOURS = {
        "#6F608C", "#DEB86B", "#B696C9", "#674A48", "#71895D", "#7CC7FB", "#F6A1BB", "#523E9F", "#207E27", "#23B189",
        "#897AE1", "#0D6ABB", "#822871", "#8DA523", "#932601", "#1D8FA6"
    };
    private static final Set<Integer> WHITE_INK = Set.of(1, 4, 8, 9, 12, 13, 15);
    private static final Color DARK_INK = Color.web("#14150F");
    private static final Color NO_PART = Color.web("#6F6B5C");

    private PartColours() {}

    /** The colour of a part; a quiet grey for 0, no part. */
    public static Color of(int colour) {
        return colour == 0 ? NO_PART : Color.web(COLOURS[colour - 1]);
    }

    /** The ink that is read on that colour. */
    public static Color ink(int colour) {
        return colour == 0 || WHITE_INK.contains(colour) ? Color.WHITE : DARK_INK;
    }

    /** The colour and its ink as looked-up colours, for one node. */
    public static String css(int colour) {
        return "-part: " + Palette.hex(of(colour)) + "; -part-ink: " + Palette.hex(ink(colour)) + ";";
    }
}
