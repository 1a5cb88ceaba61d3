package dibble.desktop.ui;

import dibble.presentation.AppContext;
import dibble.presentation.ContextServices;

/** What every view works on: the shared services without a toolkit, and those of the window. */
public record ViewContext(
        AppContext context, FrameTimer pulse, Theme theme, AskBar ask, Commands commands, Pointer pointer)
        implements ContextServices {
    /** What follows everything that a view shows: see {@link ViewUpdater}. */
    public ViewUpdater watch(Runnable draw) {
        return new ViewUpdater(this, draw);
    }
}
