package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.NoteField;
import dibble.desktop.ui.NumberScrubber;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Source;
import dibble.midi.EventKind;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.presentation.keys.KeysPresenter;
import dibble.routing.Routing;
import dibble.routing.Zone;
import dibble.session.SessionFormatter;
import dibble.text.UserException;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The details of the selected zone, with all its values in one place. */
final class ZoneInspector extends VBox {
    private final ViewContext desk;
    private final KeysPresenter presenter;
    private final PartBadge chip = new PartBadge();
    private final Label title = new Label();
    private final EntryField name = Cards.field("inspector-name", say("common.name-of-the-zone"), this::commitName);
    private final NoteField low = new NoteField(say("common.lowest-key"));
    private final NoteField high = new NoteField(say("common.highest-key"));
    private final ToggleButton learn = new ToggleButton(say("zone-inspector.learn"));
    private final Label soundsAt = new Label();
    private final Button lineUp = new Button(say("zone-inspector.line-up"));
    private final Label transpose = new Label();
    private final EntryField softest =
            Cards.field("velocity-low", say("zone-inspector.softest-velocity"), this::commitVelocity);
    private final EntryField loudest =
            Cards.field("velocity-high", say("zone-inspector.loudest-velocity"), this::commitVelocity);
    private final Map<EventKind, ToggleButton> passes = new LinkedHashMap<>();
    private final ToggleButton on = new ToggleButton(say("common.on"));
    private final VBox body = new VBox(8);
    private final ZoneForm form;
    private final NoteMapPane noteMap;
    private final ToggleButton alone = new ToggleButton(say("zone-inspector.solo"));
    private final ToggleButton mapped = new ToggleButton(say("common.note-map"));
    private final Button switches = new Button(say("zone-inspector.keyswitches"));
    private final Label several = new Label();
    private final Label empty = new Label();
    private Zone zone;
    private int learned = -1;

    /** @param askSwitches waits for the key that is to play a part's first keyswitch */
    ZoneInspector(ViewContext desk, KeysPresenter presenter, Consumer<Zone> askSwitches) {
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("inspector");
        setId("inspector");
        title.getStyleClass().add("heading");
        title.setWrapText(true);
        empty.getStyleClass().add("soft");
        empty.setWrapText(true);
        low.setPrefColumnCount(5);
        high.setPrefColumnCount(5);
        low.setId("inspector-low");
        high.setId("inspector-high");
        low.setOnNote(note -> setKeys(note, Math.max(note, zone.keys().high())));
        high.setOnNote(note -> setKeys(Math.min(note, zone.keys().low()), note));
        learn.setId("learn-keys");
        learn.getStyleClass().add("small");
        learn.setMinWidth(USE_PREF_SIZE);
        learn.setMaxHeight(Double.MAX_VALUE);
        learn.setAccessibleText(say("zone-inspector.learn-the-lowest-and-the"));
        learn.setTooltip(new Tooltip(say("zone-inspector.press-the-lowest-and-the")));
        learn.setOnAction(event -> learned = -1);
        lineUp.setId("line-up");
        lineUp.getStyleClass().add("small");
        lineUp.setMinWidth(USE_PREF_SIZE);
        lineUp.setTooltip(new Tooltip());
        lineUp.setOnAction(event -> presenter.lineUp(zone).ifPresent(by -> presenter.transpose(zone.id(), by)));
        transpose.setId("transpose");
        transpose.getStyleClass().add("value");
        transpose.setMinWidth(34);
        for (TextField field : new TextField[] {softest, loudest}) {
            field.setPrefColumnCount(3);
            NumberScrubber.number(field, 1, 127);
        }
        FlowPane passing = new FlowPane(4, 4);
        pass(passing, EventKind.CONTROLLERS, say("zone-inspector.cc"));
        pass(passing, EventKind.PITCH_BEND, say("zone-inspector.pitch-bend"));
        pass(passing, EventKind.CHANNEL_PRESSURE, say("zone-inspector.channel-pressure"));
        pass(passing, EventKind.KEY_PRESSURE, say("zone-inspector.poly-pressure"));
        pass(passing, EventKind.PROGRAM_CHANGE, say("zone-inspector.programs"));
        on.setId("zone-on");
        on.setOnAction(event ->
                presenter.change(say("edit.switch-on-or-off"), zone.id(), it -> it.withEnabled(on.isSelected())));
        Button delete = new Button(say("common.delete"));
        delete.setId("zone-delete");
        delete.setOnAction(event -> presenter.delete(zone.id()));
        GridPane grid = new GridPane();
        grid.setHgap(8);
        grid.setVgap(6);
        row(grid, 0, say("common.name"), name);
        row(grid, 1, say("common.keys"), new HBox(6, low, high, learn));
        row(grid, 2, say("common.transpose"), new HBox(4, step(-12), step(-1), transpose, step(1), step(12)));
        HBox sounding = new HBox(8, soundsAt, lineUp);
        sounding.setAlignment(Pos.CENTER_LEFT);
        row(grid, 3, say("zone-inspector.sounds-at"), sounding);
        row(grid, 4, say("zone-inspector.velocity"), new HBox(6, softest, loudest));
        row(grid, 5, say("zone-inspector.passes"), passing);
        form = new ZoneForm(desk, presenter);
        noteMap = new NoteMapPane(desk, presenter);
        alone.setId("zone-alone");
        alone.setTooltip(new Tooltip(say("zone-inspector.hear-only-this-zone-of")));
        alone.setOnAction(event -> desk.studio().hearAlone(alone.isSelected() ? zone.id() : null));
        mapped.setId("zone-note-map");
        mapped.setTooltip(new Tooltip(say("zone-inspector.gives-single-keys-notes-or")));
        mapped.setOnAction(event -> show());
        switches.setId("zone-keyswitches");
        switches.setTooltip(new Tooltip(say("zone-inspector.play-this-parts-keyswitches-from")));
        switches.setOnAction(event -> askSwitches.accept(zone));
        several.getStyleClass().add("soft");
        several.setWrapText(true);
        FlowPane buttons = new FlowPane(6, 6, on, alone, mapped, switches, delete);
        body.getChildren().addAll(new HBox(8, chip, title), several, buttons, noteMap, grid, form);
        getChildren().add(empty);
    }

    private static void row(GridPane grid, int row, String name, Node value) {
        Label label = new Label(name);
        label.getStyleClass().add("soft");
        label.setMinWidth(USE_PREF_SIZE);
        grid.addRow(row, label, value);
    }

    private Button step(int semitones) {
        Button button = new Button((semitones > 0 ? "+" : "−") + Math.abs(semitones));
        button.setId("transpose" + (semitones > 0 ? "-up-" : "-down-") + Math.abs(semitones));
        button.setAccessibleText(say("zone-inspector.transpose-by", semitones));
        button.getStyleClass().add("small");
        button.setMinWidth(USE_PREF_SIZE);
        button.setOnAction(event -> presenter.transpose(zone.id(), zone.transpose() + semitones));
        return button;
    }

    private void pass(FlowPane to, EventKind kind, String label) {
        ToggleButton button = new ToggleButton(label);
        button.getStyleClass().add("pass");
        button.setId("pass-" + kind.word());
        button.setOnAction(event -> presenter.change(say("edit.what-passes"), zone.id(), it -> {
            Set<EventKind> kinds = EnumSet.noneOf(EventKind.class);
            kinds.addAll(it.pass());
            if (button.isSelected()) {
                kinds.add(kind);
            } else {
                kinds.remove(kind);
            }
            return it.withPass(kinds);
        }));
        passes.put(kind, button);
        to.getChildren().add(button);
    }

    /** Shows the selected zone, or says what to do next. */
    void show() {
        Optional<Zone> selected =
                Optional.ofNullable(desk.selection().zone().get()).flatMap(desk.session()::zone);
        if (zone != null && selected.filter(it -> it.id().equals(zone.id())).isEmpty()) {
            EntryField.commitWithin(this);
        }
        // Hidden forms need no styling: they are most of the nodes of the view.
        Cards.put(this, List.of(selected.isPresent() ? body : empty));
        if (selected.isEmpty()) {
            learn.setSelected(false);
            zone = null;
            empty.setText(
                    desk.session().allZones().isEmpty()
                            ? say("zone-inspector.no-zones-yet-drag-a")
                            : say("zone-inspector.click-a-band-to-see"));
            return;
        }
        zone = selected.get();
        MiddleC middleC = desk.session().middleC();
        Routing routing = desk.routing();
        String from = desk.session().source(zone.source()).map(Source::name).orElse(say("common.all-sources-2"));
        chip.show(
                SessionFormatter.colour(zone, desk.session()),
                KeysPresenter.part(zone)
                        .map(part -> SessionFormatter.channel(part, routing))
                        .orElse("·"));
        title.setText(say("zone-inspector.from", SessionFormatter.target(zone.to(), desk.session()), from));
        name.show(SessionFormatter.zone(zone, desk.session()));
        low.setNote(zone.keys().low(), middleC);
        high.setNote(zone.keys().high(), middleC);
        transpose.setText(zone.transpose() == 0 ? "0" : SessionFormatter.transpose(zone.transpose()));
        soundsAt.setText(presenter
                .soundsAt(zone)
                .map(range -> SessionFormatter.keys(range, middleC))
                .orElse(say("zone-inspector.nowhere-outside-0-127")));
        showLineUp(middleC);
        softest.show(String.valueOf(zone.velocity().low()));
        loudest.show(String.valueOf(zone.velocity().high()));
        int count = desk.selection().zones().size();
        several.setText(say("zone-inspector.more-selected-arrow-keys-move", count - 1));
        several.setVisible(count > 1);
        several.setManaged(count > 1);
        alone.setSelected(zone.id().equals(desk.studio().heardAlone()));
        boolean hasSwitches = desk.session()
                .partOf(zone)
                .filter(part -> !part.keyswitches().isEmpty())
                .isPresent();
        switches.setVisible(hasSwitches && !zone.keyswitch());
        switches.setManaged(switches.isVisible());
        noteMap.setVisible(mapped.isSelected());
        noteMap.setManaged(mapped.isSelected());
        if (mapped.isSelected()) {
            noteMap.show(zone);
        }
        form.show(zone);
        passes.forEach((kind, button) -> button.setSelected(zone.pass().contains(kind)));
        on.setSelected(zone.enabled());
        on.setText(zone.enabled() ? say("common.on") : say("common.off-2"));
    }

    private void showLineUp(MiddleC middleC) {
        Optional<Integer> by = presenter.lineUp(zone);
        lineUp.setDisable(by.isEmpty() || by.get() == zone.transpose());
        lineUp.getTooltip()
                .setText(
                        by.isEmpty()
                                ? say("zone-inspector.its-sound-has-no-known")
                                : say(
                                        "zone-inspector.the-first-key-will-play",
                                        NoteNames.nameAndNumber(zone.keys().low(), middleC),
                                        NoteNames.nameAndNumber(
                                                desk.session()
                                                        .partOf(zone)
                                                        .orElseThrow()
                                                        .keys()
                                                        .low(),
                                                middleC),
                                        SessionFormatter.target(zone.to(), desk.session()),
                                        by.get()));
    }

    private void showVelocity() {
        softest.setText(String.valueOf(zone.velocity().low()));
        loudest.setText(String.valueOf(zone.velocity().high()));
    }

    private void setKeys(int from, int to) {
        desk.document().edit(presenter.keysEdit(zone.id(), new Range(from, to)));
    }

    private void commitName() {
        if (zone != null && !name.getText().strip().equals(SessionFormatter.zone(zone, desk.session()))) {
            presenter.rename(zone.id(), name.getText().strip());
        }
    }

    private void commitVelocity() {
        if (zone == null) {
            return;
        }
        try {
            int from = Integer.parseInt(softest.getText().strip());
            int to = Integer.parseInt(loudest.getText().strip());
            Range window = new Range(Math.max(1, from), to);
            if (!window.equals(zone.velocity())) {
                presenter.change(say("edit.velocity"), zone.id(), it -> it.withVelocity(window));
            }
        } catch (NumberFormatException | UserException e) {
            // Not two numbers from 1 to 127 in ascending order: the previous content stays, and is shown again.
            showVelocity();
        }
    }

    /** A key was pressed on a source: the first end, or the second, where they are waited for. */
    void pressed(String source, int key) {
        if (mapped.isSelected() && zone != null) {
            noteMap.pressed(source, key);
        }
        if (!learn.isSelected() || zone == null || !zone.isPlayedBy(source)) {
            return;
        }
        if (learned < 0) {
            learned = key;
        } else {
            int first = learned;
            learned = -1;
            learn.setSelected(false);
            setKeys(Math.min(first, key), Math.max(first, key));
        }
    }
}
