package dibble.desktop.app;

import dibble.desktop.live.LiveLine;
import dibble.desktop.scenes.ScenesView;
import dibble.desktop.ui.Command;
import dibble.desktop.ui.Desk;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** What can be done in every view. */
final class WindowCommands {
    /** Scenes that have a key of their own: F1 to F12. */
    private static final int CALLED = 12;

    private WindowCommands() {}

    /** @param list shows all of them */
    static List<Command> of(
            Workbench workbench, Pages pages, SessionFiles files, MidiFiles midi, LiveLine live, Runnable list) {
        List<Command> all = new ArrayList<>();
        all.addAll(ofFiles(files, midi, pages));
        all.addAll(ofViews(workbench.desk(), pages));
        all.addAll(ofPlaying(workbench, live));
        all.add(Command.of("keys-and-commands", "Keys and commands…", list)
                .typed("?")
                .about("All commands with their keys, to be searched"));
        return all;
    }

    private static List<Command> ofFiles(SessionFiles files, MidiFiles midi, Pages pages) {
        return List.of(
                Command.of("new-session", "New session", () -> files.begin(() -> pages.show(Page.GEAR)))
                        .key("Shortcut+N"),
                Command.of("open", "Open…", files::open).key("Shortcut+O"),
                Command.of("save", "Save", files::save).key("Shortcut+S"),
                Command.of("save-as", "Save as…", files::saveAs).key("Shortcut+Shift+S"),
                Command.of("bring-in-a-midi-file", "Bring in a MIDI file…", midi::bringIn)
                        .key("Shortcut+I"),
                Command.of("export-tracks", "Export tracks…", midi::export).key("Shortcut+E"),
                Command.of("export-on-one-track", "Export on one track…", midi::exportOneTrack)
                        .key("Shortcut+Shift+E"),
                Command.of("export-a-file-for-each-track", "Export a file for each track…", midi::exportFiles)
                        .key("Shortcut+Alt+E"),
                Command.of("close", "Close", files::close).key("Shortcut+Q"));
    }

    private static List<Command> ofViews(Desk desk, Pages pages) {
        List<Command> all = new ArrayList<>();
        for (Page page : Page.TABS) {
            all.add(Command.of("show-" + page.name().toLowerCase(Locale.ROOT), page.title(), () -> pages.show(page))
                    .key("Shortcut+" + (page.ordinal() + 1)));
        }
        all.add(Command.of("scenes", "Scenes…", () -> pages.turn(Page.SCENES))
                .key("Shortcut+6")
                .about("All scenes, and what they differ in"));
        all.add(Command.of("scene-large", "Scene, large", () -> showLarge(pages))
                .key("Shortcut+L")
                .about("The present scene and the next, to be read from afar"));
        all.add(Command.of("checks", "Checks…", () -> pages.turn(Page.CHECKS))
                .key("Shortcut+7")
                .about("What would surprise you, with its mend"));
        all.add(Command.of("messages", "Messages…", () -> desk.ask().tellAgain())
                .key("Shortcut+M"));
        all.add(Command.of(
                        "day-or-night",
                        "Day or night",
                        () -> desk.preferences().change(settings -> settings.withNight(!settings.night())))
                .key("Shortcut+D"));
        all.add(Command.of("settings", "Settings…", () -> pages.show(Page.SETTINGS))
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
                Command.of("undo", "Undo", () -> desk.document().undo()).key("Shortcut+Z"),
                Command.of("redo", "Redo", () -> desk.document().redo())
                        .key("Shortcut+Shift+Z")
                        .key("Shortcut+Y"),
                Command.of("record", "Record", workbench::record)
                        .key("Shortcut+R")
                        .about("Record everybody, or stop"),
                Command.of("play", "Play or stop", workbench::playOrStop)
                        .key("Space")
                        .about("Play the tracks, or stop"),
                Command.of("silence", "Silence", () -> {
                            live.letGoTyped();
                            workbench.silence();
                        })
                        .key("Shortcut+PERIOD")
                        .about("All notes off, everything at rest"),
                Command.of("why", "Why?", live::why).key("W").about("What becomes of a key or a control, and why")));
        for (int i = 1; i <= CALLED; i++) {
            int number = i;
            all.add(Command.of("call-scene-" + i, "Call scene " + i, () -> call(desk, number - 1))
                    .key("F" + i)
                    .when(() -> desk.session().scenes().size() >= number));
        }
        return all;
    }

    private static void call(Desk desk, int place) {
        desk.callScene(desk.session().scenes().get(place).id());
    }
}
