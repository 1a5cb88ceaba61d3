package dibble.desktop.controls;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.AccessibleText;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.LiveState;
import dibble.presentation.controls.ControlsPresenter;
import dibble.routing.ControlMap;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.scene.AccessibleAttribute;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** One control map: who moves what, a sentence for each send, and one picture of all its curves. */
final class ControlCard extends HBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final double NAME = 168;
    private static final double WHO = 150;

    private final ViewContext desk;
    private final ControlsPresenter presenter;
    private final Label name = Cards.strong("");
    private final ToggleButton on = new ToggleButton();
    private final Label who = Cards.soft("");
    private final Label what = Cards.strong("");
    private final Label now = Cards.soft("");
    private final VBox sends = new VBox(4);
    private final ControlCurve curve;
    private ControlMap map;

    /** Why it can never be moved; empty where it can. */
    private String deaf = "";

    /** The event count at the last look: {@link LiveState#count}. */
    private long heardAt;

    private List<ControlsPresenter.Said> said = List.of();

    ControlCard(ViewContext desk, ControlsPresenter presenter, String id) {
        super(14);
        this.desk = desk;
        this.presenter = presenter;
        setId("control-" + id);
        AccessibleText.item(this, say("role.control-map"));
        getStyleClass().addAll("gear-card", "control-card");
        setFocusTraversable(true);
        on.setId("control-on-" + id);
        on.getStyleClass().add("switch");
        on.setMinWidth(USE_PREF_SIZE);
        on.setOnAction(
                event -> presenter.change(say("edit.switch-on-or-off"), id, it -> it.withEnabled(on.isSelected())));
        name.setWrapText(true);
        who.setWrapText(true);
        what.setWrapText(true);
        VBox first = new VBox(6, name, on);
        VBox second = new VBox(1, who, what, now);
        first.setMinWidth(NAME);
        first.setMaxWidth(NAME);
        second.setMinWidth(WHO);
        second.setMaxWidth(WHO);
        Label arrow = new Label("→");
        arrow.setMinWidth(USE_PREF_SIZE);
        HBox.setHgrow(sends, Priority.ALWAYS);
        sends.setMinWidth(120);
        curve = new ControlCurve(desk, presenter, 132, 66, false);
        getChildren().addAll(first, second, arrow, sends, curve);
        setOnMouseClicked(event -> select());
        FocusKeys.choose(this, event -> select());
        FocusKeys.delete(this, () -> presenter.delete(id));
        FocusKeys.move(this, by -> presenter.move(id, by));
        ContextItems.on(this, this::context, by -> presenter.move(id, by), () -> presenter.delete(id));
    }

    private List<MenuItem> context() {
        select();
        return List.of(
                Cards.item(
                        "context-on", map.enabled() ? say("context.switch-off") : say("context.switch-on"), on::fire),
                Cards.item(
                        "context-duplicate",
                        say("common.duplicate"),
                        () -> desk.selection().control().set(presenter.duplicate(map.id()))));
    }

    private void select() {
        requestFocus();
        desk.selection().control().set(map.id());
    }

    void show(ControlMap shown) {
        map = shown;
        name.setText(SessionFormatter.controlMap(map, desk.session()));
        on.setSelected(map.enabled());
        on.setText(say("control-card.text", presenter.holdsIn(map), map.enabled()));
        on.setAccessibleText(name.getText() + ", " + on.getText());
        deaf = presenter.deaf(map);
        who.setText(SessionFormatter.source(map.source(), desk.session()));
        what.setText(presenter.when(map));
        List<ControlsPresenter.Said> next =
                map.sends().stream().map(send -> presenter.said(map, send)).toList();
        if (!next.equals(said)) {
            said = next;
            sends.getChildren().setAll(said.stream().map(ControlCard::sentence).toList());
        }
        setAccessibleText(say(
                "control-card.to",
                name.getText(),
                who.getText(),
                what.getText(),
                said.stream().map(it -> it.to() + " " + it.what()).toList()));
        pseudoClassStateChanged(
                SELECTED, map.id().equals(desk.selection().control().get()));
        curve.show(map);
        curve.setOpacity(map.enabled() ? 1 : 0.4);
        now.setText(deaf.isEmpty() ? position() : deaf);
    }

    private static Node sentence(ControlsPresenter.Said said) {
        Label to = Cards.strong(said.to());
        Label what = new Label(said.what());
        List<Node> line = new ArrayList<>();
        if (!said.channel().isEmpty()) {
            line.add(new PartBadge().show(said.colour(), said.channel()));
        }
        line.add(to);
        if (!said.what().isEmpty()) {
            line.add(what);
        }
        to.setMinWidth(Region.USE_PREF_SIZE);
        // In a narrow window the sends have a separate line, so that they are not cut off.
        FlowPane head = Cards.flow(line.toArray(new Node[0]));
        Label values = Cards.soft(said.values());
        what.setWrapText(true);
        values.setWrapText(true);
        return new VBox(0, head, values);
    }

    private String position() {
        for (String source : presenter.players(map)) {
            int value = desk.live().value(source, map.when().kind(), map.when().number(), map.channels());
            if (value != LiveState.UNKNOWN) {
                return say("control-card.now", SessionFormatter.value(map.when().kind(), value));
            }
        }
        return say("control-card.not-moved-yet");
    }

    /** Follows the control. */
    void follow() {
        if (heardAt != desk.live().count()) {
            heardAt = desk.live().count();
            if (deaf.isEmpty()) {
                now.setText(position());
            }
            curve.follow();
        }
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        Object answer = AccessibleText.answer(this, attribute);
        return answer == null ? super.queryAccessibleAttribute(attribute, parameters) : answer;
    }
}
