package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.demo.FirstMinutes;
import dibble.desktop.channels.ChannelsView;
import dibble.desktop.checks.ChecksView;
import dibble.desktop.controls.ControlsView;
import dibble.desktop.gear.GearView;
import dibble.desktop.help.FirstMinutesStrip;
import dibble.desktop.help.HelpView;
import dibble.desktop.keys.KeysView;
import dibble.desktop.levels.LevelsView;
import dibble.desktop.live.LiveLine;
import dibble.desktop.notes.NotesPane;
import dibble.desktop.scenes.ScenesView;
import dibble.desktop.sets.SetStrip;
import dibble.desktop.sets.SetView;
import dibble.desktop.settings.SettingsView;
import dibble.desktop.sheet.SheetView;
import dibble.desktop.sounds.SoundsView;
import dibble.desktop.takes.TakesView;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.JobBar;
import dibble.desktop.ui.NoteField;
import dibble.desktop.ui.Palette;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.presentation.FileKind;
import dibble.presentation.Prompter;
import dibble.presentation.Subscription;
import dibble.presentation.SystemTheme;
import dibble.presentation.app.Exports;
import dibble.presentation.app.MidiFiles;
import dibble.presentation.app.NamesFiles;
import dibble.presentation.app.Notifications;
import dibble.presentation.app.Page;
import dibble.presentation.app.PathQuestions;
import dibble.presentation.app.Recovery;
import dibble.presentation.app.SessionFiles;
import dibble.presentation.app.SetFiles;
import dibble.presentation.app.SheetFiles;
import dibble.presentation.app.SingleInstance;
import dibble.presentation.app.SoundFiles;
import dibble.presentation.app.WindowActions;
import dibble.presentation.app.WindowCommands;
import dibble.presentation.help.HelpTopic;
import dibble.user.Settings;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import javafx.animation.PauseTransition;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.scene.Node;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.InputEvent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/** The frame: session, views, transport, scene and silence at the top; the live line at the foot. */
public final class MainWindow extends BorderPane {

    private static final Duration NOTE = Duration.millis(700);

    private final Workbench workbench;
    private final ViewContext desk;
    private final SessionFiles files;
    private final MidiFiles midi;
    private final SoundFiles sounds;
    private final SheetFiles sheets;
    private final NamesFiles names;
    private final SetFiles sets;
    private final SetStrip evening;
    private final FirstMinutesStrip minutes;
    private final Recovery recovery;
    private final Pages pages;
    private final TopBar top;
    private final JobBar job;
    private final Notifications notices;
    private final ToggleButton perform = new ToggleButton(say("main-window.play-demo"));
    private final LiveLine live;
    private final CommandList commands;
    private final ReadOnlyStringWrapper title = new ReadOnlyStringWrapper(say("common.dibble"));
    private final ViewUpdater watch;
    private Runnable showLog = () -> {};
    private volatile SingleInstance bell;
    private Runnable raises = () -> {};
    private Subscription open = Subscription.NONE;

    /** @param quit closes the window for good */
    public MainWindow(Workbench workbench, Runnable quit) {
        getStyleClass().add("main-window");
        // It is as wide as the window, and makes room within: see TopBar.
        setMinWidth(0);
        this.workbench = workbench;
        desk = workbench.desk();
        PathQuestions questions = new PathQuestions(desk.context());
        files = new SessionFiles(workbench, questions, quit);
        sounds = new SoundFiles(desk.context(), workbench.sound(), files, questions, MainWindow::afterNote);
        Exports exports = new Exports(desk.context(), files, questions);
        sheets = new SheetFiles(desk.context(), files, questions, exports);
        names = new NamesFiles(desk.context(), files, questions, exports);
        sets = new SetFiles(workbench, files, questions, exports);
        recovery = new Recovery(workbench, files);
        pages = pages();
        perform.setId("perform");
        perform.setTooltip(new Tooltip(say("main-window.the-stand-ins-play-the")));
        perform.setOnAction(event -> {
            if (perform.isSelected()) {
                workbench.perform();
            } else {
                workbench.studio().stopPerformance();
            }
        });
        perform.setMinWidth(USE_PREF_SIZE);
        live = new LiveLine(desk, perform);
        midi = new MidiFiles(desk.context(), files, questions, exports);
        commands = new CommandList(desk.commands());
        minutes = new FirstMinutesStrip(desk, page -> pages.show(Page.valueOf(page)));
        evening = new SetStrip(sets, () -> pages.show(Page.SET));
        desk.commands().add(WindowCommands.of(workbench, files, midi, sheets::export, sets, new Actions()));
        desk.places().onShow(pages::show);
        top = new TopBar(desk, files);
        job = new JobBar(desk);
        notices = new Notifications(workbench);
        watch = desk.watch(this::show).each(this::follow);
        files.onChange(watch::stale);
        files.onBegun(this::leaveGear);
        setTop(new VBox(top, desk.ask(), job, minutes, evening));
        setCenter(new StackPane(pages, commands));
        setBottom(live);
        // Any gesture may change the focus or the session.
        addEventFilter(InputEvent.ANY, event -> desk.pulse().wake());
        desk.pointer().watch(this);
        addEventFilter(
                MouseEvent.MOUSE_PRESSED,
                event -> desk.commands().clicked(event.getTarget() instanceof Node node ? node : null));
        // Letters that play notes come first; all other keys go to the focused node first.
        addEventFilter(KeyEvent.ANY, desk.commands()::follow);
        addEventFilter(KeyEvent.ANY, this::typed);
        addEventFilter(KeyEvent.ANY, event -> {
            if (desk.commands().takeSpace(event, focused())) {
                event.consume();
            }
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        addEventHandler(KeyEvent.KEY_TYPED, event -> {
            if (desk.commands().takeTyped(event, focused())) {
                event.consume();
            }
        });
        setOnDragOver(event -> {
            if (event.getDragboard().hasFiles()) {
                event.acceptTransferModes(TransferMode.COPY);
                event.consume();
            }
        });
        setOnDragDropped(event -> {
            if (event.getDragboard().hasFiles()) {
                drop(event.getDragboard().getFiles().stream().map(File::toPath).toList());
                event.setDropCompleted(true);
                event.consume();
            }
        });
        widthProperty().subscribe(width -> {
            if (width.doubleValue() > 0) {
                top.fit(width.doubleValue());
            }
        });
    }

    /** Returns what runs an action after the length of a note that is listened to, counted from the last time. */
    private static Runnable afterNote(Runnable action) {
        PauseTransition note = new PauseTransition(NOTE);
        note.setOnFinished(event -> action.run());
        return note::playFromStart;
    }

    private Pages pages() {
        Pages all = new Pages(desk);
        all.put(Page.GEAR, () -> new GearView(desk, files::begin, files::openAsked, names));
        all.put(Page.KEYS, () -> new KeysView(desk));
        all.put(Page.CHANNELS, () -> new ChannelsView(desk));
        all.put(Page.CONTROLS, () -> new ControlsView(desk));
        all.put(Page.TAKES, () -> new TakesView(desk, NotesPane::new));
        all.put(Page.LEVELS, () -> new LevelsView(desk, wanted -> sounds.export(wanted)));
        all.put(Page.SOUNDS, () -> new SoundsView(desk, sounds, sounds::open));
        all.put(Page.SCENES, () -> new ScenesView(desk));
        all.put(Page.CHECKS, () -> new ChecksView(desk));
        all.put(Page.SETTINGS, () -> new SettingsView(desk, workbench::audioDevices));
        all.put(Page.SHEET, () -> new SheetView(desk, sheets));
        all.put(Page.SET, () -> new SetView(desk, sets));
        all.put(Page.HELP, () -> new HelpView(desk, () -> showLog.run()));
        return all;
    }

    /** Files were dropped on the window: all are taken, but only one session or set can be open. */
    void drop(List<Path> paths) {
        boolean opens = false;
        for (Path path : paths) {
            String name = nameOf(path);
            boolean isOpened = FileKind.SESSION.has(name) || FileKind.SET.has(name);
            if (isOpened && opens) {
                desk.ask().tell(say("main-window.not-opened-one-at-a-time", path.getFileName()));
            } else if (!take(path)) {
                desk.ask().tell(say("main-window.cannot-be-opened-expected-a", path.getFileName()));
            }
            opens |= isOpened;
        }
    }

    private static String nameOf(Path path) {
        return String.valueOf(path.getFileName()).toLowerCase(Locale.ROOT);
    }

    /**
     * Opens a file that was named at the start, or by a second start. A file with an unknown extension is treated as a
     * session.
     */
    void open(Path path) {
        if (!take(path)) {
            files.openAsked(path);
        }
    }

    /** Opens a session, a set or a file of sounds, imports a MIDI file. @return whether it is any of these, by its name */
    private boolean take(Path path) {
        String name = nameOf(path);
        if (FileKind.MIDI.has(name)) {
            midi.bringIn(path, () -> {});
        } else if (FileKind.SOUNDS.has(name)) {
            sounds.bringIn(path, () -> pages.show(Page.SOUNDS));
        } else if (FileKind.SESSION.has(name)) {
            files.openAsked(path);
        } else if (FileKind.SET.has(name)) {
            sets.open(path, () -> pages.show(Page.SET));
        } else {
            return false;
        }
        return true;
    }

    /** Begins to follow document and music. */
    public void open() {
        desk.pulse()
                .onNews(() -> workbench.hasNews()
                        || notices.hasNews()
                        || bell != null && bell.hasNews()
                        || SystemTheme.hasNews());
        // Played events are read before the views are drawn, so that they appear in the same frame.
        open = Subscription.combine(
                desk.pulse().whileSo(workbench::isMoving),
                desk.pulse().each(this::read),
                desk.preferences().follow(settings -> obey(settings)),
                // A field for a note that was asked to takes the next key that is pressed.
                desk.live().onKey((source, key, velocity) -> {
                    if (focused() instanceof NoteField field && desk.isPlayedByHand(source)) {
                        field.played(key);
                    }
                }),
                pages.page().subscribe(page -> {
                    live.followMoves(page == Page.CONTROLS);
                    watch.stale();
                })::unsubscribe,
                watch.open(),
                HoverHighlight.within(desk, pages),
                job.open(),
                evening.open(),
                sets.follow(),
                live.open());
        pages.show(first());
        desk.pulse().start();
    }

    /** Leaves the view of an empty session for the usual view. */
    private void leaveGear() {
        if (pages.page().get() == Page.GEAR) {
            pages.show(first());
        }
    }

    private Page first() {
        String before = desk.preferences().memory().view();
        boolean known = Page.TABS.stream().anyMatch(page -> page.name().equals(before));
        return desk.session().sources().isEmpty() ? Page.GEAR : known ? Page.valueOf(before) : Page.KEYS;
    }

    /** Ends what {@link #open} began. */
    public void dispose() {
        pages.close();
        open.unsubscribe();
        desk.pulse().stop();
    }

    private void help(HelpTopic topic) {
        pages.show(Page.HELP);
        ((HelpView) pages.view(Page.HELP)).show(topic);
    }

    /** Offers the first five minutes to a new user. */
    void welcome() {
        if (desk.preferences().memory().welcomed()) {
            return;
        }
        desk.preferences().remember(memory -> memory.withWelcomed(true));
        desk.ask()
                .ask(
                        say("first-minutes.welcome-to-dibble-would-you"),
                        List.of(new Prompter.Answer(say("first-minutes.start"), this::firstMinutes)),
                        say("first-minutes.not-now"));
    }

    /** The actions of commands on the window. */
    private final class Actions implements WindowActions {
        @Override
        public Page page() {
            return pages.page().get();
        }

        @Override
        public void show(Page page) {
            pages.show(page);
        }

        @Override
        public void turn(Page page) {
            pages.turn(page);
        }

        @Override
        public void turnLargeScenes() {
            ScenesView scenes = (ScenesView) pages.view(Page.SCENES);
            scenes.showLarge(page() != Page.SCENES || !scenes.isLarge());
            pages.show(Page.SCENES);
        }

        @Override
        public void help(HelpTopic topic) {
            MainWindow.this.help(topic);
        }

        @Override
        public void listCommands() {
            commands.open();
        }

        @Override
        public void playDemo() {
            perform.fire();
        }

        @Override
        public void firstMinutes() {
            MainWindow.this.firstMinutes();
        }

        @Override
        public void exportSound() {
            MainWindow.this.exportSound();
        }

        @Override
        public void tellAgain() {
            desk.ask().tellAgain();
        }

        @Override
        public void switchTheme() {
            boolean dark = desk.theme().palette().isDark();
            desk.preferences().change(settings -> settings.withTheme(dark ? Settings.Theme.DAY : Settings.Theme.NIGHT));
        }

        @Override
        public void showEvents() {
            live.showPassed();
        }

        @Override
        public void why() {
            live.why();
        }

        @Override
        public void releaseTypedKeys() {
            live.letGoTyped();
        }
    }

    private void exportSound() {
        pages.show(Page.LEVELS);
        ((LevelsView) pages.view(Page.LEVELS)).askExport();
    }

    /** Begins the first five minutes in a new session, or resumes them. */
    private void firstMinutes() {
        desk.ask().leave();
        if (minutes.isUnderWay()) {
            minutes.resume();
        } else {
            files.begin(FirstMinutes.session(say("first-minutes.first-five-minutes")), () -> {
                minutes.begin();
                pages.show(Page.KEYS);
            });
        }
    }

    /**
     * Answers second starts.
     *
     * @param raise brings the window to the front
     */
    void onRing(SingleInstance doorbell, Runnable raise) {
        bell = doorbell;
        raises = raise;
    }

    private void answer(String file) {
        raises.run();
        if (!file.isEmpty()) {
            open(Path.of(file));
        }
    }

    /** The name of the view that is shown. */
    String page() {
        return pages.page().get().name();
    }

    /** Sets the action that shows the log of internal errors. */
    void onShowLog(Runnable show) {
        showLog = show;
    }

    SessionFiles files() {
        return files;
    }

    Recovery recovery() {
        return recovery;
    }

    /** Shows a view. */
    void show(Page page) {
        pages.show(page);
    }

    /** Returns the title of the window: the session, and whether it has unsaved changes. */
    ReadOnlyStringProperty title() {
        return title.getReadOnlyProperty();
    }

    private void show() {
        title.set(
                say("main-window.dibble", desk.session().name(), desk.document().isChanged()));
        top.show(pages.page().get());
        Cards.show(perform, workbench.canPerform());
    }

    private void read() {
        workbench.pulse();
        notices.follow();
        if (bell != null && bell.hasNews()) {
            answer(bell.next());
        }
        if (SystemTheme.takeNews()) {
            obey(desk.preferences().get());
        }
        desk.live().read();
        desk.findings().follow();
    }

    private void obey(Settings settings) {
        desk.theme().paletteProperty().set(Palette.of(settings.theme()));
        desk.document().setMostBytes((long) settings.undoMegabytes() << 20);
        desk.studio().setBacklog(TimeUnit.MINUTES.toNanos(settings.backlogMinutes()));
        workbench.chooseAudio(settings);
        desk.commands().setFrench(settings.letters() == Settings.Letters.AZERTY);
    }

    private void follow() {
        top.follow();
        perform.setSelected(desk.studio().isPerforming());
    }

    /** Something went wrong in Dibble itself: see {@link Notifications#noteMistake}. Any thread. */
    void noteMistake(Path log, Runnable show) {
        notices.noteMistake(log, show);
    }

    /** Closes the window, after asking in place where something would be lost. */
    void close() {
        files.close();
    }

    /** Releases keys that are played by typing, since the window lost the focus. */
    void lostFocus() {
        live.letGoTyped();
        desk.commands().forgetKeys();
    }

    private Node focused() {
        return getScene() == null ? null : getScene().getFocusOwner();
    }

    private void typed(KeyEvent event) {
        // A key that went down as music goes up as music, wherever the focus is by then.
        boolean down = event.getEventType() == KeyEvent.KEY_PRESSED;
        if (!(down && focused() instanceof TextInputControl) && live.typed(event)) {
            event.consume();
        }
    }

    private void key(KeyEvent event) {
        if (desk.commands().take(event, focused()) || event.getCode() == KeyCode.ESCAPE && pages.escape()) {
            event.consume();
        }
    }
}
