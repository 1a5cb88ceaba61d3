package dibble.presentation;

/** The text that the user is typing into a field and has not committed yet. */
public interface Entries {
    /** No field is open. */
    Entries NONE = new Entries() {
        @Override
        public void commit() {
            // There is nothing to commit.
        }

        @Override
        public void drop() {
            // There is nothing to drop.
        }
    };

    /** Commits the text, as if Enter had been pressed: before the session is saved, exported or left. */
    void commit();

    /** Drops the text: the object that it was typed for is gone. */
    void drop();
}
