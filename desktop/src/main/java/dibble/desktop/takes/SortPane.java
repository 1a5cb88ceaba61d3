package dibble.desktop.takes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.NoteField;
import dibble.desktop.ui.Question;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.Choice;
import dibble.presentation.Jobs;
import dibble.presentation.takes.TakesPresenter;
import dibble.presentation.takes.TakesPresenter.SortBy;
import dibble.presentation.takes.TakesPresenter.Wish;
import dibble.recording.Sorting;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;

/** Sorts the content of a track into tracks, after a preview of these with their numbers of notes. */
final class SortPane extends Question {
    private static final List<Choice<SortBy>> WAYS = List.of(
            new Choice<>(SortBy.CHANNEL, say("part-forms.channel")),
            new Choice<>(SortBy.KEY, say("sort-pane.key")),
            new Choice<>(SortBy.CHANNEL_AND_KEY, say("sort-pane.channel-and-key")),
            new Choice<>(SortBy.RANGE, say("sort-pane.key-range")),
            new Choice<>(SortBy.HAND, say("sort-pane.hand")),
            new Choice<>(SortBy.ZONE, say("sort-pane.zone")),
            new Choice<>(SortBy.SOURCE, say("control-inspector.source")));
    private static final int MAX_SHOWN = 24;

    private final ViewContext desk;
    private final TakesPresenter presenter;
    private final Label title = Cards.strong("");
    private final ComboBox<Choice<SortBy>> by = Cards.box("sort-by", say("sort-pane.what-to-sort-by"));
    private final NoteField at = new NoteField(say("sort-pane.lowest-key-of-the-upper"));
    private final Label from = new Label(say("sort-pane.from"));
    private final ToggleButton drums = new ToggleButton(say("sort-pane.drum-names"));
    private final FlowPane preview = new FlowPane(14, 3);
    private final Label warning = new Label();
    private final Button sort;
    private Track track;
    private boolean choosing;

    /** The input of the sorting; equal input is not sorted again. */
    private record Sorted(Track track, Wish wish, Routing routing) {}

    private Sorted shown;

    /** The result; null while it is being computed. */
    private Sorting sorting;

    private Jobs.Job job;

    SortPane(ViewContext desk, TakesPresenter presenter) {
        super("sort-into-tracks");
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("takes-question");
        by.getItems().setAll(WAYS);
        by.getSelectionModel().selectFirst();
        by.setOnAction(event -> show());
        at.setId("sort-at");
        at.setPrefColumnCount(6);
        at.setOnNote(note -> show());
        drums.setId("sort-drums");
        drums.setAccessibleText(say("sort-pane.name-keys-as-drums"));
        drums.setOnAction(event -> show());
        warning.getStyleClass().add("missing");
        warning.setWrapText(true);
        preview.setId("sort-preview");
        sort = Cards.button("sort-do", say("sort-pane.sort"), this::sort);
        HBox line = new HBox(8, title, new Label(say("sort-pane.by")), by, from, at, drums);
        line.getStyleClass().add("card-line");
        Button leave = Cards.button("sort-leave", say("sort-pane.cancel"), this::close);
        getChildren().addAll(line, preview, warning, new FlowPane(6, 6, sort, leave));
    }

    void ask(Track sorted) {
        close();
        track = sorted;
        shown = null;
        drums.setSelected(TakesPresenter.isDrums(desk.session(), track));
        at.setNote(60, desk.session().middleC());
        title.setText(say("sort-pane.sort-2", track.name()));
        open(by);
        Session session = desk.session();
        choosing = true;
        sort.setDisable(true);
        preview.getChildren().setAll(Cards.soft(say("sort-pane.reading-the-track")));
        job = desk.jobs()
                .start(
                        say("sort-pane.reading", track.name()),
                        progress -> TakesPresenter.likeliest(session, sorted),
                        likeliest -> {
                            Form.choose(by, WAYS, SortBy.of(likeliest));
                            choosing = false;
                            show();
                        })
                .onCancel(this::close);
    }

    /** The track may have changed under it. */
    void show() {
        if (!isOpen() || choosing) {
            return;
        }
        track = desk.session().track(track.id()).orElse(null);
        if (track == null || by.getValue() == null) {
            close();
            return;
        }
        SortBy what = by.getValue().value();
        Cards.show(at, what == SortBy.RANGE);
        Cards.show(from, what == SortBy.RANGE);
        Cards.show(drums, what == SortBy.KEY || what == SortBy.CHANNEL_AND_KEY);
        Sorted next = new Sorted(track, new Wish(what, at.note(), drums.isSelected()), desk.routing());
        if (!isSame(next)) {
            shown = next;
            look();
        }
    }

    private boolean isSame(Sorted next) {
        return shown != null
                && shown.track.sounding() == next.track.sounding()
                && shown.wish.equals(next.wish)
                && shown.routing.equals(next.routing);
    }

    private void look() {
        Session session = desk.session();
        Performance performance = desk.performance();
        Sorted now = shown;
        if (job != null) {
            job.drop();
        }
        sorting = null;
        sort.setDisable(true);
        job = desk.jobs()
                .start(
                        say("sort-pane.sorting", track.name()),
                        progress -> TakesPresenter.sorting(session, performance, now.track, now.wish),
                        done -> {
                            sorting = done;
                            showPreview();
                        })
                .onCancel(this::close);
    }

    private void showPreview() {
        List<Node> lines = new ArrayList<>();
        sorting.piles().stream().limit(MAX_SHOWN).forEach(pile -> {
            HBox line = new HBox(6, Cards.strong(pile.name()), Cards.soft(say("sort-pane.notes", pile.notes())));
            line.getStyleClass().add("sort-pile");
            lines.add(line);
        });
        int piles = sorting.piles().size();
        if (piles > MAX_SHOWN) {
            lines.add(Cards.soft(say("sort-pane.and-more", piles - MAX_SHOWN)));
        }
        if (lines.isEmpty()) {
            lines.add(Cards.soft(say("sort-pane.there-is-nothing-on-this")));
        }
        preview.getChildren().setAll(lines);
        warning.setText(sorting.warning());
        Cards.show(warning, !sorting.warning().isEmpty());
        sort.setText(say("sort-pane.sort-into-tracks", piles));
        sort.setDisable(piles < 2);
    }

    private void sort() {
        presenter.sort(track, sorting);
        close();
    }

    @Override
    public void close() {
        super.close();
        if (job != null && sorting == null) {
            job.drop();
        }
        job = null;
        sorting = null;
        choosing = false;
    }
}
