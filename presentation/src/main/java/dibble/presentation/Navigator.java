package dibble.presentation;

import dibble.edits.ControlEdits;
import dibble.gear.PartRef;
import dibble.session.Session;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/** Leads from a word about a thing to the thing itself: whoever shows it is told to. */
public final class Navigator {
    /** What can be shown. */
    public enum Kind {
        ZONE,
        CONTROL,
        PART,
        SCENE,
        INSTRUMENT,
        SOURCE,
        TRACK,
        /** What a part can sound like; its id is the part's. */
        SOUND
    }

    /**
     * One thing of the session.
     *
     * @param id its id; a part's as {@code instrument/part}
     */
    public record Thing(Kind kind, String id) {}

    private Consumer<Thing> shower = thing -> {};

    /** Says who shows things. */
    public void onShow(Consumer<Thing> next) {
        shower = next;
    }

    /** Has a thing shown. */
    public void show(Thing thing) {
        shower.accept(thing);
    }

    /** What an id names in a session, where ids of several kinds are told together; the most particular comes first. */
    public static Optional<Thing> find(Session session, String id) {
        return List.of(Kind.values()).stream()
                .filter(kind -> isThere(session, kind, id))
                .findFirst()
                .map(kind -> new Thing(kind, id));
    }

    /** Returns true if there is such a thing. */
    public static boolean isThere(Session session, Kind kind, String id) {
        return switch (kind) {
            case ZONE -> session.zone(id).isPresent();
            case CONTROL -> ControlEdits.find(session, id).isPresent();
            case PART, SOUND ->
                id.contains("/") && session.part(PartRef.parse(id)).isPresent();
            case SCENE -> session.scene(id).isPresent();
            case INSTRUMENT -> session.instrument(id).isPresent();
            case SOURCE -> session.source(id).isPresent();
            case TRACK -> session.track(id).isPresent();
        };
    }
}
