package dibble.studio;

import dibble.files.SessionFormatException;
import dibble.routing.RoutingCompiler;
import dibble.routing.SlotAllocator;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.text.UserException;

/** Says whether a session can be played here, before it is on the desk. Belongs to the thread that asks. */
public final class Playable {
    private final SlotAllocator slots;

    Playable(SlotAllocator slots) {
        this.slots = slots;
    }

    /**
     * Refuses a session that cannot be played.
     *
     * @throws SessionFormatException saying why, in one line
     */
    public void check(Session session, Performance performance) throws SessionFormatException {
        try {
            RoutingCompiler.compile(session.routing(performance), slots);
            session.clock().to().forEach(slots::port);
        } catch (UserException e) {
            throw new SessionFormatException(e.getMessage());
        }
    }
}
