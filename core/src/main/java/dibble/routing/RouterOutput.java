package dibble.routing;

/** Receives the output of a {@link Router}, in order. */
@FunctionalInterface
public interface RouterOutput {
    /**
     * Takes one message. Must neither block nor allocate.
     *
     * @param stamp the time stamp of the event that caused it
     * @param port the slot of the port
     * @param message packed, on its outgoing channel
     * @param instrument the slot of the instrument through which it was reached
     * @return false where it was not taken; never for an off of a note that was taken
     */
    boolean send(long stamp, int port, int message, int instrument);

    /**
     * Told that an event made another scene active.
     *
     * @param scene the scene's slot
     */
    default void sceneCalled(long stamp, int scene) {}
}
