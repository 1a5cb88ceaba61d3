package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.ViewContext;
import dibble.presentation.Prompter;
import dibble.presentation.Words;
import dibble.presentation.gear.GearPresenter;
import java.util.function.Consumer;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;

/** Waits for a key on any port, and shows whose it is. */
final class SourceFinder extends ToggleButton {
    private static final String ASK = say("which-one.which-one-is-this");

    private final ViewContext desk;
    private final GearPresenter presenter;
    private final Consumer<String> shower;

    /** @param shower is given the source that was played */
    SourceFinder(ViewContext desk, GearPresenter presenter, Consumer<String> shower) {
        super(ASK);
        this.desk = desk;
        this.presenter = presenter;
        this.shower = shower;
        setId("which-one");
        setTooltip(new Tooltip(say("which-one.press-a-key-and-dibble")));
        setMinWidth(USE_PREF_SIZE);
        setOnAction(event -> ask(isSelected()));
    }

    /** Waits, or no longer. */
    void ask(boolean on) {
        setSelected(on);
        setText(on ? say("which-one.press-a-key") : ASK);
        desk.studio().listenEverywhere(on);
    }

    /** A key was pressed on a source. */
    void found(String source) {
        if (isSelected()) {
            ask(false);
            shower.accept(source);
        }
    }

    /** Looks whether a port was played that no source is on. */
    void follow() {
        String port = isSelected() ? desk.studio().strangerPlayed() : null;
        if (port != null) {
            ask(false);
            desk.ask()
                    .tell(
                            say("which-one.was-played-but-no-source", Words.portInList(port, desk.session())),
                            new Prompter.Answer(
                                    say("which-one.add-source"), () -> shower.accept(presenter.addSourceOn(port))));
        }
    }
}
