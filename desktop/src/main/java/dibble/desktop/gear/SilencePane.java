package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.checks.Fix;
import dibble.checks.StraySoundTest;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Question;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.gear.SilencePresenter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;

/** The test for stray sounds: one question after another, each with yes or no. */
final class SilencePane extends Question {
    private final SilencePresenter presenter;

    SilencePane(ViewContext desk) {
        super("silence-test-pane");
        presenter = new SilencePresenter(desk.document(), desk.studio());
    }

    /** Asks from the beginning. */
    void begin() {
        Cards.show(this, true);
        if (presenter.begin() == 0) {
            show(say("silence-pane.nothing-to-test-no-module"), done());
        } else {
            next();
        }
    }

    @Override
    public void close() {
        presenter.end();
        getChildren().clear();
        super.close();
    }

    private Button done() {
        return Cards.button("silence-done", say("silence-pane.done"), this::close);
    }

    private void show(String text, Node... buttons) {
        Label label = new Label(text);
        label.setId("silence-question");
        label.setWrapText(true);
        getChildren().setAll(label, new FlowPane(8, 6, buttons));
        buttons[0].requestFocus();
    }

    private void next() {
        Optional<String> question = presenter.next();
        if (question.isEmpty()) {
            showResults(presenter.sounded());
            return;
        }
        show(
                question.get(),
                Cards.button("silence-no", say("common.no"), this::next),
                Cards.button("silence-yes", say("silence-pane.yes-i-hear-it"), () -> {
                    presenter.sounds();
                    next();
                }),
                Cards.button("silence-again", say("silence-pane.play-again"), presenter::play),
                Cards.button("silence-stop", say("common.stop"), this::close));
    }

    private void showResults(List<StraySoundTest.Question> sounded) {
        if (sounded.isEmpty()) {
            show(say("silence-pane.no-stray-sounds"), done());
            return;
        }
        List<Node> nodes = new ArrayList<>();
        for (StraySoundTest.Question question : sounded) {
            Label text = new Label(question.ifYes());
            text.setWrapText(true);
            FlowPane mends = new FlowPane(8, 6);
            for (Fix mend : question.mends()) {
                mends.getChildren().add(Cards.button("silence-mend-" + nodes.size(), mend.words(), () -> {
                    presenter.mend(mend);
                    mends.setDisable(true);
                }));
            }
            nodes.add(text);
            nodes.add(mends);
        }
        nodes.add(done());
        Cards.rebuild(this, nodes);
    }
}
