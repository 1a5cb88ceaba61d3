package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.edits.StartingPoint;
import dibble.presentation.Command;
import dibble.presentation.app.SessionFiles;
import dibble.routing.Scene;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.collections.ObservableList;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuBar;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;

/**
 * The menus File, Edit, View, Play and Help. Each is rebuilt from the table of commands when it opens, with the
 * commands of the visible view, the name of the undoable edit, and the present scenes.
 */
final class MenuStrip extends MenuBar {
    /** The number of scenes with a key, which are in the menu: F1 to F12. */
    private static final int SCENES = 12;

    private static final List<String> FILES_OUT = List.of(
            "save",
            "save-as",
            "",
            "bring-in-a-midi-file",
            "export-tracks",
            "export-on-one-track",
            "export-a-file-for-each-track",
            "export-sound",
            "",
            "print-sheet",
            "export-sheet",
            "",
            "set",
            "next-session",
            "previous-session",
            "",
            "close");
    private static final List<String> VIEWS = List.of(
            "show-gear",
            "show-keys",
            "show-channels",
            "show-controls",
            "show-takes",
            "show-levels",
            "",
            "sounds",
            "scenes",
            "scene-large",
            "checks",
            "",
            "why",
            "event-log",
            "messages",
            "",
            "switch-theme");
    private static final List<String> HELP =
            List.of("first-minutes", "help", "nothing-sounds", "keys-and-commands", "", "about");

    private final ViewContext desk;
    private final SessionFiles files;

    MenuStrip(ViewContext desk, SessionFiles files) {
        this.desk = desk;
        this.files = files;
        setId("menus");
        setUseSystemMenuBar(true);
        setAccessibleText(say("menu-strip.menus"));
        setMinWidth(USE_PREF_SIZE);
        getMenus()
                .setAll(
                        menu("file", say("menu-strip.file"), this::file),
                        menu("edit", say("menu-strip.edit"), this::edit),
                        menu("view", say("menu-strip.view"), items -> add(items, VIEWS)),
                        menu("play", say("menu-strip.play"), this::play),
                        menu("help", say("menu-strip.help"), items -> add(items, HELP)));
    }

    /** Fills a menu. */
    private interface Filling {
        void into(ObservableList<MenuItem> items);
    }

    private static Menu menu(String id, String words, Filling filling) {
        Menu menu = new Menu(words);
        menu.setId("menu-" + id);
        // A menu without entries is not opened at all.
        menu.getItems().add(new SeparatorMenuItem());
        menu.setOnShowing(event -> {
            if (event.getTarget() == menu) {
                menu.getItems().clear();
                filling.into(menu.getItems());
            }
        });
        // The toolkit would handle the keys of entries itself, including letters in text fields.
        menu.setOnHidden(event -> {
            if (event.getTarget() == menu) {
                menu.getItems().setAll(new SeparatorMenuItem());
            }
        });
        return menu;
    }

    private void add(ObservableList<MenuItem> items, List<String> ids) {
        for (String id : ids) {
            items.add(
                    id.isEmpty()
                            ? new SeparatorMenuItem()
                            : item(desk.commands().get(id)));
        }
    }

    private MenuItem item(Command command) {
        return item(command, command.words());
    }

    private MenuItem item(Command command, String words) {
        MenuItem item = desk.commands().item(command);
        item.setText(words);
        return item;
    }

    private void file(ObservableList<MenuItem> items) {
        add(items, List.of("new-session"));
        Menu points = new Menu(say("session-box.new-from-a-starting-point"));
        points.setId("menu-starting-points");
        for (StartingPoint point : StartingPoint.values()) {
            String id = "start-" + point.name().toLowerCase(Locale.ROOT);
            points.getItems().add(Cards.item(id, point.title(), () -> files.begin(point)));
        }
        items.add(points);
        add(items, List.of("open"));
        Menu recent = new Menu(say("menu-strip.open-recent"));
        recent.setId("menu-recent");
        List<Path> paths = desk.preferences().memory().recent();
        for (int i = 0; i < paths.size(); i++) {
            Path path = paths.get(i);
            recent.getItems().add(Cards.item("recent-" + i, path.toString(), () -> files.openAsked(path)));
        }
        recent.setDisable(paths.isEmpty());
        items.add(recent);
        add(items, FILES_OUT);
    }

    private void edit(ObservableList<MenuItem> items) {
        items.add(back("undo", desk.document().undoName()));
        items.add(back("redo", desk.document().redoName()));
        List<Command> ofView = desk.commands().ofView();
        if (!ofView.isEmpty()) {
            items.add(new SeparatorMenuItem());
            items.addAll(desk.commands().items(ofView));
        }
        items.add(new SeparatorMenuItem());
        add(items, List.of("settings"));
    }

    private MenuItem back(String id, Optional<String> what) {
        Command command = desk.commands().get(id);
        MenuItem item = item(
                command,
                what.map(it -> say("session-box.text", command.words(), it)).orElse(command.words()));
        item.setDisable(what.isEmpty());
        return item;
    }

    private void play(ObservableList<MenuItem> items) {
        add(items, List.of("record", "play", "silence", "", "play-demo"));
        List<Scene> scenes = desk.session().scenes();
        if (!scenes.isEmpty()) {
            items.add(new SeparatorMenuItem());
        }
        for (int i = 0; i < Math.min(SCENES, scenes.size()); i++) {
            items.add(item(
                    desk.commands().get("call-scene-" + (i + 1)),
                    say("scene-card.switch-to", scenes.get(i).name())));
        }
    }
}
