package dibble.presentation.sets;

import dibble.presentation.Subscription;
import dibble.session.SessionSet;
import java.util.function.UnaryOperator;

/** The open set, and its actions. */
public interface SetActions {
    /** The set that is open, or null. */
    SessionSet set();

    /** The place of the session that is on the desk, or -1 where it is none of the set. */
    int place();

    /** Returns the name of a session of the set: its file name without the extension. */
    String name(int place);

    /** Adds a listener for changes. */
    Subscription listen(Runnable listener);

    /** Asks for a name and a file, and begins a set. */
    void begin();

    /** Asks for a set, and opens it. */
    void open();

    /** Changes the set, and saves it. */
    void change(UnaryOperator<SessionSet> change);

    /** Adds the session that is open; tells where it has no file yet. */
    void addThis();

    /** Asks for a session, and adds it. */
    void add();

    /** Takes a session of the set on; what hands hold then rings until they let go. */
    void go(int place);

    /** Takes on the session that comes some places later, or earlier by a negative number. */
    void step(int by);

    /** Asks where, and writes all its sheets as one PDF. */
    void export();

    /** Assigns the next moved controller to advance, or to go back. */
    void learn(boolean forNext);

    /** Returns true if a pedal is waited for. */
    boolean isLearning();

    /** Leaves the set; the session stays. */
    void leave();
}
