package dibble.presentation;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/**
 * The questions that wait for an answer; the first of them is shown. None is lost: one that a user's own command asks, or
 * that follows from an answer, is shown at once, and the one before comes back after it; one that comes by itself waits
 * behind the others, so that nobody's keys go astray. Belongs to the thread that edits.
 *
 * @param <Q> the questions, told apart by identity or equality
 */
public final class QuestionQueue<Q> {
    private final Deque<Q> waiting = new ArrayDeque<>();

    /** Questions that were answered and stay until it is known what comes of the answer. */
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

    /** Marks a question as answered that stays meanwhile: what is asked next is about this answer. */
    public void answer(Q question) {
        answered.add(question);
    }

    /** Takes a question away, wherever it stands. */
    public void end(Q question) {
        waiting.remove(question);
        answered.remove(question);
        // One that comes back is asked anew.
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
