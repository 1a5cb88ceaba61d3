package dibble.session;

import java.util.function.Consumer;
import java.util.function.UnaryOperator;

/**
 * A change that follows the user's hand. It is shown and played while it lasts, and is one step of undo once it is finished. A
 * document has one gesture at a time; a gesture that has ended does nothing more.
 */
public final class Gesture {
    /** The reason for which a gesture ended before its owner finished it. */
    public enum End {
        /** The user, an undo or another session ended it. */
        CANCELLED,
        /** Another gesture began. */
        REPLACED
    }

    private final Document document;
    private final Consumer<End> ended;
    private UnaryOperator<Session> shown;
    private Session computedFrom;
    private Session boundTo;

    Gesture(Document document, Consumer<End> ended) {
        this.document = document;
        this.ended = ended;
    }

    /** Returns whether the gesture goes on. */
    public boolean isOpen() {
        return document.gesture() == this;
    }

    /** Makes the gesture end where the session below it is edited, since it refers to positions in that session. */
    public Gesture bind() {
        boundTo = document.kept().session();
        return this;
    }

    /** Returns whether the gesture can go on above a session. */
    boolean holdsAbove(Session session) {
        return boundTo == null || boundTo == session;
    }

    /** Notifies the owner. */
    void end(End how) {
        ended.accept(how);
    }

    /** Shows a change. It is applied again where the session below it is edited. */
    public void preview(UnaryOperator<Session> change) {
        if (isOpen()) {
            computedFrom = null;
            shown = change;
            document.showGesture();
        }
    }

    /**
     * Shows a result that was computed from a session. It disappears where the session is edited.
     *
     * @param from the session without previews that the result was computed from
     */
    public void preview(Session from, Session result) {
        if (isOpen()) {
            computedFrom = from;
            shown = session -> result;
            document.showGesture();
        }
    }

    /** Returns a session with the preview of the gesture. */
    Session over(Session session) {
        return shown == null || computedFrom != null && computedFrom != session ? session : shown.apply(session);
    }

    /** Ends the gesture with a step of undo. */
    public void finish(Edit edit) {
        if (isOpen()) {
            document.finish(edit);
        }
    }

    /** Ends the gesture and restores the session. The owner is not notified. */
    public void leave() {
        if (isOpen()) {
            document.leaveGesture();
        }
    }
}
