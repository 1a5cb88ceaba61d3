package dibble.desktop.ui;

import dibble.presentation.SystemTheme;
import dibble.user.Settings;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import javafx.scene.paint.Color;

/** The colors of a theme, by role. Drawings read them from here; styles receive them as looked-up colors. */
public enum Palette {
    DAY(
            "#F5EFE2", "#FCF9F1", "#FFFDF7", "#26281F", "#686456", "#DDD3BE", "#CFC3A8", "#2F6B3F", "#DCE7D3",
            "#B3382C", "#7A4E0B", "#F6E3BF", "#2F342B", "#EFE8D8"),
    NIGHT(
            "#1E201B", "#262922", "#2F332A", "#EDE6D6", "#A9A390", "#3A3E34", "#4C5145", "#8CC08F", "#2E3F2F",
            "#E0685A", "#E8B765", "#463718", "#151712", "#23261F"),

    /** White on black, for those who see little. */
    CONTRAST(
            "#000000", "#000000", "#0B0B0B", "#FFFFFF", "#E8E8E8", "#8C8C8C", "#D0D0D0", "#86F0A0", "#123D20",
            "#FF7A6C", "#FFD060", "#3A2C00", "#000000", "#1C1C1C");

    /** Text and keys on the live line, which is dark in both themes. */
    public static final Color ON_DARK = Color.web("#F1EBDC");

    /** Quieter text on the live line. */
    public static final Color SOFT_ON_DARK = Color.web("#B9B3A0");

    private final Map<String, Color> roles = new LinkedHashMap<>();

    Palette(String... colours) {
        String[] names = {
            "paper",
            "sheet",
            "raised",
            "ink",
            "soft",
            "rule",
            "strong-rule",
            "leaf",
            "leaf-wash",
            "record",
            "check",
            "check-wash",
            "live",
            "bed"
        };
        for (int i = 0; i < names.length; i++) {
            roles.put(names[i], Color.web(colours[i]));
        }
    }

    /** Returns the present palette of a theme. */
    public static Palette of(Settings.Theme theme) {
        return switch (theme) {
            case DAY -> DAY;
            case NIGHT -> NIGHT;
            case CONTRAST -> CONTRAST;
            case SYSTEM -> SystemTheme.isDark() ? NIGHT : DAY;
        };
    }

    /** The colour of a role: {@code paper}, {@code ink}, {@code leaf} and so on, as in the styles. */
    public Color get(String role) {
        Color colour = roles.get(role);
        if (colour == null) {
            throw new IllegalArgumentException("colour role \"" + role + "\" (expected one of " + roles.keySet() + ")");
        }
        return colour;
    }

    /** All roles as looked-up colours, for the root of a scene. */
    public String css() {
        return roles.entrySet().stream()
                .map(role -> "-" + role.getKey() + ": " + hex(role.getValue()) + ";")
                .collect(Collectors.joining(" "));
    }

    static String hex(Color colour) {
        return String.format(
                Locale.ROOT,
                "#%02x%02x%02x",
                Math.round(colour.getRed() * 255),
                Math.round(colour.getGreen() * 255),
                Math.round(colour.getBlue() * 255));
    }

    /** Returns true if light things stand on dark ones. */
    public boolean isDark() {
        return this != DAY;
    }

    /** The contrast of two colours as the web's accessibility guidelines compute it: 1 to 21. */
    public static double contrast(Color a, Color b) {
        double high = Math.max(luminance(a), luminance(b));
        double low = Math.min(luminance(a), luminance(b));
        return (high + 0.05) / (low + 0.05);
    }

    private static double luminance(Color colour) {
        return 0.2126 * linear(colour.getRed())
                + 0.7152 * linear(colour.getGreen())
                + 0.0722 * linear(colour.getBlue());
    }

    private static double linear(double channel) {
        return channel <= 0.04045 ? channel / 12.92 : Math.pow((channel + 0.055) / 1.055, 2.4);
    }
}
