package dibble.desktop.ui;

import dibble.presentation.Command;
import dibble.presentation.Subscription;
import java.util.List;

/** A view of the window: nodes and binding. What it decides is its presenter's. */
public interface View {
    /** Begins to follow document and music; the subscription ends all that it registered. */
    Subscription open();

    /** Ends what the view waits for, after Esc that nothing else took. Returns whether there was anything. */
    default boolean escape() {
        return false;
    }

    /** What can be done only while it is shown. */
    default List<Command> commands() {
        return List.of();
    }
}
