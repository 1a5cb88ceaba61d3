package dibble.desktop.app;

import dibble.desktop.scenes.ScenesView;
import dibble.desktop.sounds.SoundsView;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.edits.ControlEdits;
import dibble.gear.PartRef;
import dibble.presentation.Navigator;
import dibble.presentation.Subscription;
import dibble.presentation.app.Page;
import dibble.routing.Scene;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.Node;
import javafx.scene.layout.StackPane;

/** The views, of which one is shown at a time, made when they are first shown; and the way from a word to its thing. */
final class Pages extends StackPane {
    private final ViewContext desk;
    private final Map<Page, Supplier<? extends Node>> makers = new EnumMap<>(Page.class);
    private final Map<Page, Node> views = new EnumMap<>(Page.class);
    private final ReadOnlyObjectWrapper<Page> page = new ReadOnlyObjectWrapper<>();
    private Subscription open = Subscription.NONE;

    /** The view to which scenes and checks lead back. */
    private Page before = Page.KEYS;

    Pages(ViewContext desk) {
        this.desk = desk;
        // Below this the scroll bars take over; nothing pushes the live line out of the window.
        setMinHeight(120);
    }

    /** Says how a view is made: a node that is a {@link View}. */
    void put(Page which, Supplier<? extends Node> maker) {
        makers.put(which, maker);
    }

    /** Returns the visible view; null before the first. */
    ReadOnlyObjectProperty<Page> page() {
        return page.getReadOnlyProperty();
    }

    Node view(Page which) {
        return views.computeIfAbsent(which, it -> makers.get(it).get());
    }

    /** Shows a view. */
    void show(Page next) {
        if (next == page.get()) {
            return;
        }
        desk.pointer().cancel();
        desk.document().cancelGesture();
        close();
        if (page.get() != null && Page.TABS.contains(page.get())) {
            before = page.get();
        }
        Node node = view(next);
        View view = (View) node;
        getChildren().setAll(node);
        open = desk.commands().addOfView(view.commands()).and(view.open());
        page.set(next);
        // No button has the focus then: Space plays and stops.
        node.requestFocus();
    }

    /** Shows a view, or the one before where it is shown already. */
    void turn(Page which) {
        show(page.get() == which ? before : which);
    }

    /** Cancels a pending gesture of the view. Returns whether there was any. */
    boolean escape() {
        return page.get() != null && ((View) view(page.get())).escape();
    }

    void close() {
        open.unsubscribe();
        open = Subscription.NONE;
    }

    /** Shows a thing of the session in the view that it belongs to. */
    void show(Navigator.Thing thing) {
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
                desk.selection().partAlone(id);
                show(Page.GEAR);
            }
            case INSTRUMENT -> {
                desk.selection().instrumentAlone(id);
                show(Page.GEAR);
            }
            case SOURCE -> {
                desk.selection().sourceAlone(id);
                show(Page.GEAR);
            }
            case SCENE -> {
                desk.selection().scene().set(id);
                ((ScenesView) view(Page.SCENES)).showLarge(false);
                show(Page.SCENES);
            }
            case TRACK -> show(Page.TAKES);
            case SOUND -> {
                ((SoundsView) view(Page.SOUNDS)).choose(PartRef.parse(id));
                show(Page.SOUNDS);
            }
        }
    }

    /** An object of another scene is visible in that scene only. */
    private void callIfElsewhere(Optional<Scene> scene) {
        scene.ifPresent(it -> desk.callScene(it.id()));
    }
}
