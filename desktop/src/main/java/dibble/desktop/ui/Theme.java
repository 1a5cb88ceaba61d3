package dibble.desktop.ui;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import java.io.InputStream;
import javafx.application.Application;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.Scene;
import javafx.scene.text.Font;

/** Day or night: the base styles, Dibble's own on top, its colours, and the faces that it ships. */
public final class Theme {
    private final ObjectProperty<Palette> palette = new SimpleObjectProperty<>(Palette.DAY);

    /** Loads the shipped faces. Once, before the first scene. */
    public static void loadFonts() {
        for (String file : new String[] {"DibbleSans-Regular", "DibbleSans-Bold", "DibbleSerif-Regular"}) {
            InputStream in = Theme.class.getResourceAsStream("/dibble/desktop/fonts/" + file + ".ttf");
            if (in == null || Font.loadFont(in, 13) == null) {
                throw new IllegalStateException("the face " + file + " is missing from this build");
            }
        }
    }

    public Palette palette() {
        return palette.get();
    }

    public ObjectProperty<Palette> paletteProperty() {
        return palette;
    }

    /** Dresses a scene, now and whenever the theme changes. */
    public void dress(Scene scene) {
        scene.getStylesheets()
                .add(Theme.class.getResource("/dibble/desktop/dibble.css").toExternalForm());
        palette.subscribe(now -> {
            Application.setUserAgentStylesheet(
                    now == Palette.NIGHT
                            ? new PrimerDark().getUserAgentStylesheet()
                            : new PrimerLight().getUserAgentStylesheet());
            scene.getRoot().setStyle(now.css());
        });
    }
}
