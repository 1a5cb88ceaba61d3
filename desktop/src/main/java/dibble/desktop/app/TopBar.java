package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.ViewContext;
import dibble.presentation.app.Page;
import dibble.presentation.app.SessionFiles;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.css.PseudoClass;
import javafx.scene.control.Button;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** Session, views, transport, scene, checks and silence. */
final class TopBar extends HBox {
    /** The stages of decreasing width. */
    private static final List<PseudoClass> TIGHT = List.of(
            PseudoClass.getPseudoClass("narrow"),
            PseudoClass.getPseudoClass("tight"),
            PseudoClass.getPseudoClass("tightest"));

    private static final PseudoClass FOUND = PseudoClass.getPseudoClass("found");

    private final ViewContext desk;
    private final SessionBox session;
    private final TransportBar transport;
    private final SceneBox scene;
    private final Map<Page, ToggleButton> tabs = new EnumMap<>(Page.class);
    private final ToggleButton checks = new ToggleButton();
    private double room;

    TopBar(ViewContext desk, SessionFiles files) {
        this.desk = desk;
        session = new SessionBox(desk, files);
        transport = new TransportBar(desk);
        scene = new SceneBox(desk);
        getStyleClass().add("top-bar");
        getChildren().add(session);
        for (Page page : Page.TABS) {
            String name = page.name().toLowerCase(Locale.ROOT);
            ToggleButton tab = desk.commands().on("show-" + name, new ToggleButton(page.title()));
            tab.getStyleClass().add("view-tab");
            tab.setId("view-" + name);
            tab.setMinWidth(USE_PREF_SIZE);
            tabs.put(page, tab);
            getChildren().add(tab);
        }
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        desk.commands().on("checks", checks);
        checks.setId("checks-count-button");
        checks.getStyleClass().add("checks-button");
        checks.setMinWidth(USE_PREF_SIZE);
        Button silence = desk.commands().on("silence", new Button(say("common.silence")));
        silence.setId("silence");
        silence.setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(transport, space, scene, checks, silence);
    }

    /** Makes room step by step until all of it fits into a width: nothing may push Silence out of the window. */
    void fit(double width) {
        room = width;
        for (int step = 0; step <= TIGHT.size(); step++) {
            for (int i = 0; i < TIGHT.size(); i++) {
                pseudoClassStateChanged(TIGHT.get(i), i < step);
            }
            transport.setNarrow(step > 1);
            scene.setNarrow(step > 1);
            session.setNarrow(step > 2);
            applyCss();
            if (minWidth(-1) <= width) {
                return;
            }
        }
    }

    /** Shows session, scene and checks as they are. */
    void show(Page page) {
        session.show();
        scene.show();
        transport.show();
        int count = desk.findings().count();
        checks.setText(count == 0 ? say("top-bar.no-warnings") : say("top-bar.warnings", count));
        checks.pseudoClassStateChanged(FOUND, count > 0);
        tabs.forEach((each, tab) -> tab.setSelected(each == page));
        checks.setSelected(page == Page.CHECKS);
        if (room > 0 && minWidth(-1) > room) {
            fit(room);
        }
    }

    /** Follows the transport. */
    void follow() {
        transport.follow();
    }
}
