package dibble.session;

import java.util.Objects;
import java.util.function.UnaryOperator;

/**
 * A named change of a session.
 *
 * @param name the name that undo and redo show
 * @param change computes the changed session; returns the same session where nothing changes
 */
public record Edit(String name, UnaryOperator<Session> change) {
    /** Checks that both are there. */
    public Edit {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(change, "change");
    }
}
