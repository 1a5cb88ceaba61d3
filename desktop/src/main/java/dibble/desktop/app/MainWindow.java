package dibble.desktop.app;

import dibble.desktop.channels.ChannelsView;
import dibble.desktop.checks.ChecksView;
import dibble.desktop.controls.ControlsView;
import dibble.desktop.gear.GearView;
import dibble.desktop.keys.KeysView;
import dibble.desktop.live.LiveLine;
import dibble.desktop.scenes.ScenesView;
import dibble.desktop.settings.SettingsView;
import dibble.desktop.takes.TakesView;
import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.NoteField;
import dibble.desktop.ui.Palette;
import dibble.desktop.ui.Places;
import dibble.desktop.ui.View;
import dibble.desktop.ui.Words;
import dibble.edits.ControlEdits;
import dibble.edits.StartingPoint;
import dibble.routing.Scene;
import dibble.studio.Loop;
import dibble.studio.Transport;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import javafx.util.Subscription;

/** The frame: session, views, transport, scene and silence at the top; the live line at the foot. */
public final class MainWindow extends BorderPane {
    private static final double NARROW = 1180;
    private static final PseudoClass LITTLE_ROOM = PseudoClass.getPseudoClass("narrow");
    private static final PseudoClass FOUND = PseudoClass.getPseudoClass("found");
    private static final PseudoClass RECORDING = PseudoClass.getPseudoClass("recording");

    /** The views that there are, in the order of the work. */
    enum Page {
        GEAR("Gear"),
        KEYS("Keys"),
        CHANNELS("Channels"),
        CONTROLS("Controls"),
        TAKES("Takes"),

        /** These have no tab: scene and checks have their places at the top, all stand in the session's menu. */
        SCENES("Scenes"),
        CHECKS("Checks"),
        SETTINGS("Settings");

        private final String title;

        Page(String title) {
            this.title = title;
        }
    }

    private static final List<Page> TABS = List.of(Page.GEAR, Page.KEYS, Page.CHANNELS, Page.CONTROLS, Page.TAKES);

    private final Workbench workbench;
    private final Desk desk;
    private final FileActions files;
    private final Runnable quit;
    private final Map<Page, Node> views = new LinkedHashMap<>();
    private final Map<Page, ToggleButton> tabs = new LinkedHashMap<>();
    private final StackPane center = new StackPane();
    private final MenuButton menu = new MenuButton();
    private final Label state = new Label();
    private final Button undo = link("undo", "Ctrl+Z");
    private final Button redo = link("redo", "Ctrl+Shift+Z");
    private final HBox transport = new HBox();
    private final Label recordWord = new Label("Record");
    private final Button play = new Button("Play");
    private final Label position = new Label("1 · 1");
    private final Label tempo = new Label();
    private final ComboBox<Scene> scenes = new ComboBox<>();
    private final HBox sceneBox = new HBox(8);
    private final ToggleButton perform = new ToggleButton("Stand-ins play");
    private final LiveLine live;
    private final ScenesView scenesView;
    private final ToggleButton checks = new ToggleButton();
    private Subscription subscription = Subscription.EMPTY;
    private Subscription viewSubscription = Subscription.EMPTY;
    private Page page;

    /** The view to which scenes and checks lead back. */
    private Page before = Page.KEYS;

    private boolean showingScenes;
    private List<Loop> toldLoops = List.of();
    private String toldTrouble;

    /** Where a mistake of Dibble's own stands, and what shows it. */
    private record Mistake(Path log, Runnable show) {}

    private final AtomicReference<Mistake> mistake = new AtomicReference<>();
    private boolean toldMistake;

    /** @param quit closes the window for good */
    public MainWindow(Workbench workbench, Runnable quit) {
        getStyleClass().add("main-window");
        this.workbench = workbench;
        this.quit = quit;
        desk = workbench.desk();
        scenesView = new ScenesView(desk);
        files = new FileActions(workbench);
        views.put(Page.GEAR, new GearView(desk, point -> files.begin(point.session())));
        views.put(Page.KEYS, new KeysView(desk));
        views.put(Page.CHANNELS, new ChannelsView(desk));
        views.put(Page.CONTROLS, new ControlsView(desk));
        views.put(Page.TAKES, new TakesView(desk));
        views.put(Page.SCENES, scenesView);
        views.put(Page.CHECKS, new ChecksView(desk));
        views.put(Page.SETTINGS, new SettingsView(desk));
        desk.places().onShow(this::show);
        perform.setId("perform");
        perform.setTooltip(new Tooltip("The stand-ins play the demo's performance on their keyboards"));
        perform.setOnAction(event -> {
            if (perform.isSelected()) {
                workbench.perform();
            } else {
                workbench.studio().stopPerformance();
            }
        });
        perform.setMinWidth(USE_PREF_SIZE);
        live = new LiveLine(desk, perform);
        setTop(new VBox(topBar(), desk.ask()));
        setCenter(center);
        setBottom(live);
        // Below these sizes the scroll bars take over; nothing pushes the live line out of the window.
        center.setMinHeight(120);
        // Letters that play come before everything; all other keys go to what has the focus first.
        addEventFilter(KeyEvent.ANY, this::typed);
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        // The tempo stands in Takes too; where there is little room, Silence must not be pushed out.
        widthProperty().subscribe(width -> {
            boolean narrow = width.doubleValue() > 0 && width.doubleValue() < NARROW;
            pseudoClassStateChanged(LITTLE_ROOM, narrow);
            tempo.setVisible(!narrow);
            tempo.setManaged(!narrow);
        });
    }

    private HBox topBar() {
        menu.getStyleClass().add("session-menu");
        menu.setId("session-menu");
        menu.getItems()
                .setAll(
                        item("New session", "Shortcut+N", () -> files.newSession(() -> show(Page.GEAR))),
                        startingPoints(),
                        item("Open…", "Shortcut+O", files::open),
                        item("Save", "Shortcut+S", files::save),
                        item("Save as…", "Shortcut+Shift+S", files::saveAs),
                        item("Bring in a MIDI file…", "Shortcut+I", files::bringIn),
                        item("Export tracks…", "Shortcut+E", files::export),
                        item("Export on one track…", "Shortcut+Shift+E", files::exportOneTrack),
                        item("Export a file for each track…", "Shortcut+Alt+E", files::exportFiles),
                        new SeparatorMenuItem(),
                        item("Scenes…", "Shortcut+6", () -> show(Page.SCENES)),
                        item("Scene, large", "Shortcut+L", this::showLargeScene),
                        item("Checks…", "Shortcut+7", () -> show(Page.CHECKS)),
                        new SeparatorMenuItem(),
                        item("Messages…", "Shortcut+M", () -> desk.ask().tellAgain()),
                        item("Day or night", "Shortcut+D", this::switchTheme),
                        item("Settings…", "Shortcut+COMMA", () -> show(Page.SETTINGS)),
                        new SeparatorMenuItem(),
                        item("Close", "Shortcut+Q", this::close));
        state.getStyleClass().add("state-line");
        state.setMinWidth(USE_PREF_SIZE);
        undo.setOnAction(event -> desk.document().undo());
        redo.setOnAction(event -> desk.document().redo());
        undo.setId("undo");
        redo.setId("redo");
        HBox stateLine = new HBox(2, state, undo, redo);
        stateLine.setAlignment(Pos.CENTER_LEFT);
        VBox session = new VBox(-2, menu, stateLine);
        session.setAlignment(Pos.CENTER_LEFT);
        session.setMinWidth(132);
        session.setMaxWidth(300);
        menu.setMaxWidth(300);
        session.setFillWidth(false);
        HBox bar = new HBox(session);
        bar.getStyleClass().add("top-bar");
        for (Page each : TABS) {
            ToggleButton tab = new ToggleButton(each.title);
            tab.getStyleClass().add("view-tab");
            tab.setId("view-" + each.title.toLowerCase(Locale.ROOT));
            tab.setTooltip(new Tooltip("Ctrl+" + (each.ordinal() + 1)));
            tab.setOnAction(event -> show(each));
            tab.setMinWidth(USE_PREF_SIZE);
            tabs.put(each, tab);
            bar.getChildren().add(tab);
        }
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button silence = new Button("Silence");
        silence.setId("silence");
        silence.setTooltip(new Tooltip("All notes off, everything at rest (Ctrl+.)"));
        silence.setOnAction(event -> silence());
        silence.setMinWidth(USE_PREF_SIZE);
        checks.setId("checks-count-button");
        checks.getStyleClass().add("checks-button");
        checks.setMinWidth(USE_PREF_SIZE);
        checks.setTooltip(new Tooltip("What would surprise you, with its mend (Ctrl+7)"));
        checks.setOnAction(event -> show(page == Page.CHECKS ? before : Page.CHECKS));
        bar.getChildren().addAll(transport(), space, sceneBox(), checks, silence);
        return bar;
    }

    private Menu startingPoints() {
        Menu points = new Menu("New from a starting point");
        points.setId("menu-starting-points");
        for (StartingPoint point : StartingPoint.values()) {
            MenuItem item = new MenuItem(point.title());
            item.setId("start-" + point.name().toLowerCase(Locale.ROOT));
            item.setOnAction(event -> files.begin(point.session()));
            points.getItems().add(item);
        }
        return points;
    }

    private HBox transport() {
        Label mark = new Label("●");
        mark.getStyleClass().add("record-mark");
        recordWord.getStyleClass().add("record-word");
        HBox face = new HBox(6, mark, recordWord);
        face.setAlignment(Pos.CENTER_LEFT);
        Button record = new Button();
        record.setGraphic(face);
        record.setId("record");
        record.setAccessibleText("record");
        record.setTooltip(new Tooltip("Record everybody (Ctrl+R)"));
        record.setOnAction(event -> workbench.record());
        play.setId("play");
        play.setTooltip(new Tooltip("Play the tracks, or stop (Space)"));
        play.setOnAction(event -> playOrStop());
        play.setMinWidth(58);
        position.getStyleClass().add("position");
        position.setId("position");
        position.setAccessibleText("position: bar and beat");
        tempo.getStyleClass().add("soft");
        tempo.setMinWidth(USE_PREF_SIZE);
        record.setMinWidth(100);
        // They have keys of their own; a click must not take Space away from playing and stopping.
        record.setFocusTraversable(false);
        play.setFocusTraversable(false);
        transport.getStyleClass().add("transport");
        transport.setMinWidth(USE_PREF_SIZE);
        transport.getChildren().addAll(record, play, position, tempo);
        return transport;
    }

    private HBox sceneBox() {
        Button label = link("Scene", "All scenes, and what they differ in (Ctrl+6)");
        label.setId("scenes-link");
        label.setOnAction(event -> show(page == Page.SCENES ? before : Page.SCENES));
        scenes.getStyleClass().add("scene-choice");
        scenes.setId("scene");
        scenes.setMinWidth(96);
        scenes.setAccessibleText("scene");
        scenes.setConverter(new StringConverter<>() {
            @Override
            public String toString(Scene scene) {
                return scene == null ? "" : scene.name();
            }

            @Override
            public Scene fromString(String name) {
                throw new IllegalStateException("scenes are chosen, not typed");
            }
        });
        scenes.valueProperty().subscribe(scene -> {
            if (scene != null && !showingScenes) {
                desk.document().perform(performance -> performance.withScene(scene.id()));
            }
        });
        sceneBox.setAlignment(Pos.CENTER_LEFT);
        sceneBox.getChildren().addAll(label, scenes);
        return sceneBox;
    }

    private static Button link(String text, String shortcut) {
        Button button = new Button(text);
        button.getStyleClass().add("link");
        button.setTooltip(new Tooltip(shortcut));
        button.setMinWidth(USE_PREF_SIZE);
        return button;
    }

    private static MenuItem item(String text, String shortcut, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setId("menu-"
                + text.toLowerCase(Locale.ROOT).replaceAll("[^a-z]+", "-").replaceAll("-$", ""));
        item.setAccelerator(KeyCombination.keyCombination(shortcut));
        item.setOnAction(event -> action.run());
        return item;
    }

    /** Begins to follow document and music. */
    public void open() {
        Runnable unlisten = desk.document().listen(this::showDocument);
        Subscription theme = desk.preferences()
                .property()
                .subscribe(
                        settings -> desk.theme().paletteProperty().set(settings.night() ? Palette.NIGHT : Palette.DAY));
        // A field for a note takes the next key that is pressed while it has the focus.
        Subscription notes = desk.live().onKey((source, key, velocity) -> {
            if (getScene() != null && getScene().getFocusOwner() instanceof NoteField field) {
                field.take(key);
            }
        });
        // What was played is read before anything draws it: it is seen in the same frame.
        subscription = Subscription.combine(
                subscription,
                theme,
                notes,
                desk.findings().listen(this::showChecks),
                unlisten::run,
                desk.pulse().each(this::follow),
                live.open());
        show(desk.session().sources().isEmpty() ? Page.GEAR : Page.KEYS);
        desk.pulse().start();
        showDocument();
        showChecks();
    }

    /** Ends what {@link #open} began. */
    public void dispose() {
        viewSubscription.unsubscribe();
        subscription.unsubscribe();
        desk.pulse().stop();
    }

    FileActions files() {
        return files;
    }

    /** Shows a view. */
    void show(Page next) {
        if (next != page) {
            viewSubscription.unsubscribe();
            if (page != null && TABS.contains(page)) {
                before = page;
            }
            page = next;
            live.followMoves(next == Page.CONTROLS);
            Node node = views.get(next);
            center.getChildren().setAll(node);
            viewSubscription = ((View) node).open();
            // No button has the focus then: Space plays and stops.
            node.requestFocus();
        }
        tabs.forEach((each, tab) -> tab.setSelected(each == page));
        checks.setSelected(page == Page.CHECKS);
    }

    /** Shows a thing of the session in the view that it belongs to. */
    private void show(Places.Thing thing) {
        String id = thing.id();
        switch (thing.kind()) {
            case ZONE -> {
                desk.session().zone(id).ifPresent(zone -> {
                    desk.session()
                            .source(zone.source())
                            .ifPresent(source -> desk.selection().source().set(source.id()));
                    callIfElsewhere(desk.session().sceneOf(id));
                    desk.selection().zoneAlone(id);
                });
                show(Page.KEYS);
            }
            case CONTROL -> {
                callIfElsewhere(ControlEdits.sceneOf(desk.session(), id));
                desk.selection().control().set(id);
                show(Page.CONTROLS);
            }
            case PART -> {
                desk.selection().instrument().set(null);
                desk.selection().parts().clear();
                desk.selection().partAlso(id);
                show(Page.GEAR);
            }
            case INSTRUMENT -> {
                desk.selection().parts().clear();
                desk.selection().part().set(null);
                desk.selection().instrument().set(id);
                show(Page.GEAR);
            }
            case SOURCE -> {
                desk.selection().source().set(id);
                show(Page.GEAR);
            }
            case SCENE -> {
                desk.selection().scene().set(id);
                scenesView.showLarge(false);
                show(Page.SCENES);
            }
            case TRACK -> show(Page.TAKES);
        }
    }

    /** What holds in another scene can be seen in that scene only. */
    private void callIfElsewhere(Optional<Scene> scene) {
        scene.ifPresent(it -> desk.document().perform(performance -> performance.withScene(it.id())));
    }

    private void showLargeScene() {
        scenesView.showLarge(page != Page.SCENES || !scenesView.isLarge());
        show(Page.SCENES);
    }

    private void showChecks() {
        int count = desk.findings().count();
        checks.setText(count == 0 ? "all clear" : Words.count(count, "check"));
        checks.pseudoClassStateChanged(FOUND, count > 0);
    }

    private void switchTheme() {
        desk.preferences().change(settings -> settings.withNight(!settings.night()));
    }

    private void showDocument() {
        menu.setText(desk.session().name());
        String saved = files.file() == null ? "not saved yet" : "saved";
        state.setText(desk.document().isChanged() ? "changed" : saved);
        undo.setDisable(desk.document().undoName().isEmpty());
        redo.setDisable(desk.document().redoName().isEmpty());
        undo.setAccessibleText("undo " + desk.document().undoName().orElse(""));
        redo.setAccessibleText("redo " + desk.document().redoName().orElse(""));
        undo.getTooltip().setText(desk.document().undoName().orElse("nothing") + " (Ctrl+Z)");
        redo.getTooltip().setText(desk.document().redoName().orElse("nothing") + " (Ctrl+Shift+Z)");
        showingScenes = true;
        scenes.getItems().setAll(desk.session().scenes());
        scenes.setValue(desk.session()
                .scene(desk.session().activeScene(desk.performance()))
                .orElse(null));
        showingScenes = false;
        scenes.setVisible(!desk.session().scenes().isEmpty());
        scenes.setManaged(scenes.isVisible());
        perform.setVisible(workbench.canPerform());
        perform.setManaged(perform.isVisible());
        tempo.setText(Math.round(desk.session().tempo().bpm(0)) + " bpm");
    }

    private void follow() {
        tellMistake();
        workbench.pulse();
        tellLoops();
        tellJournal();
        desk.live().read();
        desk.findings().follow();
        Transport now = workbench.studio().transport();
        transport.pseudoClassStateChanged(RECORDING, now == Transport.RECORDING);
        recordWord.setText(
                now != Transport.RECORDING
                        ? workbench.studio().waitsToRecord() ? "Waiting" : "Record"
                        : workbench.studio().countsIn() > 0 ? "Count-in" : "Recording");
        play.setText(now == Transport.STOPPED ? "Play" : "Stop");
        String text = TransportWords.place(
                desk.session().tempo(),
                workbench.studio().position(),
                workbench.studio().countsIn());
        if (!text.equals(position.getText())) {
            position.setText(text);
        }
        if (perform.isSelected() != workbench.studio().isPerforming()) {
            perform.setSelected(workbench.studio().isPerforming());
        }
    }

    private void tellLoops() {
        List<Loop> loops = workbench.studio().loops();
        for (Loop loop : loops) {
            if (!toldLoops.contains(loop)) {
                desk.ask()
                        .tell(
                                "A loop: what is sent to " + Words.port(loop.output(), desk.session())
                                        + " comes back from " + Words.port(loop.input(), desk.session())
                                        + ". Nothing more is sent there.",
                                new AskBar.Answer(
                                        "Send there again",
                                        () -> workbench.studio().allowLoop(loop.output())));
            }
        }
        toldLoops = loops;
    }

    /** A recording that cannot be kept on disk is said at once; it goes on in memory. */
    private void tellJournal() {
        String trouble = workbench.journalTrouble();
        if (!Objects.equals(trouble, toldTrouble)) {
            toldTrouble = trouble;
            if (trouble != null) {
                desk.ask().tell(trouble);
            }
        }
    }

    /**
     * Something went wrong in Dibble itself. It is said once: what comes after the first mistake is most often of its
     * making. Any thread.
     *
     * @param log where it stands
     * @param show shows that file
     */
    void noteMistake(Path log, Runnable show) {
        mistake.compareAndSet(null, new Mistake(log, show));
    }

    private void tellMistake() {
        Mistake noted = mistake.get();
        if (noted != null && !toldMistake) {
            toldMistake = true;
            desk.ask()
                    .tell(
                            "Something went wrong in Dibble itself. The session is still here: save it. What happened"
                                    + " stands in " + noted.log + ".",
                            new AskBar.Answer("Show it", noted.show));
        }
    }

    private void playOrStop() {
        if (workbench.studio().transport() == Transport.STOPPED) {
            workbench.studio().play(workbench.studio().place());
        } else {
            workbench.studio().stop();
        }
    }

    private void silence() {
        live.letGoTyped();
        workbench.studio().silence();
        desk.live().forget();
    }

    /** Closes the window, after asking in place where something would be lost. */
    void close() {
        files.unlessChanged("Close it?", quit);
    }

    /** The window lost the focus: what is typed is let go. */
    void lostFocus() {
        live.letGoTyped();
    }

    private boolean isTyping() {
        return getScene() != null && getScene().getFocusOwner() instanceof TextInputControl;
    }

    private void typed(KeyEvent event) {
        if (!isTyping() && live.typed(event)) {
            event.consume();
        }
    }

    private void key(KeyEvent event) {
        if (!isTyping() && shortcut(event)) {
            event.consume();
        }
    }

    private boolean shortcut(KeyEvent event) {
        boolean plain = !event.isShortcutDown()
                && !event.isControlDown()
                && !event.isAltDown()
                && !event.isMetaDown()
                && !event.isShiftDown();
        if (combination(KeyCode.Z).match(event)) {
            desk.document().undo();
        } else if (combination(KeyCode.Y).match(event)
                || combination(KeyCode.Z, KeyCombination.SHIFT_DOWN).match(event)) {
            desk.document().redo();
        } else if (combination(KeyCode.R).match(event)) {
            workbench.record();
        } else if (combination(KeyCode.PERIOD).match(event)) {
            silence();
        } else if (event.getCode() == KeyCode.SPACE
                && plain
                && !takesSpace(getScene().getFocusOwner())) {
            playOrStop();
        } else if (event.getCode() == KeyCode.W && plain) {
            live.why();
        } else if (event.isShortcutDown() && tab(event.getCode()) != null) {
            show(tab(event.getCode()));
        } else {
            return plain && functionKey(event.getCode());
        }
        return true;
    }

    /** The view that a digit shows, or null. */
    private static Page tab(KeyCode code) {
        int number = code.ordinal() - KeyCode.DIGIT1.ordinal();
        return number >= 0 && number < TABS.size() ? TABS.get(number) : null;
    }

    private static boolean takesSpace(Node focused) {
        return focused instanceof ButtonBase || focused instanceof ComboBox;
    }

    private boolean functionKey(KeyCode code) {
        int number = code.ordinal() - KeyCode.F1.ordinal();
        if (number < 0 || number >= Math.min(12, desk.session().scenes().size())) {
            return false;
        }
        String id = desk.session().scenes().get(number).id();
        desk.document().perform(performance -> performance.withScene(id));
        return true;
    }

    private static KeyCodeCombination combination(KeyCode code, KeyCombination.Modifier... more) {
        KeyCombination.Modifier[] modifiers = Arrays.copyOf(more, more.length + 1);
        modifiers[more.length] = KeyCombination.SHORTCUT_DOWN;
        return new KeyCodeCombination(code, modifiers);
    }
}
