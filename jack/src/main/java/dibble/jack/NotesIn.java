package dibble.jack;

import dibble.midi.RealTime;
import dibble.midi.ShortMessage;
import dibble.midi.Status;
import dibble.ports.InputPort;

/** A port of ours that other programs play on. */
final class NotesIn implements InputPort {

    private final String port;
    private final long handle;

    /** System exclusive messages become objects, which the callback may not make: they wait here for {@link #deliver}. */
    private final ByteRing exclusives = new ByteRing(1 << 18);

    private volatile Listener listener;

    NotesIn(String port, long handle) {
        this.port = port;
        this.handle = handle;
    }

    long handle() {
        return handle;
    }

    @Override
    public String name() {
        return port;
    }

    @Override
    public void listen(Listener next) {
        listener = next;
    }

    /** Tells all that came in this block. In the callback. */
    void hear(BlockTime time, Scratch scratch) {
        Listener told = listener;
        if (told == null) {
            return;
        }
        long buffer = Calls.jack_port_get_buffer(handle, time.frames());
        int count = Calls.jack_midi_get_event_count(buffer);
        for (int i = 0; i < count; i++) {
            if (scratch.read(buffer, i) && scratch.size() > 0) {
                tell(told, time, scratch);
            }
        }
    }

    private void tell(Listener told, BlockTime time, Scratch scratch) {
        int status = scratch.at(0);
        int size = scratch.size();
        if (ShortMessage.isChannelStatus(status)) {
            int first = size > 1 ? scratch.at(1) : 0;
            int second = size > 2 ? scratch.at(2) : 0;
            if (size == ShortMessage.length(status) && (first | second) < 0x80) {
                told.heard(status | first << 8 | second << 16, time.stamp(scratch.frame()));
            }
        } else if (RealTime.isTransport(status)) {
            told.heardRealTime(status, time.stamp(scratch.frame()));
        } else if (status == Status.SONG_POSITION && size == 3) {
            told.heardSongPosition(scratch.at(1) | scratch.at(2) << 7);
        } else if (status == Status.EXCLUSIVE
                && size <= Scratch.MAX_BYTES
                && scratch.at(size - 1) == Status.EXCLUSIVE_END) {
            scratch.copyLong();
            exclusives.offer(scratch.message, size);
        }
    }

    /** A program that played here has gone, or its cable. */
    void playerGone() {
        Listener told = listener;
        if (told != null) {
            told.gone();
        }
    }

    /** Tells the system exclusive messages that came. Not in the callback. */
    void deliver() {
        for (int length = exclusives.next(); length >= 0; length = exclusives.next()) {
            byte[] message = new byte[length];
            exclusives.take(message);
            Listener told = listener;
            if (told != null) {
                told.heardExclusive(message);
            }
        }
    }
}
