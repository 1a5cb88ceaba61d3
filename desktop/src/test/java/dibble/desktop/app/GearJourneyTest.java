package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.ShortMessage;
import dibble.session.Session;
import java.util.List;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** From nothing to sources, an instrument and planted channels, as by a hand. */
class GearJourneyTest extends WindowTest {
    @Override
    Session session() {
        return Session.empty("Bare");
    }

    private void addSource(String item) {
        clickOn("#add-source").clickOn(item);
    }

    private void type(String field, String text) {
        TextField there = lookup(field).query();
        clickOn(field);
        interact(there::selectAll);
        write(text).push(KeyCode.ENTER);
    }

    @Test
    void twoKeyboardsPadsAndAModuleFromAnEmptySession() {
        clickOn("#view-gear");
        until(() -> lookup("Nothing sounds yet. Add an instrument.").tryQuery().isPresent());
        addSource("#add-full");
        addSource("#add-small");
        addSource("#add-pads");
        until(() -> desk().session().sources().size() == 3);
        assertThat(desk().session().sources()).extracting(Source::id).containsExactly("keyboard", "keyboard-2", "pads");
        until(() -> lookup("#source-name").tryQuery().isPresent());
        type("#source-name", "Sedge pads");
        until(() -> desk().session().source("pads").orElseThrow().name().equals("Sedge pads"));
        desk().standIns().standIn("stand-in:pads").orElseThrow().press(4, 40, 90);
        until(() -> lookup("last heard: channel 5, just now").tryQuery().isPresent());

        clickOn("#add-instrument");
        until(() -> desk().session().instruments().size() == 1);
        until(() -> lookup("#add-part-module").tryQuery().isPresent());
        for (int parts = 2; parts <= 4; parts++) {
            int wanted = parts;
            clickOn("#add-part-module");
            until(() ->
                    desk().session().instrument("module").orElseThrow().parts().size() == wanted);
            until(() -> lookup("#gear-part-module-part-" + wanted).tryQuery().isPresent());
        }
        clickOn("#plant-module");
        until(() -> lookup("#plant-start").tryQuery().isPresent());
        interact(() -> lookup("#plant-start").queryAs(TextField.class).setText("5"));
        interact(() -> lookup("#plant-step").queryAs(TextField.class).setText("2"));
        assertThat(lookup("#plant-preview").queryAs(Label.class).getText())
                .isEqualTo("Part 5, Part 7, Part 9, Part 11 · 4 of 4");
        clickOn("#plant-do");
        until(() -> desk().session().instrument("module").orElseThrow().parts().stream()
                .map(Part::channel)
                .toList()
                .equals(List.of(5, 7, 9, 11)));
        interact(() -> desk().document().undo());
        assertThat(desk().session().instrument("module").orElseThrow().parts())
                .extracting(Part::channel)
                .containsOnlyNulls();
    }

    @Test
    void aChannelClashIsSaidWithBothNamesAndMendedInPlace() {
        clickOn("#view-gear");
        clickOn("#add-instrument");
        until(() -> lookup("#add-part-module").tryQuery().isPresent());
        clickOn("#add-part-module");
        until(() -> lookup("#gear-part-module-part-2").tryQuery().isPresent());
        for (String part : new String[] {"part", "part-2"}) {
            clickOn("#gear-part-module-" + part);
            until(() -> desk().selection().part().get().equals("module/" + part));
            until(() -> lookup("#part-channel").tryQuery().isPresent());
            ComboBox<String> channel = lookup("#part-channel").query();
            interact(() -> channel.setValue("3"));
            until(() -> Integer.valueOf(3)
                    .equals(desk().session()
                            .part(new PartRef("module", part))
                            .orElseThrow()
                            .channel()));
        }
        until(() -> lookup("#mend-channel-clash").tryQuery().isPresent());
        clickOn("#mend-channel-clash");
        until(() -> desk().session()
                        .part(new PartRef("module", "part-2"))
                        .orElseThrow()
                        .channel()
                == 1);
        until(() -> lookup("#mend-channel-clash").tryQuery().isEmpty());
        assertThat(port.messages).contains(ShortMessage.programChange(0, 0), ShortMessage.programChange(2, 0));
    }
}
