package dibble.transport;

import dibble.midi.PortId;

/** The transport that programs on a server share: who of them starts, all go. Any thread. */
public interface ServerTransport {
    /** What a session's clock calls it, among ports. */
    String PORT = new PortId.SharedTransport().text();

    /** Where there is none. */
    ServerTransport NONE = new ServerTransport() {
        @Override
        public void follow(TransportFollower follower) {}

        @Override
        public void lead(PlaybackTimebase course) {}

        @Override
        public void rest() {}
    };

    /** Has a follower told where the transport is, or nobody (null). */
    void follow(TransportFollower follower);

    /** Has the transport go along a course, from when that begins. */
    void lead(PlaybackTimebase course);

    /** Has the transport that was led stop. */
    void rest();
}
