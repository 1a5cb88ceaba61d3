package dibble.presentation;

import java.util.List;

/** Asks the user and tells the user, without waiting: an answer is an action that runs later, or never. */
public interface Prompter {
    /** An answer that can be given. */
    record Answer(String label, Runnable action) {}

    /** Takes a text that was typed. */
    @FunctionalInterface
    interface TextTaker {
        /** @param done closes the question, now or later; until then it stays open with its text */
        void take(String text, Runnable done);
    }

    /** Asks; each answer ends the question, and it can be cancelled. */
    void ask(String text, List<Answer> answers);

    /** @param leaving the words for leaving the question */
    void ask(String text, List<Answer> answers, String leaving);

    /** Asks for a text, such as a name. */
    void askText(String text, String given, String verb, List<Answer> more, TextTaker taker);

    /**
     * Asks for the path of a file or folder, which can be typed or chosen.
     *
     * @param saving whether something will be written there
     */
    void askPath(FileKind kind, String text, String given, String verb, boolean saving, TextTaker taker);

    /** Tells something that went wrong, or was done. */
    void tell(String text);

    /** The same with something that can be done about it. */
    void tell(String text, Answer answer);
}
