package dibble.desktop.ui;

import dibble.presentation.Command;
import dibble.presentation.Subscription;
import java.util.List;

/** A view of the window: nodes and their binding. Its presenter has the logic. */
public interface View {
    /** Begins to follow document and music; the subscription ends all that it registered. */
    Subscription open();

    /** Cancels a pending gesture, after Esc that nothing else handled. Returns whether there was any. */
    default boolean escape() {
        return false;
    }

    /** Returns the commands that are available only while it is visible. */
    default List<Command> commands() {
        return List.of();
    }
}
