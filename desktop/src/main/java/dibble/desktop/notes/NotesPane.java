package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.LowerPane;
import dibble.desktop.ui.Palette;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.Question;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.notes.Grid;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.presentation.Command;
import dibble.presentation.TimeScale;
import dibble.presentation.notes.Geometry;
import dibble.presentation.notes.KeyRows;
import dibble.presentation.notes.NoteQuestionKind;
import dibble.presentation.notes.NotesCommands;
import dibble.presentation.notes.NotesPresenter;
import dibble.presentation.notes.TrackNotes;
import dibble.recording.Track;
import dibble.session.SessionFormatter;
import dibble.studio.Transport;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.util.Duration;

/** The note editor for one or several tracks, with its commands in a line of words. */
public final class NotesPane extends BorderPane implements LowerPane {
    private static final double VELOCITIES = 84;
    private static final double TOOL = 112;
    private static final int SOUNDS = 90;

    /** The duration of a note that was moved by a key, in milliseconds. */
    private static final double SOUNDS_FOR = 250;

    /** Bars that are seen when a track is opened. */
    private static final int FIRST_BARS = 8;

    private static final int FIRST_NOTES = 40;

    private final ViewContext desk;
    private final NotesPresenter notes;
    private final NotesDrawing board;
    private final double head;
    private final Runnable stale;
    private final HBox names = new HBox(6);
    private final Label count = Cards.soft("");
    private final ComboBox<Choice<Grid.Step>> grid = Cards.box("notes-grid", say("notes-pane.grid"));
    private final ToggleButton snaps = new ToggleButton(say("notes-pane.snap"));
    private final MenuButton view = new MenuButton(say("notes-pane.show"));
    private final CheckMenuItem onlyUsed = new CheckMenuItem(say("notes-pane.only-rows-that-are-used"));
    private final CheckMenuItem faint = new CheckMenuItem(say("notes-pane.other-tracks-faintly"));
    private final CheckMenuItem ghost = new CheckMenuItem(say("notes-pane.as-it-was-played"));
    private final Button asPlayed;
    private final KeyColumn keys;
    private final NoteArea area;
    private final VelocityArea velocities;
    private final Lanes lanes;

    /** Those that were asked for at least once: to make all takes longer than to open a track. */
    private final Map<NoteQuestionKind, NoteQuestion> strips = new EnumMap<>(NoteQuestionKind.class);

    private final VBox stripBox = new VBox();
    private final NotesCommands commands;
    private final PauseTransition soundsFor = new PauseTransition(Duration.millis(SOUNDS_FOR));
    private double scrolled = Double.NaN;
    private TimeScale scale;

    /** The input of the names. */
    private List<Object> named;

    /**
     * @param head how wide the heads of tracks are
     * @param stale has it shown again
     */
    public NotesPane(ViewContext desk, double head, Runnable stale) {
        this.desk = desk;
        this.head = head;
        this.stale = stale;
        notes = new NotesPresenter(desk.document(), desk.context().runs());
        board = new NotesDrawing(notes);
        asPlayed = Cards.button("notes-as-played", say("notes-pane.as-it-was-played"), notes::asPlayed);
        asPlayed.setTooltip(new Tooltip(say("notes-pane.about-as-it-was-played")));
        keys = new KeyColumn(
                desk, board, key -> board.shown().stream().findFirst().ifPresent(it -> sound(it, key)));
        area = new NoteArea(desk, board, stale, this::sound);
        velocities = new VelocityArea(desk, board, stale);
        lanes = new Lanes(board, head, stale);
        commands = new NotesCommands(
                notes, area::isFocused, this::playhead, stale, this::ask, this::loopSelection, this::soundSelected);
        soundsFor.setOnFinished(event -> desk.studio().endTest());
        setId("notes");
        getStyleClass().add("notes-pane");
        setTop(new VBox(bar(), stripBox));
        keys.setMinWidth(head);
        keys.setMaxWidth(head);
        HBox.setHgrow(area, Priority.ALWAYS);
        VBox tools = new VBox(6, grid, snaps, view);
        tools.getStyleClass().add("notes-tools");
        tools.setPickOnBounds(false);
        tools.setMaxWidth(Region.USE_PREF_SIZE);
        tools.setMaxHeight(Region.USE_PREF_SIZE);
        for (Region tool : List.of(grid, snaps, view)) {
            tool.setPrefWidth(TOOL);
        }
        StackPane left = new StackPane(keys, tools);
        StackPane.setAlignment(tools, Pos.TOP_LEFT);
        left.setMinWidth(head);
        left.setMaxWidth(head);
        HBox rows = new HBox(left, area);
        rows.setMinHeight(0);
        setCenter(rows);
        setBottom(new VBox(velocityLine(), lanes));
        setMinHeight(0);
        rows.addEventHandler(ScrollEvent.SCROLL, this::scroll);
        ContextItems.on(area, this::items);
        FocusKeys.escape(this, this::stepBack);
        Cards.show(this, false);
        area.heightProperty().subscribe(height -> stale.run());
    }

    private FlowPane bar() {
        Form.choose(grid, Choices.gridSteps(), notes.step());
        grid.setOnAction(event -> {
            notes.setStep(grid.getValue().value());
            stale.run();
        });
        snaps.setId("notes-snap");
        snaps.setSelected(true);
        snaps.setTooltip(new Tooltip(say("notes-pane.about-snap")));
        snaps.setOnAction(event -> notes.setSnaps(snaps.isSelected()));
        view.setId("notes-show");
        faint.setSelected(true);
        for (CheckMenuItem item : List.of(onlyUsed, faint, ghost)) {
            item.setOnAction(event -> stale.run());
        }
        onlyUsed.setId("notes-only-used");
        faint.setId("notes-others");
        ghost.setId("notes-ghost");
        view.setOnShowing(event -> fillView());
        names.setAlignment(Pos.CENTER_LEFT);
        names.setMinWidth(0);
        count.setId("notes-count");
        count.setMinWidth(Region.USE_PREF_SIZE);
        Button close = Cards.button("notes-close", "×", this::close);
        close.setAccessibleText(say("notes-pane.close"));
        close.setTooltip(new Tooltip(say("notes-pane.close")));
        FlowPane bar = Cards.flow(
                names,
                count,
                Cards.button("notes-quantize", say("notes-pane.quantize"), () -> ask(NoteQuestionKind.QUANTIZE)),
                Cards.button(
                        "notes-to-sound", say("notes-pane.to-another-sound"), () -> ask(NoteQuestionKind.TO_SOUND)),
                Cards.button("notes-change", say("notes-pane.change"), () -> ask(NoteQuestionKind.CHANGE)),
                Cards.button("notes-arrange", say("notes-pane.arrange"), () -> ask(NoteQuestionKind.ARRANGE)),
                Cards.button("notes-beat", say("notes-pane.find-the-beat"), () -> ask(NoteQuestionKind.BEAT)),
                asPlayed,
                close);
        bar.getStyleClass().add("notes-bar");
        return bar;
    }

    private HBox velocityLine() {
        velocities.setMinHeight(VELOCITIES);
        velocities.setMaxHeight(VELOCITIES);
        return Lanes.line(new VBox(Cards.strong(say("notes-pane.velocity"))), head, velocities);
    }

    /** The question of a kind, made when it is first asked. */
    private NoteQuestion strip(NoteQuestionKind kind) {
        return strips.computeIfAbsent(kind, it -> {
            NoteQuestion strip = NoteQuestion.make(it, desk, notes);
            stripBox.getChildren().add(strip);
            return strip;
        });
    }

    /** Opens a question, or closes it if it is open: only one is open at a time. */
    private void ask(NoteQuestionKind kind) {
        boolean was = strip(kind).isOpen();
        leave();
        if (!was) {
            // After a click on a button, the focus goes to the notes.
            area.requestFocus();
            strip(kind).ask();
        }
    }

    /** Esc goes back by a step: out of a strip, then out of the selection, then out of the notes. */
    private void stepBack() {
        if (strips.values().stream().anyMatch(Question::isOpen)) {
            leave();
        } else if (!notes.selected().isEmpty()) {
            notes.selected().clear();
            stale.run();
        } else {
            close();
        }
    }

    @Override
    public void leave() {
        strips.values().forEach(Question::close);
    }

    private void fillView() {
        List<MenuItem> items = new ArrayList<>(List.of(onlyUsed, faint, ghost, new SeparatorMenuItem()));
        items.addAll(lanes.items());
        view.getItems().setAll(items);
    }

    private List<MenuItem> items() {
        return desk.commands()
                .items(commands().stream()
                        .filter(command -> command.applies().getAsBoolean())
                        .toList());
    }

    /** Sounds a key on the part of a track; {@link KeyRows#NONE} ends it. */
    private void sound(VisibleTrack shown, int key) {
        desk.studio().endTest();
        Optional<PartRef> part = shown.track().playsOn();
        if (key < 0 || key > 127 || part.isEmpty()) {
            return;
        }
        Optional<Instrument> instrument = desk.session().instrument(part.get().instrument());
        desk.routing()
                .channels()
                .channel(part.get())
                .ifPresent(channel -> instrument.ifPresent(it -> desk.studio().test(it, channel, key, SOUNDS)));
    }

    @Override
    public Node node() {
        return this;
    }

    @Override
    public boolean isOpen() {
        return notes.isOpen();
    }

    @Override
    public void open(String track, boolean beside) {
        notes.show(track, beside);
        scrolled = Double.NaN;
        Cards.show(this, true);
        area.requestFocus();
        stale.run();
    }

    @Override
    public void close() {
        leave();
        notes.close();
        Cards.show(this, false);
        stale.run();
    }

    @Override
    public void follow() {
        strips.values().forEach(NoteQuestion::follow);
    }

    @Override
    public boolean isWorking() {
        return notes.isWorking();
    }

    @Override
    public boolean hasNews() {
        return notes.hasNews();
    }

    @Override
    public Optional<long[]> wanted() {
        Map<Track, TrackNotes> sheets = notes.sheets();
        if (sheets.size() < notes.tracks().size()) {
            return Optional.empty();
        }
        long first = sheets.values().stream()
                .filter(sheet -> sheet.index().noteCount() > 0)
                .mapToLong(sheet -> sheet.index().start(0))
                .min()
                .orElse(0);
        long from = desk.session()
                .tempo()
                .barStart(desk.session().tempo().place(first).bar());
        return Optional.of(new long[] {
            from, FIRST_BARS * desk.session().tempo().meter(from).ticksPerBar()
        });
    }

    private void scroll(ScrollEvent event) {
        if (!event.isShortcutDown() && !event.isShiftDown() && event.getDeltaY() != 0 && board.at() != null) {
            scrolled = board.at().scrolled() - event.getDeltaY();
            event.consume();
            stale.run();
        }
    }

    @Override
    public void show(TimeScale next) {
        scale = next;
        notes.follow();
        if (!notes.isOpen()) {
            // Its tracks are gone.
            leave();
            Cards.show(this, false);
            return;
        }
        strips.values().forEach(NoteQuestion::show);
        Palette palette = desk.theme().palette();
        List<VisibleTrack> shown = shown(palette);
        BitSet used = new BitSet();
        shown.forEach(one -> used.or(one.sheet().keys()));
        KeyRows rows = KeyRows.of(used, onlyUsed.isSelected());
        double height = area.getHeight();
        if (Double.isNaN(scrolled)) {
            scrolled = firstScroll(shown, rows, height);
        }
        board.set(shown, Geometry.of(scale, rows, scrolled, height));
        scrolled = board.at().scrolled();
        showNames();
        draw(palette);
        notes.forgetOthers();
    }

    /** Returns the scroll position that centers the first notes. */
    private double firstScroll(List<VisibleTrack> shown, KeyRows rows, double height) {
        int sum = 0;
        int seen = 0;
        if (!shown.isEmpty()) {
            // Of several tracks the one that was opened last.
            VisibleTrack last = shown.get(shown.size() - 1);
            seen = Math.min(FIRST_NOTES, last.sheet().index().noteCount());
            for (int note = 0; note < seen; note++) {
                sum += last.sheet().index().key(note);
            }
        }
        int row = seen == 0 ? rows.count() / 2 : rows.near(sum / seen);
        return row * Geometry.ROW - height / 2;
    }

    private List<VisibleTrack> shown(Palette palette) {
        List<VisibleTrack> shown = new ArrayList<>();
        for (Track track : notes.tracks()) {
            notes.sheet(track).ifPresent(sheet -> {
                Part part = notes.part(track).orElse(null);
                shown.add(new VisibleTrack(track, sheet, part, notes.selectedNow(track.id()), colour(part, palette)));
            });
        }
        return shown;
    }

    private static Color colour(Part part, Palette palette) {
        Color colour = part == null ? palette.get("soft") : PartColours.of(part.colour());
        // At night a dark part's notes would sink into the dark: they are lit a little.
        return palette.isDark() ? colour.interpolate(Color.WHITE, 0.35) : colour;
    }

    private void showNames() {
        List<Object> now = new ArrayList<>();
        notes.tracks()
                .forEach(track -> now.addAll(Arrays.asList(
                        track.name(), notes.part(track).map(Part::colour).orElse(0), channel(track))));
        if (!now.equals(named)) {
            named = now;
            names.getChildren().setAll(nameNodes());
        }
        count.setText(
                say("notes-pane.count", notes.noteCount(), notes.selected().count()));
        asPlayed.setDisable(!notes.isEdited());
    }

    private String channel(Track track) {
        return track.playsOn()
                .map(ref -> SessionFormatter.channel(ref, desk.routing()))
                .orElse("·");
    }

    private List<Node> nameNodes() {
        List<Node> nodes = new ArrayList<>();
        for (Track track : notes.tracks()) {
            if (!nodes.isEmpty()) {
                nodes.add(Cards.soft(say("notes-pane.and")));
            }
            nodes.add(new PartBadge().show(notes.part(track).map(Part::colour).orElse(0), channel(track)));
            Label name = Cards.heading(track.name());
            name.setMinWidth(0);
            nodes.add(name);
        }
        return nodes;
    }

    private void draw(Palette palette) {
        Map<TrackNotes, Color> others = new LinkedHashMap<>();
        if (faint.isSelected()) {
            for (Track track : notes.others()) {
                notes.sheet(track)
                        .ifPresent(sheet ->
                                others.put(sheet, colour(notes.part(track).orElse(null), palette)));
            }
        }
        Map<TrackNotes, BitSet> before = new LinkedHashMap<>();
        if (notes.isPreviewing()) {
            Map<String, BitSet> chosen = notes.chosen();
            notes.sheets().forEach((track, sheet) -> before.put(sheet, chosen.getOrDefault(track.id(), new BitSet())));
        }
        area.draw(palette, others, before, ghost.isSelected());
        keys.draw(
                palette,
                board.shown().stream()
                        .map(VisibleTrack::part)
                        .filter(Objects::nonNull)
                        .toList(),
                desk.session().middleC());
        velocities.draw(palette);
        lanes.draw(palette);
    }

    private long playhead() {
        boolean rests = desk.studio().transport() == Transport.STOPPED;
        return desk.session()
                .tempo()
                .ticks(rests ? desk.studio().place() : desk.studio().position());
    }

    @Override
    public List<Command> commands() {
        return commands.all();
    }

    /** Sounds the first of the selected notes for a moment. */
    private void soundSelected() {
        notes.tracks().stream()
                .filter(track -> !notes.selected().of(track.id()).isEmpty())
                .findFirst()
                .flatMap(track -> notes.sheet(track)
                        .map(sheet -> new VisibleTrack(track, sheet, null, new BitSet(), Color.BLACK)))
                .ifPresent(one -> {
                    int note = notes.selected().of(one.track().id()).nextSetBit(0);
                    sound(one, one.sheet().index().key(note));
                    soundsFor.playFromStart();
                });
    }

    private void loopSelection() {
        ask(NoteQuestionKind.ARRANGE);
        ((ArrangeStrip) strip(NoteQuestionKind.ARRANGE)).loop();
    }
}
