package dibble.desktop.ui;

import dibble.presentation.Subscription;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;

/**
 * The updates of a view: any change (document, selection, settings, theme, findings) marks it as outdated, and it is
 * drawn once, in the next frame. A closed view is not updated.
 */
public final class ViewUpdater {
    private final ViewContext desk;
    private final Runnable draw;
    private final List<Runnable> followers = new ArrayList<>();
    private final List<Supplier<Subscription>> others = new ArrayList<>();
    private boolean stale;

    /** @param draw shows everything as it is now */
    ViewUpdater(ViewContext desk, Runnable draw) {
        this.desk = desk;
        this.draw = draw;
    }

    /** Runs an update in every frame, after the drawing of outdated content, such as the state of the music. */
    public ViewUpdater each(Runnable follower) {
        followers.add(follower);
        return this;
    }

    /** Adds a subscription while the view is open; closing the view cancels it. */
    public ViewUpdater with(Supplier<Subscription> other) {
        others.add(other);
        return this;
    }

    /** Marks the view as outdated. */
    public void stale() {
        stale = true;
        desk.pulse().wake();
    }

    /** Begins to follow, until the subscription ends. */
    public Subscription open() {
        stale();
        Subscription all = Subscription.combine(
                desk.document().listen(this::stale)::run,
                desk.selection().listen(this::stale),
                desk.preferences().follow(settings -> stale()),
                desk.theme().paletteProperty().subscribe(palette -> stale())::unsubscribe,
                desk.findings().listen(this::stale),
                desk.pulse().each(this::frame));
        for (Supplier<Subscription> other : others) {
            all = all.and(other.get());
        }
        return all;
    }

    private void frame() {
        if (stale) {
            stale = false;
            draw.run();
        }
        followers.forEach(Runnable::run);
    }
}
