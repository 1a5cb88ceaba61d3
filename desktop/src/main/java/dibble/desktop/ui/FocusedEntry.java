package dibble.desktop.ui;

import dibble.presentation.Entries;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Scene;

/** The entry of the field that has the focus in a window. */
public final class FocusedEntry implements Entries {
    private final Supplier<Scene> scene;

    /** @param scene the scene of the window; null before it is shown */
    public FocusedEntry(Supplier<Scene> scene) {
        this.scene = scene;
    }

    @Override
    public void commit() {
        with(EntryField::commitPending);
    }

    @Override
    public void drop() {
        with(EntryField::restore);
    }

    private void with(Consumer<EntryField> action) {
        EntryField field = EntryField.pendingIn(scene.get());
        if (field != null) {
            action.accept(field);
        }
    }
}
