package dibble.presentation;

/** The text that the user is typing into a field and has not committed yet. */
public interface Entries {
    /** Commits the text, as if Enter had been pressed: before the session is saved, exported or left. */
    void commit();

    /** Drops the text: the object that it was typed for is gone. */
    void drop();
}
