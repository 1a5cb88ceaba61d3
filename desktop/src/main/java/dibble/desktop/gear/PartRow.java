package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.AccessibleText;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.presentation.Navigator;
import dibble.presentation.gear.GearPresenter;
import dibble.routing.Routing;
import dibble.session.SessionFormatter;
import java.util.List;
import java.util.Objects;
import javafx.beans.value.ObservableBooleanValue;
import javafx.css.PseudoClass;
import javafx.scene.AccessibleAttribute;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** One part of an instrument in its card. */
final class PartRow extends HBox {
    static final double RANGE_WIDTH = 104;
    static final double CHANNEL_WIDTH = 66;
    static final double OUT_WIDTH = 30;
    static final double LEVEL_WIDTH = 40;
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");

    private final GearPresenter presenter;
    private final PartRef ref;
    private final PartBadge chip = new PartBadge();
    private final Label kept = Cards.soft("");
    private final Label name = Cards.strong("");
    private final Label sound = new Label();
    private final Region bar = new Region();
    private final Label volume = new Label();
    private final Label out = new Label();
    private List<Object> shown;

    /**
     * @param wide whether there is space for all columns; the panel on the right has those that a narrow card leaves
     * out
     */
    PartRow(ViewContext desk, GearPresenter presenter, PartRef ref, ObservableBooleanValue wide) {
        super(8);
        this.presenter = presenter;
        this.ref = ref;
        HBox channel = new HBox(6, chip, kept);
        channel.setMinWidth(CHANNEL_WIDTH);
        grow(name, 130);
        grow(sound, 150);
        volume.setMinWidth(LEVEL_WIDTH);
        out.setMinWidth(OUT_WIDTH);
        bar.getStyleClass().add("meter-bar");
        bar.setManaged(false);
        Pane range = new Pane(bar);
        range.getStyleClass().add("meter");
        range.setMinWidth(RANGE_WIDTH);
        range.setMaxWidth(RANGE_WIDTH);
        onlyWhere(wide, range, volume, out);
        getChildren().addAll(channel, name, sound, range, volume, out);
        getStyleClass().add("part-row");
        AccessibleText.item(this, say("role.part"));
        setId("gear-part-" + ref.instrument() + "-" + ref.part());
        setFocusTraversable(true);
        addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            requestFocus();
            select(event.isShortcutDown(), event.isShiftDown());
            event.consume();
        });
        FocusKeys.choose(this, event -> select(event.isShortcutDown(), event.isShiftDown()));
        FocusKeys.delete(this, () -> presenter.deletePart(ref));
        FocusKeys.move(this, by -> presenter.movePart(ref, by));
        HoverHighlight.on(desk, this, Navigator.Kind.PART, ref::toString);
        ContextItems.on(
                this,
                () -> {
                    presenter.select(ref);
                    return List.of(Cards.item(
                            "context-duplicate", say("common.duplicate"), () -> presenter.duplicatePart(ref)));
                },
                by -> presenter.movePart(ref, by),
                () -> presenter.deletePart(ref));
    }

    /** Gives a label the remaining width. */
    static void grow(Label label, double wide) {
        HBox.setHgrow(label, Priority.ALWAYS);
        label.setMaxWidth(Double.MAX_VALUE);
        label.setPrefWidth(wide);
        label.setMinWidth(LEVEL_WIDTH);
    }

    static void onlyWhere(ObservableBooleanValue wide, Node... nodes) {
        for (Node node : nodes) {
            node.managedProperty().bind(wide);
            node.visibleProperty().bind(wide);
        }
    }

    private void select(boolean also, boolean upTo) {
        if (also) {
            presenter.selectAlso(ref);
        } else if (upTo) {
            presenter.selectTo(ref);
        } else {
            presenter.select(ref);
        }
    }

    /** @param program its program in words; empty where none is sent */
    void show(Part part, Routing routing, String program) {
        String channel = SessionFormatter.channel(ref, routing);
        List<Object> next = List.of(part, channel, program);
        if (Objects.equals(next, shown)) {
            return;
        }
        shown = next;
        chip.show(part.colour(), channel);
        kept.setText(part.channel() == null ? say("part-row.auto") : say("part-row.fixed"));
        name.setText(part.name());
        sound.setText(program.isEmpty() ? say("common.not-sent") : program);
        volume.setText(part.volume() == null ? "–" : String.valueOf(part.volume()));
        out.setText(String.valueOf(part.output()));
        double unit = RANGE_WIDTH / 128;
        bar.resizeRelocate(part.keys().low() * unit, 0, Math.max(3, part.keys().size() * unit), 6);
        setStyle(PartColours.css(part.colour()));
        setAccessibleText(say("part-row.part-channel", part.name(), channel));
    }

    void showSelected(boolean selected) {
        pseudoClassStateChanged(SELECTED, selected);
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        Object answer = AccessibleText.answer(this, attribute);
        return answer == null ? super.queryAccessibleAttribute(attribute, parameters) : answer;
    }
}
