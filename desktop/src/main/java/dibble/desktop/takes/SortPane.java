package dibble.desktop.takes;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.NoteField;
import dibble.desktop.ui.Words;
import dibble.recording.Sorting;
import dibble.recording.Track;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** Sorts what is on a track into tracks, after showing which and how many notes each would have. */
final class SortPane extends VBox {
    private static final List<Form.Choice> WAYS = List.of(
            new Form.Choice(Sorting.By.CHANNEL, "channel"),
            new Form.Choice(Sorting.By.KEY, "key"),
            new Form.Choice(Sorting.By.CHANNEL_AND_KEY, "channel and key"),
            new Form.Choice(Sorting.By.RANGE, "key range"),
            new Form.Choice(Sorting.By.HAND, "hand"),
            new Form.Choice(TakesPresenter.BY_ZONE, "zone"),
            new Form.Choice(TakesPresenter.BY_SOURCE, "source"));
    private static final int MOST_SHOWN = 24;

    private final Desk desk;
    private final TakesPresenter presenter;
    private final Label title = Cards.strong("");
    private final ComboBox<Form.Choice> by = new ComboBox<>();
    private final NoteField at = new NoteField("the key where the upper range begins");
    private final Label from = new Label("from");
    private final ToggleButton drums = new ToggleButton("drum names");
    private final FlowPane preview = new FlowPane(14, 3);
    private final Label warning = new Label();
    private final Button sort;
    private Track track;

    SortPane(Desk desk, TakesPresenter presenter) {
        super(8);
        this.desk = desk;
        this.presenter = presenter;
        setId("sort-into-tracks");
        getStyleClass().addAll("planting", "takes-question");
        by.setId("sort-by");
        by.setAccessibleText("what it is sorted by");
        by.getStyleClass().add("gear-choice");
        by.getItems().setAll(WAYS);
        by.getSelectionModel().selectFirst();
        by.setOnAction(event -> show());
        at.setId("sort-at");
        at.setPrefColumnCount(6);
        at.setOnNote(note -> show());
        drums.setId("sort-drums");
        drums.setAccessibleText("name keys as drums");
        drums.setOnAction(event -> show());
        warning.getStyleClass().add("missing");
        warning.setWrapText(true);
        preview.setId("sort-preview");
        sort = Cards.button("sort-do", "Sort", this::sort);
        HBox line = new HBox(8, title, new Label("by"), by, from, at, drums);
        line.getStyleClass().add("card-line");
        getChildren()
                .addAll(
                        line,
                        preview,
                        warning,
                        new FlowPane(6, 6, sort, Cards.button("sort-leave", "Leave it as it is", this::close)));
        Cards.onEscape(this, this::close);
        close();
    }

    void close() {
        Cards.show(this, false);
    }

    void ask(Track sorted) {
        track = sorted;
        drums.setSelected(presenter.isDrums(track));
        WAYS.stream()
                .filter(way -> way.value() == presenter.likeliest(track))
                .findFirst()
                .ifPresent(by::setValue);
        at.setNote(60, desk.session().middleC());
        Cards.show(this, true);
        show();
        by.requestFocus();
    }

    /** The track may have changed under it. */
    void show() {
        if (!isVisible()) {
            return;
        }
        track = desk.session().tracks().stream()
                .filter(other -> other.id().equals(track.id()))
                .findFirst()
                .orElse(null);
        if (track == null || by.getValue() == null) {
            close();
            return;
        }
        Object what = by.getValue().value();
        boolean range = what == Sorting.By.RANGE;
        Cards.show(at, range);
        Cards.show(from, range);
        Cards.show(drums, what == Sorting.By.KEY || what == Sorting.By.CHANNEL_AND_KEY);
        title.setText("Sort “" + track.name() + "”");
        Sorting sorting = presenter.sorting(track, what, at.note(), drums.isSelected());
        List<javafx.scene.Node> lines = new ArrayList<>();
        sorting.piles().stream().limit(MOST_SHOWN).forEach(pile -> {
            HBox line = new HBox(6, Cards.strong(pile.name()), Cards.soft(Words.count(pile.notes(), "note")));
            line.getStyleClass().add("sort-pile");
            lines.add(line);
        });
        int more = sorting.piles().size() - MOST_SHOWN;
        if (more > 0) {
            lines.add(Cards.soft("and " + more + " more"));
        }
        preview.getChildren().setAll(lines);
        warning.setText(sorting.warning());
        Cards.show(warning, !sorting.warning().isEmpty());
        sort.setText("Sort into " + Words.count(sorting.piles().size(), "track"));
        sort.setDisable(sorting.piles().size() < 2);
        if (Objects.equals(preview.getChildren().size(), 0)) {
            preview.getChildren().setAll(Cards.soft("There is nothing on it to sort."));
        }
    }

    private void sort() {
        presenter.sort(track, presenter.sorting(track, by.getValue().value(), at.note(), drums.isSelected()));
        close();
    }
}
