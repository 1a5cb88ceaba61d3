package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.gear.Instrument;
import dibble.gear.SoundNames;
import dibble.presentation.Choice;
import dibble.presentation.gear.GearPresenter;
import dibble.presentation.gear.NamesActions;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** The origin of the names of a device's sounds: a file, or another instrument of the same device. */
final class NamesPane extends VBox {

    private final GearPresenter presenter;
    private final Label about = Cards.soft("");
    private final ComboBox<Choice<SoundNames>> others = new ComboBox<>();
    private final Button export;
    private Instrument shown;

    NamesPane(GearPresenter presenter, NamesActions files) {
        super(6);
        this.presenter = presenter;
        about.setWrapText(true);
        about.setId("names-about");
        others.setId("names-of");
        others.setAccessibleText(say("names-pane.whose-names"));
        others.getStyleClass().add("gear-choice");
        others.setOnAction(event -> choose());
        export = Cards.button("names-export", say("names-pane.export"), () -> files.export(shown.names()));
        getChildren()
                .addAll(
                        Cards.soft(say("instrument-form.sound-names")),
                        others,
                        about,
                        new FlowPane(
                                6,
                                6,
                                Cards.button("names-import", say("names-pane.import"), () -> files.bringIn(shown.id())),
                                export));
    }

    void show(Instrument instrument) {
        shown = null;
        SoundNames names = instrument.names();
        List<Choice<SoundNames>> choices = new ArrayList<>(List.of(new Choice<>(null, say("names-pane.not-known"))));
        presenter.knownNames(instrument).forEach(known -> choices.add(new Choice<>(known, words(known))));
        Form.choose(others, choices, names);
        about.setText(
                names == null
                        ? say("names-pane.import-a-document")
                        : say(
                                "names-pane.banks-and-programs",
                                names.banks().size(),
                                names.count(),
                                names.bankSelect().ordinal()));
        export.setDisable(names == null);
        shown = instrument;
    }

    private static String words(SoundNames names) {
        String device = (names.maker() + " " + names.model()).strip();
        return device.isEmpty() ? say("names-pane.without-a-name") : device;
    }

    private void choose() {
        Choice<SoundNames> chosen = others.getValue();
        if (shown != null && chosen != null) {
            presenter.changeInstrument(say("edit.sound-names"), shown.id(), it -> it.withNames(chosen.value()));
        }
    }
}
