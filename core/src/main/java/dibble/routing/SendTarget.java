package dibble.routing;

/** The target of a control map's send: that of a zone, all parts at once, or a scene. */
public sealed interface SendTarget permits ZoneTarget, SendTarget.AllParts, SendTarget.ToScene {
    /** Every part that has a channel. */
    record AllParts() implements SendTarget {}

    /**
     * Another scene.
     *
     * @param scene a scene's id, {@link #NEXT} or {@link #PREVIOUS}
     */
    record ToScene(String scene) implements SendTarget {
        /** The scene after the active one, in the order of the file; there is none after the last. */
        public static final String NEXT = "next";

        /** The scene before the active one; there is none before the first. */
        public static final String PREVIOUS = "previous";
    }
}
