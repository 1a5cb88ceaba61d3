package dibble.desktop.controls;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.presentation.Subscription;
import dibble.presentation.controls.ControlsPresenter;
import dibble.routing.ControlMap;
import dibble.session.SessionFormatter;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The Controls view: a card for each control map that holds now, and the selected one on the right. */
public final class ControlsView extends BorderPane implements View {
    private static final double SIDE = 332;

    private final ViewContext desk;
    private final ControlsPresenter presenter;
    private final Label count = Cards.soft("");
    private final VBox cards = new VBox(10);
    private final Label empty = new Label(say("controls-view.no-control-maps-yet-controllers"));
    private final Label told = Cards.soft("");
    private final ToggleButton learn = new ToggleButton(say("controls-view.learn-a-control"));
    private final NewControlMapPane make;
    private final ControlInspector inspector;
    private final Map<String, ControlCard> shown = new HashMap<>();
    private final ViewUpdater watch;
    private String movedBy;
    private ControlMap.Trigger moved;

    /** Builds the view; it follows nothing before {@link #open}. */
    public ControlsView(ViewContext desk) {
        this.desk = desk;
        presenter = new ControlsPresenter(desk.document());
        watch = desk.watch(this::show)
                .each(this::follow)
                .with(() -> desk.live()
                        .onControl((source, message) ->
                                ControlsPresenter.trigger(message).ifPresent(trigger -> heard(source, trigger))))
                .with(() -> this::leave);
        setId("controls");
        HBox head = new HBox(16, Cards.heading(say("controls-view.control-maps")), count);
        head.getStyleClass().add("card-line");
        inspector = new ControlInspector(desk, presenter);
        make = new NewControlMapPane(desk, presenter, this::select);
        learn.setId("learn-control");
        learn.setMinWidth(USE_PREF_SIZE);
        learn.setTooltip(new Tooltip(say("controls-view.the-next-knob-wheel-pedal")));
        learn.setOnAction(
                event -> told.setText(learn.isSelected() ? say("controls-view.move-the-knob-wheel-pedal") : ""));
        told.setId("controls-told");
        told.setWrapText(true);
        FlowPane buttons = new FlowPane(
                8,
                6,
                learn,
                Cards.button("add-fade", say("controls-view.fade-between-sounds"), make::askFade),
                Cards.button("add-many", say("controls-view.one-control-many-parts"), make::askMany));
        empty.getStyleClass().add("empty");
        empty.setWrapText(true);
        VBox column = new VBox(10, head, empty, cards);
        column.getStyleClass().add("gear-column");
        ScrollPane scroll = Cards.scroll(column);
        VBox foot = new VBox(6, make, buttons, told);
        foot.getStyleClass().add("gear-foot");
        BorderPane left = new BorderPane(scroll);
        left.setBottom(foot);
        ScrollPane side = Cards.side(desk, "controls", inspector, SIDE);
        setCenter(left);
        setRight(side);
        FocusKeys.escape(this, this::leave);
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    private void leave() {
        learn.setSelected(false);
        told.setText("");
        make.close();
    }

    private void select(String id) {
        desk.selection().control().set(id);
    }

    private void heard(String source, ControlMap.Trigger trigger) {
        movedBy = source;
        moved = trigger;
    }

    /** Selects the last moved control once all its messages have been read: an LSB follows its MSB. */
    private void takeMoved() {
        if (moved != null) {
            ControlMap.Trigger trigger = moved;
            moved = null;
            moved(movedBy, trigger);
        }
    }

    private void moved(String source, ControlMap.Trigger trigger) {
        make.moved(source, trigger);
        if (!learn.isSelected()) {
            return;
        }
        learn.setSelected(false);
        try {
            int before = presenter.maps().size();
            select(presenter.add(source, trigger));
            told.setText(
                    presenter.maps().size() > before
                            ? say(
                                    "controls-view.added",
                                    SessionFormatter.source(source, desk.session()),
                                    SessionFormatter.control(
                                            trigger.kind(),
                                            trigger.number(),
                                            desk.session().middleC()))
                            : say("controls-view.it-already-has-a-control"));
        } catch (UserException e) {
            told.setText(e.getMessage());
        }
    }

    private void follow() {
        takeMoved();
        shown.values().forEach(ControlCard::follow);
        inspector.follow();
    }

    private void show() {
        List<ControlMap> maps = presenter.maps();
        List<Node> nodes = new ArrayList<>();
        for (ControlMap map : maps) {
            ControlCard card = shown.computeIfAbsent(map.id(), id -> new ControlCard(desk, presenter, id));
            card.show(map);
            nodes.add(card);
        }
        shown.keySet().retainAll(maps.stream().map(ControlMap::id).toList());
        Cards.put(cards, nodes);
        count.setText(presenter.count());
        Cards.show(empty, maps.isEmpty());
        inspector.show();
    }
}
