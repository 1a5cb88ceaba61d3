package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.desktop.live.LiveLine;
import dibble.desktop.scenes.ScenesView;
import dibble.desktop.ui.Command;
import dibble.desktop.ui.Desk;
import dibble.presentation.app.MidiFiles;
import dibble.presentation.app.Page;
import dibble.presentation.app.SessionFiles;
import dibble.presentation.help.HelpTopic;
import dibble.presentation.sets.SetActions;
import dibble.user.Settings;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;

/** What can be done in every view. */
final class WindowCommands {
    /** Scenes that have a key of their own: F1 to F12. */
    private static final int CALLED = 12;

    private WindowCommands() {}

    /**
     * What the window itself does.
     *
     * @param list shows all commands
     * @param demo has the stand-ins play, or stop
     * @param help shows a page of the help
     * @param exportSheet asks where the routing sheet is to be written
     * @param sets the set that is open
     * @param minutes begins or takes up the first five minutes
     */
    record Others(
            Runnable list,
            Runnable demo,
            Consumer<HelpTopic> help,
            Runnable minutes,
            Runnable exportSound,
            Runnable exportSheet,
            SetActions sets) {}

    static List<Command> of(
            Workbench workbench, Pages pages, SessionFiles files, MidiFiles midi, LiveLine live, Others others) {
        List<Command> all = new ArrayList<>();
        all.addAll(ofFiles(files, midi, pages, others));
        all.addAll(ofViews(workbench.desk(), pages));
        all.addAll(ofPlaying(workbench, live));
        all.add(Command.of("keys-and-commands", say("window-commands.keys-and-commands"), others.list)
                .typed("?")
                .about(say("window-commands.search-all-commands-and-their")));
        all.add(Command.of("event-log", say("common.event-log"), live::showPassed)
                .about(say("live-panels.every-event-that-came-in")));
        all.add(Command.of("next-session", say("window-commands.next-session"), () -> others.sets.step(1))
                .key("Shortcut+Page Down")
                .about(say("window-commands.next-session-of-the-set"))
                .when(() -> others.sets.set() != null));
        all.add(Command.of("previous-session", say("window-commands.previous-session"), () -> others.sets.step(-1))
                .key("Shortcut+Page Up")
                .about(say("window-commands.previous-session-of-the-set"))
                .when(() -> others.sets.set() != null));
        all.add(Command.of("play-demo", say("main-window.play-demo"), others.demo)
                .about(say("main-window.the-stand-ins-play-the"))
                .when(workbench::canPerform));
        all.add(Command.of("first-minutes", say("window-commands.first-five-minutes"), others.minutes));
        all.add(Command.of(
                "help",
                say("window-commands.help-on-this-view"),
                () -> others.help.accept(pages.page().get().help())));
        all.add(Command.of(
                "nothing-sounds",
                say("window-commands.nothing-sounds-what-now"),
                () -> others.help.accept(HelpTopic.NOTHING_SOUNDS)));
        all.add(Command.of("about", say("window-commands.about-dibble"), () -> others.help.accept(HelpTopic.ABOUT)));
        return all;
    }

    private static List<Command> ofFiles(SessionFiles files, MidiFiles midi, Pages pages, Others others) {
        return List.of(
                Command.of("new-session", say("common.new-session"), () -> files.begin(() -> pages.show(Page.GEAR)))
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
                Command.of("export-sound", say("levels-view.export-sound"), others.exportSound)
                        .key("Shortcut+Shift+W")
                        .about(say("about.export-sound")),
                Command.of("export-sheet", say("window-commands.export-sheet"), others.exportSheet)
                        .about(say("window-commands.as-pdf-html-or-csv")),
                Command.of("close", say("window-commands.quit"), files::close).key("Shortcut+Q"));
    }

    private static List<Command> ofViews(Desk desk, Pages pages) {
        List<Command> all = new ArrayList<>();
        for (Page page : Page.TABS) {
            all.add(Command.of("show-" + page.name().toLowerCase(Locale.ROOT), page.title(), () -> pages.show(page))
                    .key("Shortcut+" + (page.ordinal() + 1)));
        }
        all.add(Command.of("sounds", say("window-commands.sounds"), () -> pages.turn(Page.SOUNDS))
                .about(say("about.sounds")));
        all.add(Command.of("scenes", say("window-commands.scenes"), () -> pages.turn(Page.SCENES))
                .key("Shortcut+7")
                .about(say("window-commands.all-scenes-and-how-they")));
        all.add(Command.of("scene-large", say("window-commands.large-scene-display"), () -> showLarge(pages))
                .key("Shortcut+L")
                .about(say("window-commands.the-current-and-the-next")));
        all.add(Command.of("checks", say("window-commands.checks"), () -> pages.turn(Page.CHECKS))
                .key("Shortcut+8")
                .about(say("window-commands.warnings-and-suggested-fixes")));
        all.add(Command.of("set", say("window-commands.set"), () -> pages.show(Page.SET))
                .about(say("window-commands.several-sessions-in-an-order")));
        all.add(Command.of("print-sheet", say("window-commands.print-sheet"), () -> pages.show(Page.SHEET))
                .key("Shortcut+P")
                .about(say("window-commands.the-routing-sheet-to-print")));
        all.add(Command.of(
                        "messages",
                        say("window-commands.messages"),
                        () -> desk.ask().tellAgain())
                .key("Shortcut+Shift+I"));
        all.add(Command.of(
                        "switch-theme",
                        say("window-commands.switch-theme"),
                        () -> desk.preferences()
                                .change(settings -> settings.withTheme(
                                        desk.theme().palette().isDark() ? Settings.Theme.DAY : Settings.Theme.NIGHT)))
                .key("Shortcut+D"));
        all.add(Command.of("settings", say("window-commands.settings"), () -> pages.show(Page.SETTINGS))
                .key("Shortcut+COMMA"));
        return all;
    }

    private static void showLarge(Pages pages) {
        ScenesView scenes = (ScenesView) pages.view(Page.SCENES);
        scenes.showLarge(pages.page().get() != Page.SCENES || !scenes.isLarge());
        pages.show(Page.SCENES);
    }

    private static List<Command> ofPlaying(Workbench workbench, LiveLine live) {
        Desk desk = workbench.desk();
        List<Command> all = new ArrayList<>(List.of(
                Command.of(
                                "undo",
                                say("window-commands.undo"),
                                () -> desk.document().undo())
                        .key("Shortcut+Z")
                        .whileHeld(),
                Command.of(
                                "redo",
                                say("window-commands.redo"),
                                () -> desk.document().redo())
                        .key("Shortcut+Shift+Z")
                        .key("Shortcut+Y")
                        .whileHeld(),
                Command.of("record", say("common.record"), workbench::record)
                        .key("Shortcut+R")
                        .about(say("window-commands.record-all-sources-or-stop")),
                Command.of("play", say("window-commands.play-or-stop"), workbench::playOrStop)
                        .key("Space")
                        .about(say("window-commands.play-the-tracks-or-stop")),
                Command.of("silence", say("common.silence"), () -> {
                            live.letGoTyped();
                            workbench.silence();
                        })
                        .key("Shortcut+PERIOD")
                        .about(say("window-commands.all-notes-off-pedals-up")),
                Command.of("why", say("window-commands.why"), live::why)
                        .key("W")
                        .about(say("window-commands.shows-what-becomes-of-a"))));
        for (int i = 1; i <= CALLED; i++) {
            int number = i;
            all.add(Command.of(
                            "call-scene-" + i, say("window-commands.switch-to-scene", i), () -> call(desk, number - 1))
                    .key("F" + i)
                    .when(() -> desk.session().scenes().size() >= number));
        }
        return all;
    }

    private static void call(Desk desk, int place) {
        desk.callScene(desk.session().scenes().get(place).id());
    }
}
