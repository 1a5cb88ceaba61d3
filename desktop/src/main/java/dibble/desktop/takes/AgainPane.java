package dibble.desktop.takes;

import dibble.desktop.takes.TakesPresenter.Again;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Chip;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Words;
import dibble.edits.TakeEdits;
import dibble.gear.Part;
import dibble.recording.Take;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** Shows what routing a take again would make of the tracks, next to what they have; either can be kept. */
final class AgainPane extends VBox {
    /** Tracks under one another before the next column begins, and the columns that each has. */
    private static final int ROWS = 8;

    private static final int COLUMNS = 4;

    private final Desk desk;
    private final TakesPresenter presenter;
    private final Label title = Cards.strong("");
    private final GridPane grid = new GridPane();
    private final Label warning = new Label();
    private final Button print = Cards.button("route-again-do", "", this::print);
    private Take take;
    private Again how;

    AgainPane(Desk desk, TakesPresenter presenter) {
        super(8);
        this.desk = desk;
        this.presenter = presenter;
        setId("route-again");
        getStyleClass().addAll("planting", "takes-question");
        warning.getStyleClass().add("missing");
        warning.setWrapText(true);
        grid.setHgap(14);
        grid.setVgap(3);
        getChildren()
                .addAll(
                        title,
                        grid,
                        warning,
                        new FlowPane(
                                6,
                                6,
                                print,
                                Cards.button("route-again-leave", "Leave the tracks as they are", this::close)));
        Cards.onEscape(this, this::close);
        close();
    }

    void close() {
        Cards.show(this, false);
    }

    void ask(Take again, Again in) {
        take = again;
        how = in;
        print.setText(how == Again.ROUTED ? "Print it with the zones of now" : "Print it as it was heard");
        Cards.show(this, true);
        show();
        print.requestFocus();
    }

    /** Zones may have changed under it. */
    void show() {
        if (!isVisible()) {
            return;
        }
        if (desk.session().takes().stream().noneMatch(take::equals)) {
            close();
            return;
        }
        List<TakeEdits.Outcome> outcomes = presenter.compare(take, how);
        long differ = outcomes.stream()
                .filter(outcome -> outcome.notesNow() != outcome.notesThen())
                .count();
        title.setText(take.name()
                + (how == Again.ROUTED ? ", routed again: " : ", as it was heard: ")
                + (differ == 0
                        ? "every track has as many notes as now."
                        : Words.count((int) differ, "track") + " would be other than now."));
        List<String> edited = outcomes.stream()
                .filter(TakeEdits.Outcome::edited)
                .map(outcome -> outcome.track().name())
                .toList();
        warning.setText(
                "This replaces what was edited by hand on " + String.join(", ", edited) + ". Undo brings it back.");
        Cards.show(warning, !edited.isEmpty());
        grid.getChildren().clear();
        List<TakeEdits.Outcome> told = outcomes.stream()
                .filter(outcome -> outcome.notesNow() > 0 || outcome.notesThen() > 0)
                .toList();
        for (int i = 0; i < told.size(); i++) {
            int column = i / ROWS * COLUMNS;
            if (i % ROWS == 0) {
                put(column, 0, List.of(new Label(), Cards.soft("track"), Cards.soft("notes now"), Cards.soft("then")));
            }
            put(column, 1 + i % ROWS, row(told.get(i)));
        }
    }

    private void put(int column, int row, List<Node> nodes) {
        for (int i = 0; i < nodes.size(); i++) {
            grid.add(nodes.get(i), column + i, row);
        }
    }

    private List<Node> row(TakeEdits.Outcome outcome) {
        Part part = outcome.track().playsOn().flatMap(desk.session()::part).orElse(null);
        Chip chip = new Chip()
                .show(
                        part == null ? 0 : part.colour(),
                        outcome.track()
                                .playsOn()
                                .map(ref -> Words.channel(ref, desk.routing()))
                                .orElse("·"));
        boolean differs = outcome.notesNow() != outcome.notesThen();
        List<Node> nodes =
                new ArrayList<>(List.of(chip, new Label(outcome.track().name())));
        nodes.add(new HBox(new Label(String.valueOf(outcome.notesNow()))));
        nodes.add(
                differs
                        ? Cards.strong(String.valueOf(outcome.notesThen()))
                        : Cards.soft(String.valueOf(outcome.notesThen())));
        return nodes;
    }

    private void print() {
        presenter.print(take, how);
        close();
    }
}
