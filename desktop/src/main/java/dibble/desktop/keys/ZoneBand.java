package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.AccessibleText;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.Pointer;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Source;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.presentation.Navigator;
import dibble.presentation.keys.KeysPresenter;
import dibble.presentation.keys.NoteScale;
import dibble.routing.Zone;
import dibble.session.Gesture;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.css.PseudoClass;
import javafx.scene.AccessibleAttribute;
import javafx.scene.Cursor;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;

/**
 * A zone as a band: dragged to move, its ends to resize, double-clicked to rename, deleted by Delete; with the keyboard,
 * arrows move it, Alt and arrows its upper end, Ctrl and arrows its lower end. A drag is one step of undo, Esc takes it
 * back.
 */
final class ZoneBand extends Pane {
    static final double HEIGHT = 26;

    /** The distance of the grips outside the ends of the band; inside, they take at most this much. */
    static final double GRIP = 8;

    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass OUTSIDE = PseudoClass.getPseudoClass("outside");
    private static final PseudoClass OFF = PseudoClass.getPseudoClass("off");
    private static final PseudoClass SCENE = PseudoClass.getPseudoClass("scene");

    private enum Hold {
        BODY,
        LOW,
        HIGH
    }

    private final ViewContext desk;
    private final KeysPresenter presenter;
    private final Region face = new Region();
    private final Region window = new Region();
    private final Region allVelocities = new Region();
    private final Label label = new Label();
    private final Region lowGrip = new Region();
    private final Region highGrip = new Region();
    private final Tooltip tip = new Tooltip();
    /** The whole label, if there is space. */
    private String whole = "";

    private NoteScale scale;
    private Zone zone;
    private Integer chosenKey;
    private Hold hold;
    private double pressedAt;
    private Range pressedKeys;
    private String pressedZone;
    private boolean dragged;

    /** The source that sounds the end that is dragged, and the key; null for none. */
    private Source sounding;

    private int soundingKey;
    private TextField nameField;

    ZoneBand(ViewContext desk, KeysPresenter presenter) {
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("zone-band");
        AccessibleText.item(this, say("role.zone"));
        face.getStyleClass().add("zone-face");
        window.getStyleClass().add("zone-window");
        allVelocities.getStyleClass().add("zone-velocities");
        allVelocities.setMouseTransparent(true);
        label.getStyleClass().add("zone-label");
        label.setMouseTransparent(true);
        window.setMouseTransparent(true);
        lowGrip.getStyleClass().add("zone-grip");
        highGrip.getStyleClass().add("zone-grip");
        lowGrip.setCursor(Cursor.H_RESIZE);
        highGrip.setCursor(Cursor.H_RESIZE);
        setFocusTraversable(true);
        setPrefHeight(HEIGHT);
        getChildren().addAll(face, label);
        desk.pointer().edits(this, new Drag());
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        focusedProperty().subscribe(has -> {
            // Going round among several that are selected together leaves them so.
            if (has
                    && desk.selection().zones().size() < 2
                    && !desk.selection().zones().contains(zone.id())) {
                select();
            }
        });
        Tooltip.install(face, tip);
        HoverHighlight.on(desk, this, Navigator.Kind.ZONE, () -> zone.id());
        ContextItems.on(this, this::context);
    }

    private List<MenuItem> context() {
        if (!desk.selection().zones().contains(zone.id())) {
            select();
        }
        return List.of(
                desk.commands().item(desk.commands().get("cut-zone")),
                desk.commands().item(desk.commands().get("layer-zone")),
                desk.commands().item(desk.commands().get("copy-zone")),
                Cards.item("context-rename", say("context.rename"), this::rename),
                Cards.item(
                        "context-on",
                        zone.enabled() ? say("context.switch-off") : say("context.switch-on"),
                        () -> presenter.change(
                                say("edit.switch-on-or-off"), zone.id(), it -> it.withEnabled(!it.enabled()))),
                Cards.item(
                        "context-delete",
                        say("common.delete"),
                        () -> presenter.deleteAll(
                                List.copyOf(desk.selection().zones().get()))));
    }

    Zone zone() {
        return zone;
    }

    String zoneId() {
        return zone.id();
    }

    /** Shows a zone, in place. */
    void show(Zone shown, NoteScale on, boolean selected) {
        zone = shown;
        scale = on;
        setId("zone-" + zone.id());
        setStyle(PartColours.css(SessionFormatter.colour(zone, desk.session())));
        boolean always = desk.session().sceneOf(zone.id()).isEmpty();
        whole = text(always);
        label.setText(whole);
        tip.setText(whole);
        setAccessibleText(say("zone-band.zone", whole, zone.enabled()));
        pseudoClassStateChanged(SELECTED, selected);
        pseudoClassStateChanged(OFF, !zone.enabled());
        pseudoClassStateChanged(SCENE, !always);
        // Most bands have neither, and two hundred of them are to be shown at once.
        have(!zone.velocity().equals(Range.VELOCITIES), allVelocities, window);
        have(selected, lowGrip, highGrip);
        requestLayout();
    }

    private void have(boolean wanted, Region... parts) {
        if (wanted != getChildren().contains(parts[0])) {
            if (wanted) {
                getChildren().addAll(parts);
            } else {
                getChildren().removeAll(parts);
            }
        }
    }

    private String text(boolean always) {
        if (zone.keyswitch()) {
            return switches();
        }
        String name = SessionFormatter.zone(zone, desk.session());
        String keys = SessionFormatter.keys(zone.keys(), desk.session().middleC());
        List<String> words = new ArrayList<>();
        words.add((name + " " + keys + " " + SessionFormatter.transpose(zone.transpose())).strip());
        if (!always) {
            words.add(say(
                    "common.only",
                    desk.session().sceneOf(zone.id()).orElseThrow().name()));
        }
        if (!zone.enabled()) {
            words.add(say("common.off"));
        }
        return String.join(" · ", words);
    }

    /** Returns the label of a band of keyswitches: the keys, and the last selected one. */
    private String switches() {
        StringBuilder text = new StringBuilder(zone.name().isEmpty() ? say("zone-band.keyswitches") : zone.name());
        desk.session()
                .partOf(zone)
                .ifPresent(part -> zone.noteMap().forEach((key, notes) -> {
                    String name = part.keyswitches().getOrDefault(notes.get(0), "");
                    boolean last = chosenKey != null && chosenKey.equals(key);
                    text.append(" · ")
                            .append(NoteNames.name(key, desk.session().middleC()))
                            .append(' ')
                            .append(last ? "▸" : "")
                            .append(name);
                }));
        return text.toString();
    }

    /** Says which key of a band of keyswitches was pressed last. */
    void choose(int key) {
        if (zone.keyswitch() && zone.noteMap().containsKey(key)) {
            chosenKey = key;
            show(zone, scale, desk.selection().zones().contains(zone.id()));
        }
    }

    @Override
    protected void layoutChildren() {
        double width = bandWidth();
        face.resizeRelocate(GRIP, 0, width, HEIGHT);
        double room = HEIGHT - 8;
        double top = 4 + room * (127 - zone.velocity().high()) / 126;
        double bottom = 4 + room * (127 - zone.velocity().low()) / 126;
        double mark = GRIP + width - 13;
        allVelocities.resizeRelocate(mark, 4, 5, room);
        window.resizeRelocate(mark, top, 5, Math.max(2, bottom - top));
        double labelWidth = Math.max(0, width - (getChildren().contains(window) ? 24 : 12));
        // Where there is no room for all of it, the name alone is whole rather than all of it cut.
        label.setText(whole);
        if (!zone.keyswitch() && label.prefWidth(-1) > labelWidth) {
            label.setText(SessionFormatter.zone(zone, desk.session()));
        }
        // The names of a few keyswitches are wider than their keys, so they are next to them.
        boolean outside = zone.keyswitch() && label.prefWidth(-1) > labelWidth;
        label.pseudoClassStateChanged(OUTSIDE, outside);
        if (outside) {
            label.resizeRelocate(GRIP + width + 10, 0, label.prefWidth(-1), HEIGHT);
        } else {
            // Where the band begins out of sight, its words begin where it is seen.
            double hidden =
                    Math.min(labelWidth, Math.max(0, -scale.x(zone.keys().low())));
            label.resizeRelocate(GRIP + 8 + hidden, 0, labelWidth - hidden, HEIGHT);
        }
        lowGrip.resizeRelocate(GRIP - 5, 3, 9, HEIGHT - 6);
        highGrip.resizeRelocate(GRIP + width - 4, 3, 9, HEIGHT - 6);
        if (nameField != null) {
            nameField.resizeRelocate(GRIP, 0, Math.max(140, width), HEIGHT);
        }
    }

    private double bandWidth() {
        return scale.column() * zone.keys().size();
    }

    @Override
    protected double computePrefWidth(double height) {
        return bandWidth() + 2 * GRIP;
    }

    private void select() {
        selectSource();
        desk.selection().zoneAlone(zone.id());
    }

    private void selectSource() {
        if (!zone.source().equals(Zone.ANY_SOURCE)) {
            desk.selection().source().set(zone.source());
        }
    }

    private final class Drag implements Pointer.Handler {
        @Override
        public boolean press(MouseEvent event) {
            if (nameField != null) {
                return false;
            }
            event.consume();
            if (event.isShortcutDown() || event.isShiftDown()) {
                selectSource();
                desk.selection().zoneAlso(zone.id());
                requestFocus();
                return false;
            }
            requestFocus();
            if (!desk.selection().zones().contains(zone.id())) {
                select();
            }
            desk.selection().zone().set(zone.id());
            if (event.getClickCount() == 2) {
                rename();
                return false;
            }
            hold = holdAt(event.getX());
            pressedAt = event.getSceneX();
            pressedKeys = zone.keys();
            pressedZone = zone.id();
            dragged = false;
            return true;
        }

        @Override
        public void drag(MouseEvent event, Gesture gesture) {
            Range keys = draggedKeys(event);
            if (!keys.equals(zone.keys())) {
                dragged = true;
                sound(hold == Hold.HIGH ? keys.high() : keys.low());
                gesture.preview(presenter.keysEdit(pressedZone, keys).change());
            }
        }

        @Override
        public void release(MouseEvent event, Gesture gesture) {
            boolean moved = dragged;
            Range keys = draggedKeys(event);
            cancel();
            if (moved) {
                gesture.finish(presenter.keysEdit(pressedZone, keys));
            }
        }

        @Override
        public void cancel() {
            hold = null;
            dragged = false;
            silence();
        }
    }

    /** Grips reach outside the band, and inside by a third of it at most, so that a short band can still be moved. */
    private Hold holdAt(double x) {
        double inside = Math.min(GRIP, bandWidth() / 3);
        if (x < GRIP + inside) {
            return Hold.LOW;
        }
        return x > GRIP + bandWidth() - inside ? Hold.HIGH : Hold.BODY;
    }

    private Range draggedKeys(MouseEvent event) {
        int semitones = scale.semitones(event.getSceneX() - pressedAt);
        return hold == Hold.BODY
                ? KeysPresenter.moved(pressedKeys, semitones)
                : KeysPresenter.resized(pressedKeys, hold == Hold.LOW, semitones);
    }

    /** The end that is dragged sounds, so that ears can choose it. */
    private void sound(int key) {
        silence();
        sounding = desk.session().source(zone.source()).orElse(null);
        soundingKey = key;
        if (sounding != null) {
            desk.press(sounding, key, 64);
        }
    }

    private void silence() {
        if (sounding != null) {
            desk.release(sounding, soundingKey);
            sounding = null;
        }
    }

    private void key(KeyEvent event) {
        if (nameField != null) {
            return;
        }
        int step = event.isShiftDown() ? 12 : 1;
        switch (event.getCode()) {
            case DELETE, BACK_SPACE ->
                presenter.deleteAll(List.copyOf(desk.selection().zones().get()));
            case LEFT -> nudge(event, -step);
            case RIGHT -> nudge(event, step);
            case ENTER, F2 -> {
                if (event.isShortcutDown()) {
                    desk.selection().zoneAlso(zone.id());
                } else {
                    rename();
                }
            }
            default -> {
                return;
            }
        }
        event.consume();
    }

    private void nudge(KeyEvent event, int semitones) {
        UnaryOperator<Range> change;
        if (event.isAltDown()) {
            change = keys -> KeysPresenter.resized(keys, false, semitones);
        } else if (event.isShortcutDown()) {
            change = keys -> KeysPresenter.resized(keys, true, semitones);
        } else {
            change = keys -> KeysPresenter.moved(keys, semitones);
        }
        List<String> zones = List.copyOf(desk.selection().zones().get());
        desk.document().edit(KeysPresenter.keysOfAll(zones, change), desk.run(List.of("keys", zones)));
    }

    private void rename() {
        nameField = Cards.field("zone-name", say("common.name-of-the-zone"), () -> endRename(true));
        nameField.setText(SessionFormatter.zone(zone, desk.session()));
        FocusKeys.escape(nameField, () -> endRename(false));
        getChildren().add(nameField);
        toFront();
        nameField.requestFocus();
        nameField.selectAll();
    }

    private void endRename(boolean keep) {
        if (nameField != null) {
            String text = nameField.getText().strip();
            getChildren().remove(nameField);
            nameField = null;
            if (keep && !text.equals(SessionFormatter.zone(zone, desk.session()))) {
                presenter.rename(zone.id(), text);
            }
        }
    }

    /** The note that a drag's end is at, as text; empty where nothing is dragged. */
    String dragText() {
        if (hold == null || !dragged) {
            return "";
        }
        return switch (hold) {
            case LOW ->
                NoteNames.nameAndNumber(zone.keys().low(), desk.session().middleC());
            case HIGH ->
                NoteNames.nameAndNumber(zone.keys().high(), desk.session().middleC());
            case BODY -> SessionFormatter.keys(zone.keys(), desk.session().middleC());
        };
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        Object answer = AccessibleText.answer(this, attribute);
        return answer == null ? super.queryAccessibleAttribute(attribute, parameters) : answer;
    }
}
