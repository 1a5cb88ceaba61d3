package dibble.desktop.takes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.AccessibleText;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.LevelBar;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Part;
import dibble.gear.Strip;
import dibble.presentation.Navigator;
import dibble.presentation.TimeScale;
import dibble.presentation.takes.TakesPresenter;
import dibble.recording.NoteSpans;
import dibble.recording.Track;
import dibble.session.SessionFormatter;
import dibble.sound.Meters;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.AccessibleAttribute;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;

/** A printed track: its input, its switches, its notes. */
final class TrackRow extends HBox {
    static final double HEAD = 340;
    static final double MIN_HEIGHT = 46;
    static final double MAX_HEIGHT = 64;

    private final ViewContext desk;
    private final TakesPresenter presenter;
    private final Opens opens;
    private final PartBadge chip = new PartBadge();
    private final Label name = new Label();
    private final Label player = new Label();
    private final ToggleButton arm = new ToggleButton();
    private final ToggleButton mute = new ToggleButton(say("track-row.mute"));
    private final ToggleButton solo = new ToggleButton(say("track-row.solo"));
    private final MenuButton more = new MenuButton("…");
    private final LevelBar bar = LevelBar.small("");
    private final NoteLane lane = new NoteLane(9);
    private final Label note = new Label();
    private Track track;
    private int drawn;

    /** The panes that open from a row. */
    interface Opens {
        /** Sorts a track into tracks. */
        void sort(Track track);

        /** Opens the notes of a track, alone or beside those of others. */
        void notes(Track track, boolean beside);
    }

    TrackRow(ViewContext desk, TakesPresenter presenter, Opens opens) {
        this.desk = desk;
        this.presenter = presenter;
        this.opens = opens;
        setFocusTraversable(true);
        FocusKeys.open(this, event -> openNotes(event.isShortcutDown()));
        addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            if (event.getClickCount() == 2 && event.getButton() == MouseButton.PRIMARY) {
                openNotes(event.isShortcutDown());
            }
        });
        getStyleClass().add("track-row");
        setMinHeight(MIN_HEIGHT);
        name.getStyleClass().add("track-name");
        player.getStyleClass().add("soft");
        name.setMinWidth(0);
        player.setMinWidth(0);
        VBox names = new VBox(name, player);
        names.setMinWidth(0);
        names.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(names, Priority.ALWAYS);
        arm.getStyleClass().add("arm");
        mute.getStyleClass().add("small");
        solo.getStyleClass().add("small");
        mute.setMinWidth(USE_PREF_SIZE);
        solo.setMinWidth(USE_PREF_SIZE);
        arm.setMinWidth(USE_PREF_SIZE);
        arm.setOnAction(event -> presenter.setArmed(track, arm.isSelected()));
        mute.setOnAction(event -> presenter.setMuted(track, mute.isSelected()));
        solo.setOnAction(event -> presenter.setSoloed(track, solo.isSelected()));
        more.getStyleClass().addAll("small", "track-more");
        more.setMinWidth(USE_PREF_SIZE);
        more.getItems().setAll(items());
        ContextItems.on(this, this::items);
        bar.on(desk, () -> {
            Track dragged = track;
            return to -> presenter.levelEdit(dragged, to);
        });
        HBox switches = new HBox(6, arm, mute, solo, more);
        switches.setAlignment(Pos.CENTER_RIGHT);
        VBox right = new VBox(switches, bar);
        right.setAlignment(Pos.CENTER_RIGHT);
        right.setMinWidth(USE_PREF_SIZE);
        HBox head = new HBox(6, chip, names, right);
        head.getStyleClass().add("track-head");
        head.setMinWidth(HEAD);
        head.setMaxWidth(HEAD);
        note.getStyleClass().add("soft");
        note.setMouseTransparent(true);
        note.setPadding(new Insets(0, 0, 0, 12));
        StackPane field = new StackPane(lane, note);
        StackPane.setAlignment(note, Pos.CENTER_LEFT);
        HBox.setHgrow(field, Priority.ALWAYS);
        getChildren().addAll(head, field);
        HoverHighlight.on(desk, this, Navigator.Kind.TRACK, () -> track.id());
        AccessibleText.item(this, say("role.track"));
    }

    private void openNotes(boolean beside) {
        if (presenter.isThere(track)) {
            opens.notes(track, beside);
        }
    }

    private List<MenuItem> items() {
        return List.of(
                item("notes", say("track-row.notes"), () -> openNotes(false)),
                item("notes-beside", say("track-row.notes-beside"), () -> openNotes(true)),
                item("rename", say("track-row.rename"), this::rename),
                item("sort", say("track-row.sort-into-tracks"), () -> opens.sort(track)),
                item("up", say("common.up"), () -> presenter.moveTrack(track, -1)),
                item("down", say("common.down"), () -> presenter.moveTrack(track, 1)),
                item("delete", say("common.delete"), () -> presenter.deleteTrack(track)));
    }

    private MenuItem item(String id, String words, Runnable action) {
        return Cards.item("track-" + id, words, action);
    }

    private void rename() {
        desk.ask()
                .askText(
                        say("track-row.name-of-the-track"),
                        track.name(),
                        say("track-row.rename-2"),
                        List.of(),
                        (text, done) -> {
                            presenter.renameTrack(track, text);
                            done.run();
                        });
    }

    /** Shows a track, in place. */
    void show(Track shown) {
        track = shown;
        setId("track-" + track.id());
        nameForScreenReaders();
        Part part = track.playsOn().flatMap(desk.session()::part).orElse(null);
        chip.show(
                part == null ? 0 : part.colour(),
                track.playsOn()
                        .map(ref -> SessionFormatter.channel(ref, desk.routing()))
                        .orElse("·"));
        name.setText(track.name());
        player.setText(
                SessionFormatter.playedBy(track, desk.session(), desk.routing().zones()));
        player.setTooltip(new Tooltip(player.getText()));
        boolean armed = presenter.isArmed(track);
        arm.setSelected(armed);
        arm.setText(armed ? "●" : "○");
        arm.setVisible(!track.takesRest() && !(track.input() instanceof Track.Nothing));
        arm.setTooltip(
                new Tooltip(armed ? say("track-row.armed-recordings-go-onto-this") : say("track-row.not-armed")));
        arm.setId("arm-" + track.id());
        arm.setAccessibleText(say("track-row.arm", track.name()));
        more.setVisible(presenter.isThere(track));
        more.setId("more-" + track.id());
        more.setAccessibleText(say("track-row.more-for-track", track.name()));
        mute.setSelected(presenter.performance().muted().contains(track.id()));
        mute.setAccessibleText(say("track-row.mute-2", track.name()));
        solo.setSelected(presenter.performance().soloed().contains(track.id()));
        solo.setAccessibleText(say("track-row.solo-2", track.name()));
        Optional<Strip> strip = presenter.strip(track);
        bar.setVisible(strip.isPresent());
        bar.setId("track-level-" + track.id());
        bar.setAccessibleText(say("levels-view.level-of", track.name()));
        bar.setStyle(PartColours.css(part == null ? 0 : part.colour()));
        bar.setEnd(presenter.most(track));
        strip.ifPresent(it -> bar.show(Math.max(LevelBar.LOW, it.levelNow())));
    }

    /** Shows how loud it is now. */
    void followLevel() {
        if (bar.isVisible()) {
            Meters.Reading reading = presenter.reading(track, desk.meters());
            bar.meter(reading.peak(), reading.loudness());
            if (reading.isThere() && !bar.isPressed()) {
                bar.show(Math.max(LevelBar.LOW, reading.level()));
            }
        }
    }

    Track track() {
        return track;
    }

    NoteLane lane() {
        return lane;
    }

    /**
     * Draws the notes.
     *
     * @param printed the notes of the track; empty while they are being computed
     * @param live the notes of the recording in progress, or null if it does not print onto this track
     * @param begins the start of the recording, in nanoseconds
     * @param now the end of the recording or the take, in nanoseconds
     * @param length the length of earlier recordings
     */
    void draw(Optional<NoteSpans> printed, NoteSpans live, long begins, TimeScale scale, long now, long length) {
        // The previous content stays visible until it is replaced by played events.
        boolean fills = live != null && live.size() > 0;
        List<NoteLane.Notes> notes = new ArrayList<>();
        printed.ifPresent(spans -> notes.add(fills ? staying(spans, begins, now) : NoteLane.Notes.all(spans)));
        if (fills) {
            notes.add(NoteLane.Notes.all(live));
        }
        int count = fills ? live.size() : printed.map(NoteSpans::size).orElse(0);
        boolean nothingBefore = printed.map(NoteSpans::size).orElse(0) == 0;
        Part part = track.playsOn().flatMap(desk.session()::part).orElse(null);
        Color colour = part == null ? desk.theme().palette().get("soft") : PartColours.of(part.colour());
        // At night a dark part's notes would sink into the dark: they are lit a little.
        Color ink = desk.theme().palette().isDark() ? colour.interpolate(Color.WHITE, 0.35) : colour;
        lane.show(new NoteLane.Picture(
                notes,
                fills && nothingBefore ? begins : 0,
                scale,
                fills ? now : Math.max(now, length),
                ink,
                count > 0 ? colour.deriveColor(0, 1, 1, 0.22) : null,
                desk.theme().palette().get("rule")));
        note.setText(count > 0 ? "" : silence(live != null));
        drawn = count;
        nameForScreenReaders();
    }

    private void nameForScreenReaders() {
        setAccessibleText(say("track-row.track-notes", track.name(), drawn));
    }

    private String silence(boolean recording) {
        boolean takesNothing = track.input() instanceof Track.Nothing;
        if (presenter.isArmed(track) || takesNothing) {
            return recording && !takesNothing ? say("track-row.nothing-yet") : "";
        }
        return say("track-row.not-armed-its-notes-go");
    }

    /** The printed notes that a recording leaves. */
    private NoteLane.Notes staying(NoteSpans printed, long begins, long now) {
        long from = switch (desk.studio().options().printing()) {
            case REPLACE_ALL -> Long.MAX_VALUE;
            case REPLACE_RANGE -> now;
            case OVERDUB -> 0;
        };
        return new NoteLane.Notes(printed, printed.size(), begins, from);
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        Object answer = AccessibleText.answer(this, attribute);
        return answer == null ? super.queryAccessibleAttribute(attribute, parameters) : answer;
    }
}
