package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeFalse;

import dibble.demo.LamplightersRound;
import dibble.presentation.app.Page;
import dibble.session.Session;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Hyperlink;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;

/** Every view with its panels: nothing is shown that is in no bundle, and no button is too small for what it says. */
class AllViewsTest extends WindowTest {
    /** What a hand can hit, in pixels. */
    private static final double MIN = 24;

    @Override
    Session session() {
        return LamplightersRound.session();
    }

    @Test
    void textsFitAndComeFromTheBundles() {
        Set<String> wrong = new LinkedHashSet<>();
        onFx(() -> {
            desk().selection().zoneAlone("celesta");
            desk().selection().partAlone("sorrel/celesta");
            lookup("#show-why").queryAs(ButtonBase.class).fire();
            lookup("#show-passed").queryAs(ButtonBase.class).fire();
        });
        for (Page page : Page.values()) {
            onFx(() -> window.show(page));
            look(page.toString(), wrong);
        }
        onFx(() -> {
            window.show(Page.GEAR);
            lookup("#gear-ports").queryAs(ButtonBase.class).fire();
        });
        look("ports", wrong);
        onFx(() -> desk().document().edit("another", session -> Session.empty("Another")));
        for (Page page : Page.values()) {
            onFx(() -> window.show(page));
            look("empty " + page, wrong);
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void labelsOfControlsAndGearFitIntoASmallWindow() {
        assumeFalse(MarkedTexts.areShown(), "marked texts are longer than any language's");
        Stage stage = onFx(() -> (Stage) window.getScene().getWindow());
        double width = stage.getWidth();
        double height = stage.getHeight();
        Set<String> wrong = new LinkedHashSet<>();
        try {
            onFx(() -> {
                stage.setWidth(1024);
                stage.setHeight(700);
            });
            for (Page page : List.of(Page.CONTROLS, Page.GEAR)) {
                onFx(() -> window.show(page));
                settle();
                settle();
                interact(() -> window.layout());
                MarkedTexts.cutLabels(window).forEach(it -> wrong.add(page + ", " + it));
            }
        } finally {
            onFx(() -> {
                stage.setWidth(width);
                stage.setHeight(height);
            });
        }
        assertThat(wrong).isEmpty();
    }

    private void look(String where, Set<String> wrong) {
        settle();
        interact(() -> window.layout());
        MarkedTexts.cut(window).forEach(it -> wrong.add(where + ", " + it));
        small(window).forEach(it -> wrong.add(where + ", smaller than " + MIN + ": " + it));
        if (MarkedTexts.areShown()) {
            MarkedTexts.strays(window, desk().session()).forEach(it -> wrong.add(where + ", " + it));
        }
    }

    private static Set<String> small(Node root) {
        Set<String> small = new TreeSet<>();
        MarkedTexts.each(root, node -> {
            if (node instanceof ButtonBase button
                    && !(node instanceof Hyperlink)
                    && !button.getStyleClass().contains("arrow-button")
                    && (button.getHeight() < MIN || button.getWidth() < MIN)) {
                small.add(button.getId() + " " + button.getStyleClass() + " " + Math.round(button.getWidth()) + " × "
                        + Math.round(button.getHeight()));
            }
        });
        return small;
    }
}
