package dibble.desktop.ui;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import dibble.paper.SheetPdf;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import javafx.application.Application;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.Scene;
import javafx.scene.text.Font;

/** Day or night: the base styles, Dibble's own on top, its colours, and the faces that it ships. */
public final class Theme {
    private static final String STYLES =
            Theme.class.getResource("/dibble/desktop/dibble.css").toExternalForm();

    private final ObjectProperty<Palette> palette = new SimpleObjectProperty<>(Palette.DAY);

    /** Loads the shipped faces. Once, before the first scene. */
    public static void loadFonts() {
        for (String file : new String[] {"DibbleSans-Regular", "DibbleSans-Bold", "DibbleSerif-Regular"}) {
            InputStream in = SheetPdf.font(file);
            if (Font.loadFont(in, 13) == null) {
                throw new IllegalStateException("the face " + file + " is missing from this build");
            }
        }
    }

    /**
     * Begins with a palette. Before the first control is made: otherwise the toolkit's own styles are read first, only to
     * be thrown away.
     */
    public static void begin(Palette palette) {
        Application.setUserAgentStylesheet(base(palette));
    }

    private static String base(Palette palette) {
        return palette.isDark()
                ? new PrimerDark().getUserAgentStylesheet()
                : new PrimerLight().getUserAgentStylesheet();
    }

    /** The colours in use. */
    public Palette palette() {
        return palette.get();
    }

    /** The colours in use, to be followed and changed. */
    public ObjectProperty<Palette> paletteProperty() {
        return palette;
    }

    /** Dresses a scene, now and whenever the theme changes. Styles that the scene already has are not applied again. */
    public void dress(Scene scene) {
        palette.subscribe(now -> {
            String base = base(now);
            if (!base.equals(Application.getUserAgentStylesheet())) {
                Application.setUserAgentStylesheet(base);
            }
            List<String> styles = List.of(colors(now), STYLES);
            if (!styles.equals(scene.getStylesheets())) {
                scene.getStylesheets().setAll(styles);
            }
        });
    }

    /** Returns the colors as a style sheet: styles of the root would not reach tooltips and menus. */
    private static String colors(Palette palette) {
        String css = ".root { " + palette.css() + " }";
        return "data:text/css;base64," + Base64.getEncoder().encodeToString(css.getBytes(StandardCharsets.UTF_8));
    }
}
