package dibble.jack;

import com.sun.jna.Memory;
import com.sun.jna.Pointer;
import dibble.time.TempoMap;
import dibble.transport.PlaybackTimebase;
import dibble.transport.ServerTransport;
import dibble.transport.TransportFollower;
import java.util.concurrent.TimeUnit;

/**
 * The server's transport, followed or led block by block. Its position is that of the music one block later, since
 * output is audible a block after its decision: so all applications sound together.
 */
final class Transport implements ServerTransport {
    private static final double SECOND = TimeUnit.SECONDS.toNanos(1);
    private static final int STOPPED = 0;
    private static final int ROLLING = 1;

    /** The offsets of the fields in a {@code jack_position_t}, which is packed. */
    private static final int FRAME = 20;

    private static final int VALID = 24;
    private static final int BAR = 28;
    private static final int BEAT = 32;
    private static final int TICK = 36;
    private static final int BAR_START = 40;
    private static final int BEATS_A_BAR = 48;
    private static final int BEAT_TYPE = 52;
    private static final int TICKS_A_BEAT = 56;
    private static final int BPM = 64;
    private static final int BEATS_END = 72;
    private static final int SIZE = 256;

    /** The bit of {@link #VALID} that says that bars and beats are there. */
    private static final int HAS_BEATS = 0x10;

    /** Blocks between two corrections: so long a change of place takes to show. */
    private static final int SETTLE = 8;

    /** A place that is no farther off than this, in frames, is right. */
    private static final int CLOSE = 2;

    private final Memory position = new Memory(SIZE);
    private final long positionAt = Pointer.nativeValue(position);
    private final Memory beats = new Memory(SIZE);
    private final long beatsAt = Pointer.nativeValue(beats);
    private volatile TransportFollower follower;
    private volatile PlaybackTimebase leading;
    private volatile boolean isToStop;

    // What follows belongs to the callback.
    private PlaybackTimebase led;
    private boolean hasRolled;
    private int settling;

    /** Frames from a command to where the transport is when it shows; learned from each correction. */
    private long ahead;

    @Override
    public void follow(TransportFollower next) {
        follower = next;
    }

    @Override
    public void lead(PlaybackTimebase course) {
        isToStop = false;
        leading = course;
    }

    @Override
    public void rest() {
        if (leading != null) {
            leading = null;
            isToStop = true;
        }
    }

    /** Returns true if it leads, and so says what bars and beats there are. */
    boolean isLeading() {
        return leading != null;
    }

    /** Follows or leads through a block. In the callback. */
    void block(long client, BlockTime time, int rate) {
        TransportFollower told = follower;
        PlaybackTimebase course = leading;
        if (isToStop) {
            isToStop = false;
            Calls.jack_transport_stop(client);
        }
        if (told == null && course == null) {
            led = null;
            return;
        }
        int state = Calls.jack_transport_query(client, positionAt);
        long frame = position.getInt(FRAME) & 0xFFFF_FFFFL;
        if (told != null) {
            tell(told, state, frame, time, rate);
        }
        if (course != null && told == null) {
            lead(client, course, state, frame, time, rate);
        }
    }

    private void tell(TransportFollower told, int state, long frame, BlockTime time, int rate) {
        boolean hasBeats = (position.getInt(VALID) & HAS_BEATS) != 0;
        double tick = 0;
        if (hasBeats) {
            double each = position.getDouble(TICKS_A_BEAT);
            double ticks = position.getDouble(BAR_START) + (position.getInt(BEAT) - 1) * each + position.getInt(TICK);
            tick = ticks / each * TempoMap.PPQ * 4 / position.getFloat(BEAT_TYPE);
        }
        long nanos = (long) (frame * SECOND / rate);
        told.told(state == ROLLING, nanos, tick, hasBeats ? position.getDouble(BPM) : 0, time.stamp(0));
    }

    private void lead(long client, PlaybackTimebase course, int state, long frame, BlockTime time, int rate) {
        if (course != led) {
            led = course;
            hasRolled = false;
            settling = 0;
        }
        if (settling > 0) {
            settling--;
            return;
        }
        long now = time.stamp(0);
        if (state == STOPPED) {
            if (hasRolled) {
                // Another client has stopped it, so it is not restarted.
                leading = null;
            } else if (now + (ahead + 2L * time.frames()) * SECOND / rate >= course.at()) {
                locate(client, course, now, rate);
                Calls.jack_transport_start(client);
            }
        } else if (state == ROLLING) {
            hasRolled = true;
            long off = frame - frames(course.position(now), rate);
            if (Math.abs(off) > CLOSE && now >= course.at()) {
                ahead = Math.max(0, Math.min(ahead - off, 16L * time.frames()));
                locate(client, course, now, rate);
            }
        }
    }

    private void locate(long client, PlaybackTimebase course, long now, int rate) {
        Calls.jack_transport_locate(client, (int) (frames(course.position(now), rate) + ahead));
        settling = SETTLE;
    }

    private static long frames(long nanos, int rate) {
        return Math.round(nanos * (rate / SECOND));
    }

    /**
     * Says which bar, beat and tempo there is at the place of the transport. In the callback.
     *
     * @param at a {@code jack_position_t} with its frame
     */
    void sayBeats(long at, int rate) {
        PlaybackTimebase course = leading;
        if (course == null) {
            return;
        }
        Calls.Memory.memcpy(beatsAt, at, BEATS_END);
        TempoMap tempo = course.tempo();
        long tick = tempo.ticks((long) ((beats.getInt(FRAME) & 0xFFFF_FFFFL) * SECOND / rate));
        TempoMap.Meter meter = tempo.meter(tick);
        long bar = tempo.barAt(tick);
        long start = tempo.barStart(bar);
        beats.setInt(VALID, beats.getInt(VALID) | HAS_BEATS);
        beats.setInt(BAR, (int) bar);
        beats.setInt(BEAT, (int) ((tick - start) / meter.ticksPerBeat()) + 1);
        beats.setInt(TICK, (int) ((tick - start) % meter.ticksPerBeat()));
        beats.setDouble(BAR_START, start);
        beats.setFloat(BEATS_A_BAR, meter.beats());
        beats.setFloat(BEAT_TYPE, meter.unit());
        beats.setDouble(TICKS_A_BEAT, meter.ticksPerBeat());
        beats.setDouble(BPM, tempo.bpm(tick));
        Calls.Memory.memcpy(at, beatsAt, BEATS_END);
    }
}
