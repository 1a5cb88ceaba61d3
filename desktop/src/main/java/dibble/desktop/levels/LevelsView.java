package dibble.desktop.levels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.NumberSeriesForm;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.gear.StripRef;
import dibble.presentation.Command;
import dibble.presentation.Subscription;
import dibble.presentation.levels.LevelsPresenter;
import dibble.presentation.levels.LevelsPresenter.Group;
import dibble.presentation.levels.LevelsPresenter.Row;
import dibble.sound.Bounce;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** Every sound on its own strip: how loud, where, with how much of the effects, and where it comes out. */
public final class LevelsView extends BorderPane implements View {
    private static final int MAX_OUTPUT = 64;

    /** The number of rows that are built in a frame; the others follow in the next ones. */
    private static final int MAX_AT_ONCE = 8;

    private final ViewContext desk;
    private final LevelsPresenter presenter;
    private final ViewUpdater watch;
    private final VBox rows = new VBox();
    private final NumberSeriesForm planting;
    private final ExportQuestion question;
    private final OutputsBar outputs;
    private final Label empty = new Label(say("levels-view.empty"));
    private final Map<StripRef, StripRow> strips = new HashMap<>();
    private final Map<String, InstrumentHeader> heads = new HashMap<>();
    private final Columns columns = new Columns();

    /** @param export asks where files of sound are to go, and makes them */
    public LevelsView(ViewContext desk, Consumer<Bounce.Wanted> export) {
        this.desk = desk;
        presenter = new LevelsPresenter(desk.document(), desk.jobs());
        watch = desk.watch(this::show)
                .each(this::follow)
                .with(() -> desk.pulse().whileSo(() -> strips.values().stream().anyMatch(StripRow::isFalling)));
        planting = new NumberSeriesForm(presenter::plant);
        question = new ExportQuestion(presenter, export);
        outputs = new OutputsBar(desk, presenter);
        getStyleClass().add("levels-view");
        setId("levels");
        Button plant = Cards.button("plant-outputs", say("levels-view.plant-outputs"), this::plant);
        Button stems = Cards.button("export-sound", say("levels-view.export-sound"), question::ask);
        Button zero = Cards.button("all-at-zero", say("levels-view.all-at-zero"), presenter::allAtZero);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Label about = Cards.soft(say("levels-view.about"));
        about.setMinWidth(0);
        HBox title = new HBox(10, Cards.heading(say("levels-view.title")), about, space, plant, stems, zero);
        title.setAlignment(Pos.CENTER_LEFT);
        title.getStyleClass().add("levels-title");
        for (Button button : List.of(plant, stems, zero)) {
            button.setMinWidth(USE_PREF_SIZE);
        }
        setTop(new VBox(title, planting, question, columns));
        empty.getStyleClass().add("empty");
        empty.setMouseTransparent(true);
        ScrollPane scroll = Cards.scroll(rows);
        // The scroll bar takes space from the rows, so the headings leave the same space.
        scroll.viewportBoundsProperty().subscribe(bounds -> columns.setBar(scroll.getWidth() - bounds.getWidth()));
        setCenter(new StackPane(scroll, empty));
        setBottom(outputs);
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    @Override
    public List<Command> commands() {
        return List.of(
                Command.of("all-at-zero", say("levels-view.all-at-zero"), presenter::allAtZero)
                        .about(say("about.all-at-zero")),
                Command.of("plant-outputs", say("levels-view.plant-outputs"), this::plant)
                        .key("P")
                        .about(say("about.plant-outputs")),
                Command.of("forget-peaks", say("command.forget-peaks"), desk.meters()::forgetPeaks));
    }

    /** Asks how the sound is to be exported. */
    public void askExport() {
        question.ask();
    }

    private void plant() {
        planting.ask(say("plant-pane.outputs-from"), 1, 1, MAX_OUTPUT, presenter::plantOutputs);
    }

    private void show() {
        List<Node> nodes = new ArrayList<>();
        List<StripRef> there = new ArrayList<>();
        List<String> instruments = new ArrayList<>();
        int made = 0;
        for (Group group : presenter.groups()) {
            InstrumentHeader head =
                    heads.computeIfAbsent(group.instrument().id(), id -> new InstrumentHeader(desk, presenter));
            head.show(group.instrument());
            instruments.add(group.instrument().id());
            nodes.add(head);
            for (Row row : group.rows()) {
                StripRow strip = strips.get(row.ref());
                if (strip == null && made == MAX_AT_ONCE) {
                    watch.stale();
                    continue;
                }
                if (strip == null) {
                    made++;
                    strip = new StripRow(desk, presenter, watch::stale);
                    strips.put(row.ref(), strip);
                }
                strip.show(row);
                there.add(row.ref());
                nodes.add(strip);
            }
        }
        strips.keySet().retainAll(there);
        heads.keySet().retainAll(instruments);
        Cards.put(rows, nodes);
        columns.setVisible(!nodes.isEmpty());
        empty.setVisible(nodes.isEmpty());
        outputs.show();
        if (question.isOpen()) {
            question.show();
        }
    }

    private void follow() {
        strips.values().forEach(StripRow::follow);
        outputs.follow();
    }
}
