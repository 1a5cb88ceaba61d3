package dibble.jack;

import dibble.ports.EventRing;
import dibble.ports.PulledPort;

/** An open output port for other applications. */
final class NotesOpening implements PulledPort {
    private final NotesOut out;
    private EventRing ring;

    NotesOpening(NotesOut out) {
        this.out = out;
    }

    boolean isOf(NotesOut other) {
        return out == other;
    }

    @Override
    public String name() {
        return out.port();
    }

    @Override
    public void pullFrom(EventRing waiting) {
        ring = waiting;
        out.takeFrom(waiting);
    }

    @Override
    public boolean isPulling() {
        return out.isPulling();
    }

    @Override
    public void sendExclusive(byte[] message) {
        if (!out.offerExclusive(message)) {
            throw new IllegalStateException(message.length + " bytes");
        }
    }

    @Override
    public void sendRealTime(int status) {
        out.offerRealTime(status);
    }

    @Override
    public void sendSongPosition(int sixteenths) {
        out.offerRealTime(NotesOut.songPosition(sixteenths));
    }

    @Override
    public void close() {
        out.leave(ring);
    }
}
