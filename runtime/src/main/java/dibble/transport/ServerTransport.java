package dibble.transport;

import dibble.midi.PortId;

/** The transport that programs on a server share: who of them starts, all go. Any thread. */
public interface ServerTransport {
    /** The name of the shared transport among ports, in a session. */
    String PORT = new PortId.SharedTransport().text();

    /** No shared transport. */
    ServerTransport NONE = new ServerTransport() {
        @Override
        public void follow(TransportFollower follower) {}

        @Override
        public void lead(PlaybackTimebase course) {}

        @Override
        public void rest() {}
    };

    /** Sets the follower of the transport, or none (null). */
    void follow(TransportFollower follower);

    /** Makes the transport follow a timebase, from its start on. */
    void lead(PlaybackTimebase course);

    /** Stops the transport. */
    void rest();
}
