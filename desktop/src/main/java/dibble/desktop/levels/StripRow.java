package dibble.desktop.levels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.AccessibleText;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.LevelBar;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.SliderDrag;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Loudness;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.presentation.Decibels;
import dibble.presentation.Navigator;
import dibble.presentation.levels.LevelsPresenter;
import dibble.presentation.levels.LevelsPresenter.Row;
import dibble.session.SessionFormatter;
import dibble.sound.Meters;
import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.AccessibleAttribute;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** One strip. */
final class StripRow extends HBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass KEY = PseudoClass.getPseudoClass("key");
    private static final PseudoClass HOT = PseudoClass.getPseudoClass("hot");

    /** The share of a struck key's mark that remains a frame later. */
    private static final double FALL = 0.93;

    private final ViewContext desk;
    private final LevelsPresenter presenter;
    private final PartBadge chip = new PartBadge();
    private final Label name = Cards.strong("");
    private final Tooltip fullName = new Tooltip();
    private final Label group = Cards.soft("");
    private final ToggleButton mute = new ToggleButton(say("track-row.mute"));
    private final ToggleButton solo = new ToggleButton(say("track-row.solo"));
    private final LevelBar bar = new LevelBar(say("levels-view.level"));
    private final EntryField level;
    private final PanLine pan = new PanLine(say("levels-view.pan"));
    private final SendBar room = new SendBar(say("levels-view.room"), 0);
    private final SendBar chorus = new SendBar(say("levels-view.chorus"), 0);
    private final MenuButton output = new MenuButton();
    private final Tooltip where = new Tooltip();
    private final Label own = Cards.soft(say("levels-view.its-own"));
    private final Label peak = new Label();
    private Row row;

    /** The displayed state; nothing is done while it is the same. */
    private List<Object> shown = List.of();

    private double struck;
    private double shownPeak = Double.NaN;

    StripRow(ViewContext desk, LevelsPresenter presenter, Runnable changed) {
        super(Columns.GAP);
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("strip-row");
        setAlignment(Pos.CENTER_LEFT);
        setFocusTraversable(true);
        AccessibleText.item(this, say("role.strip"));
        chip.setMinWidth(26);
        name.setTooltip(fullName);
        VBox names = new VBox(name, group);
        names.setAlignment(Pos.CENTER_LEFT);
        names.setMinWidth(0);
        HBox.setHgrow(names, Priority.ALWAYS);
        HBox head = new HBox(8, chip, names);
        head.setAlignment(Pos.CENTER_LEFT);
        Columns.fix(head, Columns.NAME);
        for (ToggleButton button : List.of(mute, solo)) {
            button.getStyleClass().add("small");
            button.setMinWidth(USE_PREF_SIZE);
        }
        mute.setOnAction(event -> presenter.setMuted(row.ref(), mute.isSelected()));
        solo.setOnAction(event -> presenter.setSoloed(row.ref(), solo.isSelected()));
        HBox switches = new HBox(6, mute, solo);
        switches.setAlignment(Pos.CENTER_LEFT);
        Columns.fix(switches, Columns.SWITCHES);
        HBox.setHgrow(bar, Priority.ALWAYS);
        bar.on(desk, () -> {
            StripRef dragged = row.ref();
            return to -> presenter.levelEdit(dragged, to);
        });
        level = Cards.field("", say("levels-view.level"), this::commitLevel);
        level.getStyleClass().add("level-field");
        Columns.fix(level, Columns.LEVEL);
        slide(pan, say("edit.pan"), (strip, value) -> strip.withPan(value));
        slide(room, say("edit.room"), (strip, value) -> strip.withReverb(value));
        slide(chorus, say("edit.chorus"), (strip, value) -> strip.withChorus(value));
        Columns.fix(output, Columns.OUTPUT);
        Columns.fix(own, Columns.OUTPUT);
        output.getStyleClass().add("small");
        // Made when it opens: outputs come and go.
        output.setOnShowing(event -> output.getItems().setAll(outputs()));
        output.getItems().setAll(new MenuItem());
        Tooltip.install(pan, where);
        peak.getStyleClass().add("level-peak");
        peak.setAlignment(Pos.CENTER_RIGHT);
        peak.setTooltip(new Tooltip(say("levels-view.peak-about")));
        Cards.onClick(peak, event -> desk.meters().forgetPeaks());
        Columns.fix(peak, Columns.PEAK);
        getChildren().addAll(head, switches, bar, level, pan, room, chorus, output, own, peak);
        addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            if (event.getButton() == MouseButton.PRIMARY) {
                requestFocus();
                presenter.select(row.ref(), event.isShortcutDown() || event.isShiftDown());
                changed.run();
            }
        });
        FocusKeys.choose(this, event -> {
            presenter.select(row.ref(), event.isShortcutDown() || event.isShiftDown());
            changed.run();
        });
        ContextItems.on(this, this::items);
        HoverHighlight.on(
                desk, this, Navigator.Kind.PART, () -> row.ref().part().toString());
    }

    private interface Change {
        Strip apply(Strip strip, int value);
    }

    private void slide(SliderDrag slide, String what, Change change) {
        slide.on(desk, () -> {
            StripRef dragged = row.ref();
            return to -> presenter.stripEdit(what, dragged, strip -> change.apply(strip, (int) Math.round(to)));
        });
    }

    private void commitLevel() {
        double now = row.strip().levelNow();
        double to = Decibels.parse(level.getText()).orElse(now);
        if (!Decibels.words(to).equals(Decibels.words(now))) {
            presenter.setLevel(row.ref(), to);
        }
        level.setText(Decibels.words(Math.min(row.most(), to)));
    }

    private List<MenuItem> outputs() {
        return presenter.outputChoices().stream()
                .map(number -> Cards.item(
                        "output-" + number,
                        presenter.output(number),
                        () -> presenter.change(say("edit.output"), row.ref(), strip -> strip.withOutput(number))))
                .toList();
    }

    private List<MenuItem> items() {
        List<MenuItem> items = new ArrayList<>();
        if (!presenter.drumsToSplit(row.ref().part()).isEmpty() && row.isBuiltIn()) {
            items.add(Cards.item(
                    "strip-split",
                    say(
                            "levels-view.split-drums",
                            presenter.drumsToSplit(row.ref().part()).size()),
                    () -> presenter.splitDrums(row.ref().part())));
        }
        if (row.isBuiltIn()) {
            items.add(Cards.item(
                    "strip-sound",
                    say("levels-view.choose-sound"),
                    () -> desk.places()
                            .show(new Navigator.Thing(
                                    Navigator.Kind.SOUND, row.ref().part().toString()))));
        }
        items.add(Cards.item("strip-zero", say("levels-view.at-zero"), () -> presenter.setLevel(row.ref(), 0)));
        Menu groups = new Menu(say("levels-view.group-menu"));
        groups.setId("strip-groups");
        for (int number = 0; number <= Strip.GROUPS; number++) {
            int to = number;
            groups.getItems()
                    .add(Cards.item(
                            "strip-group-" + number,
                            number == 0 ? say("levels-view.no-group") : say("levels-view.into-group", number),
                            () -> presenter.setGroup(presenter.meant(row.ref()), to)));
        }
        items.add(groups);
        return items;
    }

    /** Shows a strip, in place. */
    void show(Row next) {
        if (row != null && !row.ref().equals(next.ref())) {
            level.commitPending();
        }
        row = next;
        boolean hasTrack = presenter.track(row.ref()).isPresent();
        String channel = SessionFormatter.channel(row.ref().part(), desk.routing());
        List<Object> now = List.of(
                row,
                hasTrack,
                channel,
                presenter.isMuted(row.ref()),
                presenter.isSoloed(row.ref()),
                presenter.isSelected(row.ref()),
                presenter.output(row.strip().output()));
        if (now.equals(shown)) {
            return;
        }
        shown = now;
        Strip strip = row.strip();
        boolean isKey = row.ref().isKey();
        String id = row.ref().part().instrument() + "-" + row.ref().part().part()
                + (isKey ? "-" + row.ref().key() : "");
        setId("strip-" + id);
        setStyle(PartColours.css(row.part().colour()));
        chip.show(row.part().colour(), channel);
        chip.setVisible(!isKey);
        name.setText(row.name());
        fullName.setText(row.name());
        pseudoClassStateChanged(KEY, isKey);
        List<String> more = new ArrayList<>();
        if (!row.scene().isEmpty()) {
            more.add(say("levels-view.of-scene", row.scene()));
        }
        if (strip.group() != 0) {
            more.add(say("levels-view.group", strip.group()));
        }
        group.setText(String.join(" · ", more));
        Cards.show(group, !more.isEmpty());
        showSwitch(mute, "mute-" + id, presenter.isMuted(row.ref()), hasTrack, say("track-row.mute-2", row.name()));
        showSwitch(solo, "solo-" + id, presenter.isSoloed(row.ref()), hasTrack, say("track-row.solo-2", row.name()));
        bar.setId("level-" + id);
        bar.setAccessibleText(say("levels-view.level-of", row.name()));
        bar.setEnd(row.most());
        level.setId("level-field-" + id);
        level.setAccessibleText(say("levels-view.level-of", row.name()));
        level.show(Decibels.words(strip.levelNow()));
        pan.setId("pan-" + id);
        pan.show(strip.panNow());
        where.setText(PanLine.words(strip.panNow()));
        room.setId("room-" + id);
        room.show(strip.reverb());
        chorus.setId("chorus-" + id);
        chorus.show(strip.chorus());
        room.setVisible(row.isBuiltIn());
        chorus.setVisible(row.isBuiltIn());
        Cards.show(output, row.isBuiltIn());
        Cards.show(own, !row.isBuiltIn());
        output.setId("output-" + id);
        output.setText(presenter.output(strip.output()));
        output.setAccessibleText(say("levels-view.output-of", row.name(), output.getText()));
        pseudoClassStateChanged(SELECTED, presenter.isSelected(row.ref()));
        setAccessibleText(say("levels-view.strip-spoken", row.name(), bar.words()));
        showLevel(strip.levelNow());
    }

    private static void showSwitch(ToggleButton button, String id, boolean on, boolean live, String words) {
        button.setId(id);
        button.setSelected(on);
        button.setDisable(!live);
        if (live == (button.getTooltip() != null)) {
            button.setTooltip(live ? null : new Tooltip(say("levels-view.no-track")));
        }
        button.setAccessibleText(words);
    }

    /** The bar ends where the level is now: a control may have moved it since. */
    private void showLevel(double now) {
        bar.show(Math.max(LevelBar.LOW, now));
        level.show(Decibels.words(now));
    }

    /** Updates the sounding notes. */
    void follow() {
        presenter.channel(row.ref()).ifPresent(channel -> {
            if (row.isBuiltIn()) {
                follow(desk.meters()
                        .strip(row.instrument().port(), channel, row.ref().key()));
            } else {
                int velocity = desk.live().takeStrike(row.instrument().port(), channel);
                struck = Math.max(velocity, struck < 1 ? 0 : struck * FALL);
                double shown = Loudness.ofVolume((int) struck) / 2 + row.strip().levelNow();
                bar.meter(struck < 1 ? Loudness.SILENCE : shown, Loudness.SILENCE);
            }
        });
    }

    /** Returns true if a mark still falls that no message moves. */
    boolean isFalling() {
        return struck >= 1;
    }

    private void follow(Meters.Reading reading) {
        bar.meter(reading.peak(), reading.loudness());
        if (reading.isThere() && !bar.isPressed()) {
            showLevel(reading.level());
        }
        if (reading.highest() != shownPeak) {
            shownPeak = reading.highest();
            peak.setText(shownPeak < Loudness.MIN ? "" : say("levels-view.decibels", Decibels.whole(shownPeak)));
            peak.pseudoClassStateChanged(HOT, shownPeak > 0);
        }
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        Object answer = AccessibleText.answer(this, attribute);
        return answer == null ? super.queryAccessibleAttribute(attribute, parameters) : answer;
    }
}
