package dibble.presentation;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/**
 * The open questions, of which the first is shown. None is lost. A question that a user's command asks, or that follows
 * from an answer, is shown at once, and the previous one returns after it. An unrequested question waits behind the
 * others, so that no keystroke reaches the wrong one. Confined to the editing thread.
 *
 * @param <Q> the questions, compared by equality
 */
public final class QuestionQueue<Q> {
    private final Deque<Q> waiting = new ArrayDeque<>();

    /** Answered questions that stay until the result of the answer is known. */
    private final Set<Q> answered = new HashSet<>();

    private boolean isAnswering;

    /** Returns the question that is shown. */
    public Optional<Q> shown() {
        return Optional.ofNullable(waiting.peekFirst());
    }

    /**
     * Asks a question.
     *
     * @param commanded whether a user's command asks it, rather than something in the background
     */
    public void ask(Q question, boolean commanded) {
        if (commanded || isAnswering || answered.contains(waiting.peekFirst())) {
            waiting.addFirst(question);
        } else {
            waiting.addLast(question);
        }
    }

    /** Marks a question as answered while it stays: the next question is about this answer. */
    public void answer(Q question) {
        answered.add(question);
    }

    /** Takes a question away, wherever it stands. */
    public void end(Q question) {
        waiting.remove(question);
        answered.remove(question);
        // A question that returns is asked again.
        answered.remove(waiting.peekFirst());
    }

    /** Takes a question away and runs its answer, which may ask the next one. */
    public void end(Q question, Runnable answer) {
        end(question);
        isAnswering = true;
        try {
            answer.run();
        } finally {
            isAnswering = false;
        }
    }
}
