package dibble.session;

import dibble.routing.Routing;

/**
 * A session without the preview that a window may show. Only this type is saved, journaled, exported, recorded onto and
 * edited in the background, so the compiler keeps previews out of files. Immutable.
 */
public final class Kept {
    private final Session session;
    private final Performance performance;

    private Kept(Session session, Performance performance) {
        this.session = session;
        this.performance = performance;
    }

    /** Wraps a session that no document shows, such as one that was read from a file. */
    public static Kept of(Session session, Performance performance) {
        return new Kept(session, performance);
    }

    /** Returns the session. */
    public Session session() {
        return session;
    }

    /** Returns how the session is played. */
    public Performance performance() {
        return performance;
    }

    /** Plans where its events go. */
    public Routing routing() {
        return session.routing(performance);
    }
}
