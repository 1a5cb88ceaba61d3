package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.presentation.AppContext;
import dibble.presentation.Command;
import dibble.presentation.help.HelpTopic;
import dibble.presentation.sets.SetActions;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** The commands of all views. */
public final class WindowCommands {
    /** The number of scenes with a key: F1 to F12. */
    private static final int CALLED = 12;

    private WindowCommands() {}

    /**
     * Returns them.
     *
     * @param exportSheet asks where the routing sheet is to be written
     */
    public static List<Command> of(
            AppServices services,
            SessionFiles files,
            MidiFiles midi,
            Runnable exportSheet,
            SetActions sets,
            WindowActions window) {
        List<Command> all = new ArrayList<>();
        all.addAll(ofFiles(files, midi, exportSheet, window));
        all.addAll(ofViews(window));
        all.addAll(ofPlaying(services, window));
        all.add(Command.of("keys-and-commands", say("window-commands.keys-and-commands"), window::listCommands)
                .typed("?")
                .about(say("window-commands.search-all-commands-and-their")));
        all.add(Command.of("event-log", say("common.event-log"), window::showEvents)
                .about(say("live-panels.every-event-that-came-in")));
        all.add(Command.of("next-session", say("window-commands.next-session"), () -> sets.step(1))
                .key("Shortcut+Page Down")
                .about(say("window-commands.next-session-of-the-set"))
                .when(() -> sets.set() != null));
        all.add(Command.of("previous-session", say("window-commands.previous-session"), () -> sets.step(-1))
                .key("Shortcut+Page Up")
                .about(say("window-commands.previous-session-of-the-set"))
                .when(() -> sets.set() != null));
        all.add(Command.of("play-demo", say("main-window.play-demo"), window::playDemo)
                .about(say("main-window.the-stand-ins-play-the"))
                .when(services::canPerform));
        all.add(Command.of("first-minutes", say("window-commands.first-five-minutes"), window::firstMinutes));
        all.add(Command.of(
                "help",
                say("window-commands.help-on-this-view"),
                () -> window.help(window.page().help())));
        all.add(Command.of(
                "nothing-sounds",
                say("window-commands.nothing-sounds-what-now"),
                () -> window.help(HelpTopic.NOTHING_SOUNDS)));
        all.add(Command.of("about", say("window-commands.about-dibble"), () -> window.help(HelpTopic.ABOUT)));
        return all;
    }

    private static List<Command> ofFiles(
            SessionFiles files, MidiFiles midi, Runnable exportSheet, WindowActions window) {
        return List.of(
                Command.of("new-session", say("common.new-session"), () -> files.begin(() -> window.show(Page.GEAR)))
                        .key("Shortcut+N"),
                Command.of("open", say("window-commands.open"), files::open).key("Shortcut+O"),
                Command.of("save", say("common.save"), files::save).key("Shortcut+S"),
                Command.of("save-as", say("window-commands.save-as"), files::saveAs)
                        .key("Shortcut+Shift+S"),
                Command.of("bring-in-a-midi-file", say("window-commands.import-midi-file"), midi::bringIn)
                        .key("Shortcut+I"),
                Command.of("export-tracks", say("window-commands.export-tracks"), midi::export)
                        .key("Shortcut+E"),
                Command.of("export-on-one-track", say("window-commands.export-on-one-track"), midi::exportOneTrack)
                        .key("Shortcut+Shift+E"),
                Command.of(
                                "export-a-file-for-each-track",
                                say("window-commands.export-one-file-per-track"),
                                midi::exportFiles)
                        .key("Shortcut+Shift+F"),
                Command.of("export-sound", say("levels-view.export-sound"), window::exportSound)
                        .key("Shortcut+Shift+W")
                        .about(say("about.export-sound")),
                Command.of("export-sheet", say("window-commands.export-sheet"), exportSheet)
                        .about(say("window-commands.as-pdf-html-or-csv")),
                Command.of("close", say("window-commands.quit"), files::close).key("Shortcut+Q"));
    }

    private static List<Command> ofViews(WindowActions window) {
        List<Command> all = new ArrayList<>();
        for (Page page : Page.TABS) {
            all.add(Command.of("show-" + page.name().toLowerCase(Locale.ROOT), page.title(), () -> window.show(page))
                    .key("Shortcut+" + (page.ordinal() + 1)));
        }
        all.add(Command.of("sounds", say("window-commands.sounds"), () -> window.turn(Page.SOUNDS))
                .about(say("about.sounds")));
        all.add(Command.of("scenes", say("window-commands.scenes"), () -> window.turn(Page.SCENES))
                .key("Shortcut+7")
                .about(say("window-commands.all-scenes-and-how-they")));
        all.add(Command.of("scene-large", say("window-commands.large-scene-display"), window::turnLargeScenes)
                .key("Shortcut+L")
                .about(say("window-commands.the-current-and-the-next")));
        all.add(Command.of("checks", say("window-commands.checks"), () -> window.turn(Page.CHECKS))
                .key("Shortcut+8")
                .about(say("window-commands.warnings-and-suggested-fixes")));
        all.add(Command.of("set", say("window-commands.set"), () -> window.show(Page.SET))
                .about(say("window-commands.several-sessions-in-an-order")));
        all.add(Command.of("print-sheet", say("window-commands.print-sheet"), () -> window.show(Page.SHEET))
                .key("Shortcut+P")
                .about(say("window-commands.the-routing-sheet-to-print")));
        all.add(Command.of("messages", say("window-commands.messages"), window::tellAgain)
                .key("Shortcut+Shift+I"));
        all.add(Command.of("switch-theme", say("window-commands.switch-theme"), window::switchTheme)
                .key("Shortcut+D"));
        all.add(Command.of("settings", say("window-commands.settings"), () -> window.show(Page.SETTINGS))
                .key("Shortcut+COMMA"));
        return all;
    }

    private static List<Command> ofPlaying(AppServices services, WindowActions window) {
        AppContext context = services.context();
        List<Command> all = new ArrayList<>(List.of(
                Command.of(
                                "undo",
                                say("window-commands.undo"),
                                () -> context.document().undo())
                        .key("Shortcut+Z")
                        .whileHeld(),
                Command.of(
                                "redo",
                                say("window-commands.redo"),
                                () -> context.document().redo())
                        .key("Shortcut+Shift+Z")
                        .key("Shortcut+Y")
                        .whileHeld(),
                Command.of("record", say("common.record"), services::record)
                        .key("Shortcut+R")
                        .about(say("window-commands.record-all-sources-or-stop")),
                Command.of("play", say("window-commands.play-or-stop"), services::playOrStop)
                        .key("Space")
                        .about(say("window-commands.play-the-tracks-or-stop")),
                Command.of("silence", say("common.silence"), () -> {
                            window.releaseTypedKeys();
                            services.silence();
                        })
                        .key("Shortcut+PERIOD")
                        .about(say("window-commands.all-notes-off-pedals-up")),
                Command.of("why", say("window-commands.why"), window::why)
                        .key("W")
                        .about(say("window-commands.shows-what-becomes-of-a"))));
        for (int i = 1; i <= CALLED; i++) {
            int number = i;
            all.add(Command.of(
                            "call-scene-" + i,
                            say("window-commands.switch-to-scene", i),
                            () -> call(context, number - 1))
                    .key("F" + i)
                    .when(() -> context.session().scenes().size() >= number));
        }
        return all;
    }

    private static void call(AppContext context, int place) {
        context.callScene(context.session().scenes().get(place).id());
    }
}
