package dibble.presentation;

import dibble.edits.ControlEdits;
import dibble.gear.PartRef;
import dibble.session.Session;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/** Opens the view of an object for a link to it. */
public final class Navigator {
    /** The kinds of objects with a view. */
    public enum Kind {
        ZONE,
        CONTROL,
        PART,
        SCENE,
        INSTRUMENT,
        SOURCE,
        TRACK,
        /** The sounds for a part; its id is the part's. */
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

    /** Shows an object. */
    public void show(Thing thing) {
        shower.accept(thing);
    }

    /**
     * Finds the object of an id in a session, for lists with ids of several kinds; the most specific kind comes first.
     */
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
