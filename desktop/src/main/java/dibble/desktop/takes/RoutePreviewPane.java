package dibble.desktop.takes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.Question;
import dibble.desktop.ui.ViewContext;
import dibble.edits.TakeEdits;
import dibble.gear.Part;
import dibble.presentation.Jobs;
import dibble.presentation.takes.TakesPresenter;
import dibble.presentation.takes.TakesPresenter.Again;
import dibble.presentation.takes.TakesPresenter.Comparison;
import dibble.recording.Take;
import dibble.routing.Routing;
import dibble.session.Kept;
import dibble.session.SessionFormatter;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;

/** A preview of the tracks after routing a take again, next to the present ones; either can be kept. */
final class RoutePreviewPane extends Question {
    /** Tracks under one another before the next column begins, and the columns that each has. */
    private static final int ROWS = 8;

    private static final int COLUMNS = 4;

    private final ViewContext desk;
    private final TakesPresenter presenter;
    private final Label title = Cards.strong("");
    private final GridPane grid = new GridPane();
    private final Label warning = new Label();
    private final Button print = Cards.button("route-again-do", "", this::print);
    private Take take;
    private Again how;

    /** The comparison; null while it is being computed. */
    private Comparison comparison;

    /** The routing that it was compared with. */
    private Routing routing;

    private Jobs.Job job;

    RoutePreviewPane(ViewContext desk, TakesPresenter presenter) {
        super("route-again");
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("takes-question");
        warning.getStyleClass().add("missing");
        warning.setWrapText(true);
        grid.setHgap(14);
        grid.setVgap(3);
        print.setTooltip(new Tooltip(say("about.print")));
        Button leave = Cards.button("route-again-leave", say("again-pane.cancel"), this::close);
        getChildren().addAll(title, grid, warning, new FlowPane(6, 6, print, leave));
    }

    void ask(Take again, Again in) {
        take = again;
        how = in;
        print.setText(
                how == Again.ROUTED ? say("again-pane.print-with-current-zones") : say("again-pane.restore-as-heard"));
        open(print);
        compare();
    }

    private void compare() {
        Kept kept = desk.document().kept();
        Take compared = take;
        Again in = how;
        routing = desk.routing();
        comparison = null;
        if (job != null) {
            job.drop();
        }
        title.setText(say("again-pane.comparing", heading()));
        Cards.show(warning, false);
        job = desk.jobs()
                .start(
                        say("again-pane.comparing-2", take.name()),
                        progress -> TakesPresenter.compare(kept, compared, in, progress),
                        done -> {
                            comparison = done;
                            showComparison();
                        })
                .onCancel(this::close);
    }

    private String heading() {
        return say("again-pane.routed-again", take.name(), how == Again.ROUTED);
    }

    /** Compares again after a change of zones, takes or tracks. */
    void show() {
        if (!isOpen()) {
            return;
        }
        if (desk.session().takes().stream().noneMatch(it -> it == take)) {
            close();
        } else if (!desk.routing().equals(routing)
                || comparison != null && !comparison.isOf(desk.document().kept().session())) {
            compare();
        }
    }

    private void showComparison() {
        List<TakeEdits.Outcome> outcomes = comparison.outcomes();
        long differ = outcomes.stream().filter(TakeEdits.Outcome::differs).count();
        title.setText(say("again-pane.tracks-would-change", heading(), differ));
        List<String> edited = outcomes.stream()
                .filter(TakeEdits.Outcome::edited)
                .map(outcome -> outcome.track().name())
                .toList();
        warning.setText(say("again-pane.this-replaces-hand-edits-on", String.join(", ", edited)));
        Cards.show(warning, !edited.isEmpty());
        grid.getChildren().clear();
        List<TakeEdits.Outcome> told = outcomes.stream()
                .filter(outcome -> outcome.notesNow() > 0 || outcome.notesThen() > 0)
                .toList();
        for (int i = 0; i < told.size(); i++) {
            int column = i / ROWS * COLUMNS;
            if (i % ROWS == 0) {
                put(
                        column,
                        0,
                        List.of(
                                new Label(),
                                Cards.soft(say("again-pane.track")),
                                Cards.soft(say("again-pane.notes-now")),
                                Cards.soft(say("again-pane.after"))));
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
        String channel = outcome.track()
                .playsOn()
                .map(ref -> SessionFormatter.channel(ref, desk.routing()))
                .orElse("·");
        PartBadge chip = new PartBadge().show(part == null ? 0 : part.colour(), channel);
        String then = String.valueOf(outcome.notesThen());
        boolean sameCount = outcome.notesNow() == outcome.notesThen();
        return List.of(
                chip,
                new Label(outcome.track().name()),
                new HBox(new Label(String.valueOf(outcome.notesNow()))),
                outcome.differs() ? Cards.strong(sameCount ? say("again-pane.others", then) : then) : Cards.soft(then));
    }

    private void print() {
        if (comparison == null) {
            presenter.print(desk.jobs(), take, how);
        } else {
            presenter.print(desk.jobs(), comparison);
        }
        close();
    }

    @Override
    public void close() {
        super.close();
        if (comparison == null && job != null) {
            job.drop();
        }
        job = null;
        comparison = null;
    }
}
