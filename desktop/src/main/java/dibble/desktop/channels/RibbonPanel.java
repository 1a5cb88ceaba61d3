package dibble.desktop.channels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.NoteField;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.ViewContext;
import dibble.midi.Range;
import dibble.presentation.Navigator;
import dibble.presentation.channels.ChannelsPresenter;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.SessionFormatter;
import java.util.Optional;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/** The zone of the selected ribbon, in one line; all the rest of it is in Keys. */
final class RibbonPanel extends HBox {
    private final ViewContext desk;
    private final PartBadge chip = new PartBadge();
    private final Label name = Cards.strong("");
    private final NoteField low = new NoteField(say("common.lowest-key"));
    private final NoteField high = new NoteField(say("common.highest-key"));
    private final ToggleButton on = new ToggleButton();
    private Zone zone;

    RibbonPanel(ViewContext desk, ChannelsPresenter presenter) {
        super(8);
        this.desk = desk;
        setId("way-panel");
        getStyleClass().add("card-line");
        low.setId("way-low");
        high.setId("way-high");
        low.setPrefColumnCount(5);
        high.setPrefColumnCount(5);
        low.setOnNote(note ->
                setKeys(presenter, new Range(note, Math.max(note, zone.keys().high()))));
        high.setOnNote(note ->
                setKeys(presenter, new Range(Math.min(note, zone.keys().low()), note)));
        on.setId("way-on");
        on.setMinWidth(USE_PREF_SIZE);
        on.setOnAction(event ->
                presenter.change(say("edit.switch-on-or-off"), zone.id(), it -> it.withEnabled(on.isSelected())));
        Button keys = Cards.button(
                "way-keys",
                say("way-panel.show-in-keys"),
                () -> desk.places().show(new Navigator.Thing(Navigator.Kind.ZONE, zone.id())));
        name.setMinWidth(60);
        HBox.setHgrow(name, Priority.SOMETIMES);
        getChildren().addAll(chip, name, Cards.soft(say("common.keys-2")), low, high, on, keys);
    }

    private void setKeys(ChannelsPresenter presenter, Range keys) {
        presenter.change(say("edit.keys"), zone.id(), it -> it.withKeys(keys));
    }

    /** Shows the selected zone, where there is one. */
    void show() {
        Optional<Zone> selected =
                Optional.ofNullable(desk.selection().zone().get()).flatMap(desk.session()::zone);
        setVisible(selected.isPresent());
        setManaged(selected.isPresent());
        if (selected.isEmpty()) {
            zone = null;
            return;
        }
        zone = selected.get();
        chip.show(
                SessionFormatter.colour(zone, desk.session()),
                zone.to() instanceof ZoneTarget.ToPart to ? SessionFormatter.channel(to.part(), desk.routing()) : "·");
        name.setText(SessionFormatter.source(zone.source(), desk.session()) + " → "
                + SessionFormatter.target(zone.to(), desk.session()));
        low.setNote(zone.keys().low(), desk.session().middleC());
        high.setNote(zone.keys().high(), desk.session().middleC());
        on.setSelected(zone.enabled());
        on.setText(zone.enabled() ? say("common.on") : say("common.off-2"));
    }
}
