package dibble.desktop.ui;

import dibble.presentation.AppContext;
import dibble.presentation.ContextServices;

/** The context of views: the shared services without a toolkit, and those of the window. */
public record ViewContext(
        AppContext context, FrameTimer pulse, Theme theme, AskBar ask, Commands commands, Pointer pointer)
        implements ContextServices {
    /** Returns an updater that follows everything that a view shows: see {@link ViewUpdater}. */
    public ViewUpdater watch(Runnable draw) {
        return new ViewUpdater(this, draw);
    }
}
