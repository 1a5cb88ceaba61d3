package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.session.Session;
import javafx.scene.Node;
import org.junit.jupiter.api.Test;

/** The first five minutes, as far as the third step, left and taken up again. */
class FirstMinutesJourneyTest extends WindowTest {
    @Override
    Session session() {
        return Session.empty("Bare");
    }

    private boolean isShown(String id) {
        return lookup(id).tryQuery().filter(Node::isVisible).isPresent();
    }

    private void untilStep(String title) {
        until(() -> isShown("#first-minutes") && text("#step-title").equals(title));
    }

    @Test
    void whatIsDoneByHandIsNoticedAndTheStripNeverStandsInTheWay() {
        onFx(window::welcome);
        until(() -> desk().ask().isAsking());
        clickOn(labelled("Start"));
        untilStep("Play");
        assertThat(desk().session().sources()).hasSize(1);
        playKey("larkspur", 60);
        untilStep("Split at a key");

        // Something else may be done meanwhile.
        clickOn("#view-takes");
        clickOn("#step-show");
        until(() -> isShown("#keys-larkspur"));
        dragPart("sorrel-upright-bass", "larkspur", 54);
        until(() -> isShown("#beside-below"));
        clickOn("#beside-below");
        untilStep("Layer two sounds");
        assertThat(desk().session().zones()).hasSize(2);

        clickOn("#step-leave");
        until(() -> !isShown("#first-minutes"));
        onFx(() -> desk().commands().get("first-minutes").action().run());
        untilStep("Layer two sounds");
        dragPart("sorrel-glass-bowls", "larkspur", 80);
        until(() -> isShown("#on-top"));
        clickOn("#on-top");
        untilStep("Add a second keyboard");

        // It is offered once.
        onFx(window::welcome);
        assertThat(desk().ask().isAsking()).isFalse();
    }
}
