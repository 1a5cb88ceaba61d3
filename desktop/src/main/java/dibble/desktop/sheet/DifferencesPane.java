package dibble.desktop.sheet;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.sheet.SheetActions;
import dibble.sheet.Comparison;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/**
 * The differences between the session and another one, object by object; also the changes of a sheet before they are
 * made.
 */
final class DifferencesPane extends BorderPane {
    /** The most rows: more would not be read. */
    private static final int MAX = 200;

    private final ViewContext desk;
    private final Runnable close;
    private final VBox column = new VBox(6);

    /** @param close takes it away */
    DifferencesPane(ViewContext desk, Runnable close) {
        this.desk = desk;
        this.close = close;
        setId("differences");
        column.getStyleClass().add("checks-column");
        setCenter(Cards.scroll(column));
    }

    /** Shows the differences between the open session and another. */
    void compare(SheetActions.Other other) {
        Comparison comparison = Comparison.of(other.session(), other.performance(), desk.session(), desk.performance());
        fill(
                say("differences-pane.compared-with", other.name()),
                comparison,
                say("differences-pane.no-differences"),
                new FlowPane(
                        6, 6, Cards.button("differences-close", say("differences-pane.back-to-the-sheet"), close)));
    }

    /** Shows the changes of a sheet, and applies them on request. */
    void offer(SheetActions.Offer offer) {
        SheetActions.Other changed = offer.changed();
        Comparison comparison = Comparison.of(offer.base(), desk.performance(), changed.session(), desk.performance());
        FlowPane buttons = new FlowPane(6, 6);
        if (!comparison.differences().isEmpty()) {
            buttons.getChildren().add(Cards.button("import-apply", say("differences-pane.apply"), () -> {
                if (desk.document().kept().session() != offer.base()) {
                    desk.ask().tell(say("differences-pane.changed-since", changed.name()));
                    offer.again().run();
                    return;
                }
                desk.document()
                        .edit(
                                say("edit.import-sheet"),
                                session -> session.withZones(changed.session().zones())
                                        .withControls(changed.session().controls())
                                        .withScenes(changed.session().scenes()));
                close.run();
            }));
        }
        buttons.getChildren().add(Cards.button("differences-close", say("common.cancel"), close));
        fill(
                say(
                        "differences-pane.would-change",
                        changed.name(),
                        comparison.differences().size()),
                comparison,
                say("differences-pane.nothing-would-change"),
                buttons);
    }

    private void fill(String title, Comparison comparison, String none, FlowPane buttons) {
        List<Node> nodes = new ArrayList<>();
        nodes.add(Cards.heading(title));
        nodes.add(buttons);
        List<Comparison.Difference> all = comparison.differences();
        if (all.isEmpty()) {
            nodes.add(Cards.soft(none));
        }
        for (Comparison.Difference difference : all.subList(0, Math.min(MAX, all.size()))) {
            nodes.add(card(difference));
        }
        if (all.size() > MAX) {
            nodes.add(Cards.soft(say("differences-pane.and-more", all.size() - MAX)));
        }
        Cards.rebuild(column, nodes);
    }

    private static Node card(Comparison.Difference difference) {
        VBox card = new VBox(2);
        card.getStyleClass().addAll("gear-card", "check-card");
        card.setMaxWidth(980);
        boolean both = difference.first() && difference.second();
        Label name = Cards.strong(both ? difference.thing() : difference.text());
        name.setWrapText(true);
        card.getChildren().add(name);
        for (Comparison.Change change : difference.changes()) {
            Label text = new Label(say(
                    "differences-pane.change",
                    change.what(),
                    change.first().isEmpty() ? say("differences-pane.nothing") : change.first(),
                    change.second().isEmpty() ? say("differences-pane.nothing") : change.second()));
            text.setWrapText(true);
            card.getChildren().add(text);
        }
        return card;
    }
}
