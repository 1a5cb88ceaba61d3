package dibble.desktop.scenes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.gear.Source;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.Subscription;
import dibble.presentation.scenes.ScenesPresenter;
import dibble.routing.Scene;
import dibble.routing.SceneSwitch;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** Scenes in their order, what two of them differ in, and the selected one at the right; or the present one, large. */
public final class ScenesView extends BorderPane implements View {
    private static final double SIDE = 332;
    private static final String NOBODY = "nobody";

    private final ViewContext desk;
    private final ScenesPresenter presenter;
    private final Label always = Cards.soft("");
    private final VBox cards = new VBox(8);
    private final Label empty = new Label(say("scenes-view.no-scenes-yet-everything-is"));
    private final ComboBox<Choice<String>> other = new ComboBox<>();
    private final Label against = Cards.heading("");
    private final GridPane differences = new GridPane();
    private final VBox compare;
    private final Form<Session> caller;
    private final SceneInspector inspector;
    private final ToggleButton large = new ToggleButton(say("scenes-view.show-large"));
    private final LargeScene largeScene;
    private final BorderPane left;
    private final ScrollPane side;
    private final Map<String, SceneCard> shown = new HashMap<>();
    private final ViewUpdater watch;

    /** Builds the view; it follows nothing before {@link #open}. */
    public ScenesView(ViewContext desk) {
        this.desk = desk;
        presenter = new ScenesPresenter(desk.document());
        watch = desk.watch(this::show);
        setId("scenes");
        HBox head = new HBox(16, Cards.heading(say("common.scenes")), always);
        head.getStyleClass().add("card-line");
        empty.getStyleClass().add("empty");
        empty.setWrapText(true);
        other.setId("scene-other");
        other.getStyleClass().add("gear-choice");
        other.setAccessibleText(say("scenes-view.scene-to-compare-with"));
        other.setOnAction(event -> showDifferences());
        differences.setHgap(16);
        differences.setVgap(6);
        differences.setId("scene-differences");
        HBox line = new HBox(10, against, other);
        line.getStyleClass().add("card-line");
        compare = new VBox(8, line, differences);
        compare.getStyleClass().add("compare");
        caller = caller();
        VBox column = new VBox(10, head, empty, cards, caller, compare);
        column.getStyleClass().add("gear-column");
        ScrollPane scroll = Cards.scroll(column);
        large.setId("scene-large");
        large.setMinWidth(USE_PREF_SIZE);
        large.setTooltip(new Tooltip(say("scenes-view.the-current-and-the-next")));
        large.setOnAction(event -> showLarge(large.isSelected()));
        FlowPane buttons = new FlowPane(
                8,
                6,
                Cards.button("scene-add", say("scenes-view.add-scene"), () -> select(presenter.add(null))),
                large);
        buttons.getStyleClass().add("gear-foot");
        left = new BorderPane(scroll);
        left.setBottom(buttons);
        inspector = new SceneInspector(desk, presenter, this::select);
        side = Cards.side(desk, "scenes", inspector, SIDE);
        largeScene = new LargeScene(presenter, () -> showLarge(false));
        setCenter(left);
        setRight(side);
        FocusKeys.escape(largeScene, () -> showLarge(false));
    }

    /** Returns the form for the source whose program changes call scenes. */
    private Form<Session> caller() {
        return new Form<Session>(
                        () -> desk.session().middleC(),
                        session -> true,
                        (session, what, change) -> presenter.edit(what, change))
                .by(session -> desk.document().opening())
                .choice(
                        "scene-switch",
                        say("scenes-view.switched-by-program-changes-from"),
                        say("scenes-view.source-whose-program-changes-switch"),
                        ScenesView::players,
                        session -> session.sceneSwitch() == null
                                ? NOBODY
                                : session.sceneSwitch().source(),
                        (session, source) -> session.withSceneSwitch(
                                source.equals(NOBODY) ? null : new SceneSwitch(source, channel(session, source))))
                .choice(
                        "scene-switch-channel",
                        say("scenes-view.on-channel"),
                        say("scenes-view.channel-of-the-program-changes"),
                        session -> Form.CHANNELS,
                        session -> session.sceneSwitch() == null
                                ? 1
                                : session.sceneSwitch().channel(),
                        (session, channel) -> session.withSceneSwitch(
                                new SceneSwitch(session.sceneSwitch().source(), channel)))
                .onlyFor(session -> session.sceneSwitch() != null);
    }

    /** The channel that a source plays on is the likeliest for its program changes. */
    private static int channel(Session session, String source) {
        return session.source(source).map(Source::playsOn).orElse(0) + 1;
    }

    private static List<Choice<String>> players(Session session) {
        return Choices.with(new Choice<>(NOBODY, say("scenes-view.no-source")), Choices.sources(session));
    }

    @Override
    public Subscription open() {
        if (selected().isEmpty()) {
            presenter.active().ifPresent(scene -> select(scene.id()));
        }
        return watch.open();
    }

    /** Shows the present scene and the next so that they can be read from afar, or all of them again. */
    public void showLarge(boolean on) {
        large.setSelected(on);
        setCenter(on ? largeScene : left);
        setRight(on ? null : side);
        if (on) {
            largeScene.requestFocus();
        }
        watch.stale();
    }

    /** Returns true if the present scene is shown large. */
    public boolean isLarge() {
        return getCenter() == largeScene;
    }

    private void select(String id) {
        desk.selection().scene().set(id);
    }

    private Optional<Scene> selected() {
        return desk.session().scene(desk.selection().scene().get());
    }

    private void show() {
        List<Scene> scenes = desk.session().scenes();
        if (isLarge()) {
            largeScene.show();
            return;
        }
        Optional<Scene> active = presenter.active();
        List<Node> nodes = new ArrayList<>();
        for (Scene scene : scenes) {
            SceneCard card = shown.computeIfAbsent(scene.id(), id -> new SceneCard(presenter, id, () -> select(id)));
            card.show(
                    scene,
                    selected().filter(scene::equals).isPresent(),
                    active.filter(scene::equals).isPresent());
            nodes.add(card);
        }
        shown.keySet().retainAll(scenes.stream().map(Scene::id).toList());
        Cards.put(cards, nodes);
        always.setText(presenter.always());
        Cards.show(empty, scenes.isEmpty());
        caller.show(desk.session());
        inspector.show();
        showOthers();
        showDifferences();
    }

    /** The scenes that the selected one can be compared with; the next one first of all. */
    private void showOthers() {
        Optional<Scene> one = selected();
        Cards.show(compare, one.isPresent() && desk.session().scenes().size() > 1);
        if (one.isEmpty()) {
            return;
        }
        List<Choice<String>> choices = desk.session().scenes().stream()
                .filter(scene -> !scene.equals(one.get()))
                .map(scene -> new Choice<>(scene.id(), scene.name()))
                .toList();
        if (!other.getItems().equals(choices)) {
            Choice<String> before = other.getValue();
            other.getItems().setAll(choices);
            int place = desk.session().scenes().indexOf(one.get());
            if (before != null && choices.contains(before)) {
                other.setValue(before);
            } else if (!choices.isEmpty()) {
                other.getSelectionModel().select(Math.min(place, choices.size() - 1));
            }
        }
        against.setText(say("scenes-view.differences-between-and", one.get().name()));
    }

    private void showDifferences() {
        differences.getChildren().clear();
        Optional<Scene> one = selected();
        Optional<Scene> two = Optional.ofNullable(other.getValue())
                .flatMap(choice -> desk.session().scene(choice.value()));
        if (one.isEmpty() || two.isEmpty()) {
            return;
        }
        List<ScenesPresenter.Differs> all = presenter.differences(one.get(), two.get());
        if (all.isEmpty()) {
            differences.addRow(0, Cards.soft(say("scenes-view.none-they-do-the-same")));
            return;
        }
        differences.addRow(
                0,
                new Label(),
                Cards.soft(""),
                Cards.soft(one.get().name()),
                Cards.soft(two.get().name()));
        for (ScenesPresenter.Differs differs : all) {
            Node chip = differs.channel().isEmpty()
                    ? new Label()
                    : new PartBadge().show(differs.colour(), differs.channel());
            Label name = new Label(differs.name());
            name.setWrapText(true);
            Label first = new Label(differs.first());
            Label second = new Label(differs.second());
            first.setWrapText(true);
            second.setWrapText(true);
            differences.addRow(differences.getRowCount(), chip, name, first, second);
        }
    }
}
