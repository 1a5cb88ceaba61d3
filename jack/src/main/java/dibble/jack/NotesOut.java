package dibble.jack;

import dibble.midi.ShortMessage;
import dibble.midi.Status;
import dibble.ports.EventRing;
import dibble.programs.NotesPort;
import dibble.time.Clock;

/**
 * An output port of the session, which other applications see as one port or several, each with its channels. It lives
 * as long as the server; each opening is a new {@link NotesOpening}.
 */
final class NotesOut {
    private static final int NOTHING = Integer.MAX_VALUE;

    /** Blocks that a long message waits for room; after that it is too long for the server. */
    private static final int MAX_POSTPONED = 100;

    /** One port that other programs see. */
    static final class Bearer {
        final NotesPort spec;
        final long handle;
        private long buffer;
        private int last;

        Bearer(NotesPort spec, long handle) {
            this.spec = spec;
            this.handle = handle;
        }

        private void begin(int frames) {
            buffer = Calls.jack_port_get_buffer(handle, frames);
            Calls.jack_midi_clear_buffer(buffer);
            last = 0;
        }
    }

    private final String port;
    private final Clock clock;
    private final EventRing realTime = new EventRing(1 << 8);
    private final ByteRing exclusives = new ByteRing(1 << 18);
    private volatile Bearer[] bearers = {};
    private volatile EventRing notes;
    private volatile boolean pulling = true;

    /** The number of blocks by which the next long message has been postponed. */
    private int putOff;

    /** Bearers that have the next note, and the next real-time message, since the last block had no room for more. */
    private int bearersOfNote;

    private int bearersOfRealTime;

    NotesOut(String port, Clock clock) {
        this.port = port;
        this.clock = clock;
    }

    String port() {
        return port;
    }

    void bear(Bearer[] all) {
        bearers = all;
    }

    Bearer[] bearers() {
        return bearers;
    }

    /** Sets the ring with the messages to send; null for none. */
    void takeFrom(EventRing ring) {
        notes = ring;
    }

    /** Stops reading a ring, unless another has replaced it. */
    void leave(EventRing ring) {
        if (notes == ring) {
            notes = null;
        }
    }

    /** The server has gone: nothing is fetched any more. */
    void end() {
        pulling = false;
    }

    boolean isPulling() {
        return pulling;
    }

    void offerRealTime(int packed) {
        realTime.offer(clock.nanos(), packed);
    }

    /** Waits while the port is slower than the messages; returns false if it can never take the message. */
    boolean offerExclusive(byte[] message) {
        if (message.length > Scratch.MAX_BYTES) {
            return false;
        }
        synchronized (exclusives) {
            while (pulling && !exclusives.offer(message, message.length)) {
                clock.rest(1_000_000);
            }
        }
        return pulling;
    }

    /** Sends all that is due in this block. In the callback. */
    void send(BlockTime time, Scratch scratch) {
        Bearer[] all = bearers;
        int frames = time.frames();
        for (Bearer bearer : all) {
            bearer.begin(frames);
        }
        sendDue(all, time, scratch);
        sendExclusives(all, frames, scratch);
    }

    private void sendDue(Bearer[] all, BlockTime time, Scratch scratch) {
        EventRing played = notes;
        while (true) {
            int noteAt = played != null && played.hasEvents() ? time.frame(played.nextStamp()) : NOTHING;
            int realTimeAt = realTime.hasEvents() ? time.frame(realTime.nextStamp()) : NOTHING;
            boolean isNote = noteAt <= realTimeAt;
            EventRing next = isNote ? played : realTime;
            int frame = isNote ? noteAt : realTimeAt;
            if (frame >= time.frames()) {
                return;
            }
            int first = isNote ? bearersOfNote : bearersOfRealTime;
            int written = write(all, first, (int) next.nextPayload(), isNote, frame, scratch);
            bearersOfNote = isNote ? written : bearersOfNote;
            bearersOfRealTime = isNote ? bearersOfRealTime : written;
            if (written < all.length) {
                // The buffer is full. The remaining bearers get the message in the next block.
                return;
            }
            bearersOfNote = isNote ? 0 : bearersOfNote;
            bearersOfRealTime = isNote ? bearersOfRealTime : 0;
            next.poll();
        }
    }

    /** Writes a message to all bearers from one on; returns the first one that has no room, or how many there are. */
    private static int write(Bearer[] all, int first, int message, boolean isNote, int frame, Scratch scratch) {
        int length = isNote ? ShortMessage.length(ShortMessage.status(message)) : systemLength(message);
        for (int i = first; i < all.length; i++) {
            Bearer bearer = all[i];
            int borne = isNote ? bearer.spec.borne(message) : message;
            if (borne != 0) {
                int at = Math.max(frame, bearer.last);
                if (!scratch.write(bearer.buffer, at, borne, length)) {
                    return i;
                }
                bearer.last = at;
            }
        }
        return all.length;
    }

    private static int systemLength(int packed) {
        return (packed & 0xFF) == Status.SONG_POSITION ? 3 : 1;
    }

    /** Long messages have the end of the block: they hold up no note. */
    private void sendExclusives(Bearer[] all, int frames, Scratch scratch) {
        int length = exclusives.next();
        if (length < 0) {
            return;
        }
        for (Bearer bearer : all) {
            if (length > Calls.jack_midi_max_event_size(bearer.buffer) && ++putOff < MAX_POSTPONED) {
                return;
            }
        }
        putOff = 0;
        exclusives.take(scratch.message);
        for (Bearer bearer : all) {
            scratch.writeLong(bearer.buffer, frames - 1, length);
        }
    }

    static int songPosition(int sixteenths) {
        return Status.SONG_POSITION | (sixteenths & 0x7F) << 8 | (sixteenths >> 7 & 0x7F) << 16;
    }
}
