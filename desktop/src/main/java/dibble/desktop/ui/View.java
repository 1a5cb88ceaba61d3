package dibble.desktop.ui;

import javafx.util.Subscription;

/** A view of the window. */
public interface View {
    /** Begins to follow document and music; the subscription ends all that it registered. */
    Subscription open();
}
