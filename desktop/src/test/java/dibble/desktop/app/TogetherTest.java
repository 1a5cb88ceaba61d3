package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.desktop.ui.KeyboardPane;
import dibble.presentation.Command;
import dibble.presentation.app.Page;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.input.KeyCombination;
import org.junit.jupiter.api.Test;

/** What belongs together is lit together; what is told in one place is the same in all. */
class TogetherTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private boolean isLit(String id) {
        return lookup(id)
                .tryQuery()
                .map(node -> node.getPseudoClassStates().stream()
                        .anyMatch(state -> state.getPseudoClassName().equals("lit")))
                .orElse(false);
    }

    @Test
    void hoveringLightsTheSameInEveryView() {
        moveTo("#zone-marimba");
        until(() -> isLit("#zone-marimba") && isLit("#part-sorrel-marimba"));
        assertThat(isLit("#zone-celesta")).isFalse();
        moveTo("#part-sorrel-celesta");
        until(() -> isLit("#zone-celesta") && !isLit("#zone-marimba"));

        clickOn("#view-gear");
        until(() -> lookup("#gear-part-sorrel-marimba").tryQuery().isPresent());
        moveTo("#gear-part-sorrel-marimba");
        until(() -> isLit("#gear-part-sorrel-marimba") && isLit("#source-tansy"));
        assertThat(isLit("#source-larkspur")).isFalse();

        clickOn("#view-channels");
        until(() -> lookup("#place-sorrel-marimba").tryQuery().isPresent());
        moveTo("#place-sorrel-marimba");
        until(() -> isLit("#place-sorrel-marimba") && isLit("#ribbon-marimba-2"));

        moveTo("#silence");
        until(() -> desk().selection().lit().get() == null);
        assertThat(isLit("#place-sorrel-marimba")).isFalse();
    }

    @Test
    void padsAreShownAsPadsAndKeysAsKeys() {
        assertThat(lookup("#keys-sedge").queryAs(KeyboardPane.class).isPads()).isTrue();
        assertThat(lookup("#keys-tansy").queryAs(KeyboardPane.class).isPads()).isFalse();
    }

    /** In every view each key is for one thing, or for the later of two that never apply at once. */
    @Test
    void noTwoCommandsOfTheWindowHaveOneKey() {
        for (Page page : Page.values()) {
            onFx(() -> window.show(page));
            List<KeyCombination> keys = new ArrayList<>();
            for (Command command : desk().commands().all()) {
                command.keys().stream().map(KeyCombination::keyCombination).forEach(keys::add);
            }
            List<String> twice = keys.stream()
                    .collect(Collectors.groupingBy(KeyCombination::getName, Collectors.counting()))
                    .entrySet()
                    .stream()
                    .filter(entry -> entry.getValue() > 1)
                    .map(entry -> entry.getKey())
                    .toList();
            assertThat(twice).as(page.title()).isEmpty();
        }
    }
}
