package dibble.desktop.gear;

import dibble.checks.Mend;
import dibble.checks.SilenceTest;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Question;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;

/** The silence test: one question after another about what should not sound, each with yes or no. */
final class SilencePane extends Question {
    private static final int NOTE = 60;
    private static final int VELOCITY = 90;

    private final Desk desk;
    private final Deque<SilenceTest.Question> left = new ArrayDeque<>();
    private final List<SilenceTest.Question> sounded = new ArrayList<>();
    private SilenceTest.Question asked;
    private String hushed;
    private int all;

    SilencePane(Desk desk) {
        super("silence-test-pane");
        this.desk = desk;
    }

    /** Asks from the beginning. */
    void begin() {
        close();
        left.addAll(SilenceTest.questions(desk.session(), desk.performance()));
        all = left.size();
        Cards.show(this, true);
        if (all == 0) {
            show("There is nothing to ask: no module with a free channel, and no source with keys.", done());
        } else {
            next();
        }
    }

    /** Leaves the test; what it kept quiet is heard again. */
    @Override
    public void close() {
        endQuestion();
        left.clear();
        sounded.clear();
        getChildren().clear();
        super.close();
    }

    private Button done() {
        return Cards.button("silence-done", "Done", this::close);
    }

    private void show(String text, Node... buttons) {
        Label label = new Label(text);
        label.setId("silence-question");
        label.setWrapText(true);
        FlowPane line = new FlowPane(8, 6, buttons);
        getChildren().setAll(label, line);
        buttons[0].requestFocus();
    }

    private void endQuestion() {
        if (asked instanceof SilenceTest.FreeChannel) {
            desk.studio().endTest();
        }
        if (hushed != null) {
            String source = hushed;
            hushed = null;
            desk.document().perform(performance -> performance.withHeard(source, true));
        }
        asked = null;
    }

    private void next() {
        endQuestion();
        asked = left.poll();
        if (asked == null) {
            showResults();
            return;
        }
        play();
        show(
                (all - left.size()) + " of " + all + ": " + asked.text(),
                Cards.button("silence-no", "No", this::next),
                Cards.button("silence-yes", "Yes, it sounds", () -> {
                    sounded.add(asked);
                    next();
                }),
                Cards.button("silence-again", "Again", this::play),
                Cards.button("silence-stop", "Stop", this::close));
    }

    private void play() {
        if (asked instanceof SilenceTest.FreeChannel free) {
            desk.studio().endTest();
            desk.studio().test(free.instrument(), free.channel(), NOTE, VELOCITY);
        } else if (asked instanceof SilenceTest.OwnSounds own
                && !desk.performance().unheard().contains(own.source().id())) {
            hushed = own.source().id();
            desk.document()
                    .perform(performance -> performance.withHeard(own.source().id(), false));
        }
    }

    private void showResults() {
        if (sounded.isEmpty()) {
            show("Nothing sounds that should not.", done());
            return;
        }
        List<Node> nodes = new ArrayList<>();
        for (SilenceTest.Question question : sounded) {
            Label text = new Label(question.ifYes());
            text.setWrapText(true);
            FlowPane mends = new FlowPane(8, 6);
            for (Mend mend : question.mends()) {
                Button button = Cards.button("silence-mend-" + nodes.size(), mend.words(), () -> {
                    desk.document().edit("silence test", mend.session());
                    mends.setDisable(true);
                });
                mends.getChildren().add(button);
            }
            nodes.add(text);
            nodes.add(mends);
        }
        nodes.add(done());
        Cards.rebuild(this, nodes);
    }
}
