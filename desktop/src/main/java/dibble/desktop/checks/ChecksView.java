package dibble.desktop.checks;

import static dibble.presentation.UiText.say;

import dibble.checks.Checks;
import dibble.checks.Finding;
import dibble.checks.Level;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.presentation.Navigator;
import dibble.presentation.Subscription;
import dibble.presentation.Words;
import dibble.session.AcceptedFinding;
import dibble.studio.Loop;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The Checks view: each finding with its effect, its place, and its fix. */
public final class ChecksView extends BorderPane implements View {
    private static final double LEVEL_WIDTH = 92;

    /** The names of the levels. */
    private static final Map<Level, String> LEVELS = Map.of(
            Level.ERROR,
            say("checks-view.error"),
            Level.WARNING,
            say("checks-view.warning"),
            Level.NOTE,
            say("checks-view.note"));

    private final ViewContext desk;
    private final VBox column = new VBox(8);
    private final ViewUpdater watch;

    /** Builds the view; it follows nothing before {@link #open}. */
    public ChecksView(ViewContext desk) {
        this.desk = desk;
        watch = desk.watch(this::show);
        setId("checks");
        setCenter(Cards.scroll(column));
        column.getStyleClass().add("checks-column");
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    private void show() {
        List<Finding> findings = desk.findings().now();
        List<Node> nodes = new ArrayList<>();
        nodes.add(head(findings));
        for (int i = 0; i < findings.size(); i++) {
            nodes.add(card(findings.get(i), i));
        }
        List<AcceptedFinding> settled = desk.session().settled();
        if (!settled.isEmpty()) {
            nodes.add(Cards.heading(say("checks-view.marked-as-intended")));
            for (int i = 0; i < settled.size(); i++) {
                nodes.add(settled(settled.get(i), i));
            }
        }
        // A hand that goes down the list with the keyboard stays in its place.
        Cards.rebuild(column, nodes);
    }

    private Node head(List<Finding> findings) {
        long notes = findings.stream()
                .filter(finding -> finding.level() == Level.NOTE)
                .count();
        Label about = Cards.soft(
                findings.isEmpty()
                        ? say("checks-view.no-warnings-the-session-is")
                        : say(
                                "checks-view.warnings-notes-the-session-is",
                                desk.findings().count(),
                                (int) notes));
        about.setId("checks-count");
        HBox head = new HBox(16, Cards.heading(say("checks-view.warnings-and-suggested-fixes")), about);
        head.getStyleClass().add("card-line");
        return head;
    }

    private Node card(Finding finding, int number) {
        Label level = Cards.strong(LEVELS.get(finding.level()));
        level.setMinWidth(LEVEL_WIDTH);
        level.getStyleClass()
                .add(
                        finding.level() == Level.ERROR
                                ? "goes-wrong"
                                : finding.level() == Level.NOTE ? "soft" : "missing");
        Label text = Cards.strong(finding.text());
        text.setWrapText(true);
        text.setId("finding-" + number);
        Label about = Cards.soft(Checks.about(finding.code()));
        about.setWrapText(true);
        FlowPane doing = new FlowPane(6, 4);
        doing.getStyleClass().add("card-line");
        finding.mend()
                .ifPresent(mend -> doing.getChildren()
                        .add(Cards.button(
                                "mend-" + number,
                                mend.words(),
                                () -> desk.findings().mend(finding))));
        loopOf(finding)
                .ifPresent(loop -> doing.getChildren()
                        .add(Cards.button(
                                "loop-" + number,
                                say("common.send-there-again"),
                                () -> desk.studio().allowLoop(loop.output()))));
        Button intended = Cards.button(
                "intended-" + number,
                say("checks-view.this-is-intended"),
                () -> desk.findings().settle(finding));
        intended.setTooltip(new Tooltip(say("checks-view.dont-show-this-warning-again")));
        doing.getChildren().add(intended);
        doing.getChildren().addAll(places(finding, number));
        VBox words = new VBox(4, text, about, doing);
        HBox.setHgrow(words, Priority.ALWAYS);
        words.setMinWidth(0);
        HBox card = new HBox(8, level, words);
        card.getStyleClass().addAll("gear-card", "check-card");
        card.setMaxWidth(980);
        return card;
    }

    private List<Node> places(Finding finding, int number) {
        List<Node> links = new ArrayList<>();
        for (String id : finding.ids()) {
            Navigator.find(desk.session(), id).ifPresent(thing -> {
                Button link = Cards.button(
                        "place-" + number + "-" + links.size(),
                        Words.thing(thing, desk.session()),
                        () -> desk.places().show(thing));
                link.getStyleClass().add("link");
                link.setTooltip(new Tooltip(say("common.show-it")));
                link.setAccessibleText(say("common.show", link.getText()));
                links.add(link);
            });
        }
        if (!links.isEmpty()) {
            links.add(0, Cards.soft(say("checks-view.see")));
        }
        return links;
    }

    /** The loop that was cut, where this finding is about one that was seen. */
    private Optional<Loop> loopOf(Finding finding) {
        if (finding.ids().size() < 2) {
            return Optional.empty();
        }
        return desk.session()
                .instrument(finding.ids().get(1))
                .flatMap(instrument -> desk.studio().loops().stream()
                        .filter(loop ->
                                finding.code().equals("loop") && loop.output().equals(instrument.port()))
                        .findFirst());
    }

    private Node settled(AcceptedFinding settled, int number) {
        String things = String.join(
                ", ",
                settled.ids().stream()
                        .map(id -> Navigator.find(desk.session(), id)
                                .map(thing -> Words.thing(thing, desk.session()))
                                .orElse(id))
                        .toList());
        Label what = new Label(settled.code().replace('-', ' ') + ": " + things);
        Button again = Cards.button(
                "again-" + number,
                say("checks-view.show-again"),
                () -> desk.findings().unsettle(settled));
        HBox line = new HBox(12, what, again);
        line.getStyleClass().add("card-line");
        return line;
    }
}
