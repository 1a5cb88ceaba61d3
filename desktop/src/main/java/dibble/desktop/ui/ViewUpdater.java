package dibble.desktop.ui;

import dibble.presentation.Subscription;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;

/**
 * How a view follows what it shows: whatever changes (document, selection, settings, theme, findings) marks it stale,
 * and it is drawn in the next frame, once. While it is closed it follows nothing.
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

    /** Has something run in every frame, after what is stale has been drawn: what follows the music. */
    public ViewUpdater each(Runnable follower) {
        followers.add(follower);
        return this;
    }

    /** Has something else followed while the view is open; a subscription can also be what is done as it closes. */
    public ViewUpdater with(Supplier<Subscription> other) {
        others.add(other);
        return this;
    }

    /** Marks what is shown as outdated. */
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
