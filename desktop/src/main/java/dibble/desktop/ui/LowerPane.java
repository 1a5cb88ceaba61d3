package dibble.desktop.ui;

import dibble.presentation.Command;
import dibble.presentation.TimeScale;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;

/** A pane that opens below tracks, on their time scale. */
public interface LowerPane {
    /** Makes what opens below. */
    @FunctionalInterface
    interface Maker {
        /**
         * @param head how wide the heads of tracks are, in pixels
         * @param stale has it shown again in the next frame
         */
        LowerPane make(ViewContext desk, double head, Runnable stale);
    }

    /** Returns its node. */
    Node node();

    boolean isOpen();

    /** Opens a track, alone or beside those that are open. */
    void open(String track, boolean beside);

    void close();

    /** Cancels an open question, since other content is shown. */
    void leave();

    /** Shows everything as it is now. */
    void show(TimeScale scale);

    /** Follows the music, in every frame. */
    void follow();

    /** Returns true if something is still to come. */
    boolean isWorking();

    /** Returns true if something has come since this was asked last. */
    boolean hasNews();

    /** Returns its commands. */
    List<Command> commands();

    /** The first tick that should be seen when it has been opened, and how many; empty while that is not known yet. */
    Optional<long[]> wanted();
}
