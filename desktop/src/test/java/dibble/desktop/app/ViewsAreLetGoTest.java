package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.desktop.channels.ChannelsView;
import dibble.desktop.checks.ChecksView;
import dibble.desktop.controls.ControlsView;
import dibble.desktop.gear.GearView;
import dibble.desktop.keys.KeysView;
import dibble.desktop.levels.LevelsView;
import dibble.desktop.live.LiveLine;
import dibble.desktop.notes.NotesPane;
import dibble.desktop.scenes.ScenesView;
import dibble.desktop.settings.SettingsView;
import dibble.desktop.sounds.SoundsView;
import dibble.desktop.takes.TakesView;
import dibble.desktop.ui.View;
import dibble.edits.GearEdits;
import dibble.presentation.SoundPreview;
import dibble.presentation.Subscription;
import dibble.presentation.app.NamesFiles;
import dibble.session.Session;
import dibble.sound.SoundBank;
import java.lang.ref.WeakReference;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;
import org.junit.jupiter.api.Test;

/** What was opened on a session that lives on is let go of when it is closed. */
class ViewsAreLetGoTest extends WindowTest {
    private final StackPane place = new StackPane();

    @Override
    Session session() {
        return LamplightersRound.session();
    }

    @Override
    void start() {
        super.start();
        // In the window, so that it is styled and laid out as any view is.
        ((Pane) window.getTop()).getChildren().add(place);
        place.setMaxHeight(0);
    }

    private Map<String, Supplier<Node>> views() {
        Map<String, Supplier<Node>> views = new LinkedHashMap<>();
        views.put(
                "Gear",
                () -> new GearView(
                        desk(), point -> {}, path -> {}, new NamesFiles(desk().context(), null, null, null)));
        views.put("Keys", () -> new KeysView(desk()));
        views.put("Channels", () -> new ChannelsView(desk()));
        views.put("Controls", () -> new ControlsView(desk()));
        views.put("Takes", () -> new TakesView(desk(), NotesPane::new));
        views.put("Levels", () -> new LevelsView(desk(), wanted -> {}));
        views.put("Sounds", () -> new SoundsView(desk(), SoundPreview.NONE, () -> {}));
        views.put("Scenes", () -> new ScenesView(desk()));
        views.put("Checks", () -> new ChecksView(desk()));
        views.put("Settings", () -> new SettingsView(desk(), List::of));
        return views;
    }

    /** Shows a view, edits under it, closes it; nothing here keeps it. */
    private WeakReference<Node> visit(Supplier<Node> maker) {
        Node[] view = new Node[1];
        Subscription[] open = new Subscription[1];
        onFx(() -> {
            view[0] = maker.get();
            place.getChildren().setAll(view[0]);
            open[0] = desk().commands().add(((View) view[0]).commands()).and(((View) view[0]).open());
            desk().document().edit("a source more", session -> GearEdits.moveSource(session, "tansy", -1));
        });
        until(() -> desk().jobs().running().isEmpty());
        onFx(() -> {
            open[0].unsubscribe();
            place.getChildren().clear();
            desk().document().undo();
        });
        return new WeakReference<>(view[0]);
    }

    @Test
    void everyViewIsCollectedOnceItIsClosed() {
        // What is read once is there, so that its list is full.
        SoundBank.usual();
        for (Map.Entry<String, Supplier<Node>> view : views().entrySet()) {
            WeakReference<Node> gone = visit(view.getValue());
            collected(view.getKey(), gone);
        }
    }

    @Test
    void soIsTheLiveLine() {
        WeakReference<?>[] gone = new WeakReference<?>[1];
        onFx(() -> {
            LiveLine line = new LiveLine(desk(), new StackPane());
            line.open().unsubscribe();
            gone[0] = new WeakReference<>(line);
        });
        collected("the live line", gone[0]);
    }

    private void collected(String what, WeakReference<?> gone) {
        // The toolkit remembers what was laid out last; another pulse lets go of it.
        until(() -> {
            System.gc();
            return gone.get() == null;
        });
        assertThat(gone.get()).as(what).isNull();
    }
}
