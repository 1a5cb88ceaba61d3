package dibble.desktop.app;

import javafx.application.Application;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;

/** The least that a window can be: what a start is measured beside. Ends when it has been seen. */
public final class LabelWindow extends Application {
    /** Not a subclass itself, so that it runs from the class path. */
    public static final class Start {
        private Start() {}

        public static void main(String[] args) {
            Application.launch(LabelWindow.class, args);
        }
    }

    @Override
    public void start(Stage stage) {
        stage.setScene(new Scene(new StackPane(new Label("a label")), 1280, 800));
        stage.show();
        new StartupProbe(null).start();
    }
}
