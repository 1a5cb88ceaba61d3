package dibble.jack;

import com.sun.jna.CallbackThreadInitializer;
import com.sun.jna.Native;
import com.sun.jna.Pointer;
import dibble.time.Clock;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;

/** Dibble among the clients of a server, from when it is opened until one of both goes. */
final class Client {
    private static final long MICRO = TimeUnit.MICROSECONDS.toNanos(1);
    private static final long MAX_WAITING = TimeUnit.SECONDS.toNanos(1);

    /** All ports at a time: changed as a whole, so that a block sees them as they belong together. */
    private record Ports(NotesIn[] ins, NotesOut[] outs, SoundPorts.Pair[] pairs) {}

    private final long handle;
    private final Clock clock;
    private final int rate;

    /** The library calls them for as long as the client is there. */
    private final Calls.Process process = this::process;

    private final Calls.Shutdown shutdown = argument -> setGone();
    private final BlockThread blocks = new BlockThread("dibble-programs-block");
    private final Calls.Timebase timebase;
    private final Transport transport;
    private final Scratch scratch = new Scratch();
    private final BlockTime time = new BlockTime();
    private final SoundPorts sound = new SoundPorts();
    private volatile Ports ports = new Ports(new NotesIn[0], new NotesOut[0], new SoundPorts.Pair[0]);
    private volatile int block;
    private volatile boolean inside;
    private volatile boolean gone;

    /** Of the library: it has told that the server has gone. */
    private volatile Thread teller;

    private volatile boolean closing;
    private volatile Throwable mistake;

    /** @param handle of a client that the library has opened */
    Client(long handle, Clock clock, Transport transport) {
        this.handle = handle;
        this.transport = transport;
        this.clock = clock;
        rate = Calls.jack_get_sample_rate(handle);
        block = Calls.jack_get_buffer_size(handle);
        timebase = (state, frames, position, isNew, argument) -> transport.sayBeats(position, rate);
        Calls.jack_on_shutdown(handle, shutdown, null);
        Calls.jack_set_process_callback(handle, process, null);
        blocks.activate(handle, clock);
    }

    long handle() {
        return handle;
    }

    /** Frames a second. */
    int rate() {
        return rate;
    }

    /** Frames a block. */
    int block() {
        return block;
    }

    SoundPorts sound() {
        return sound;
    }

    /** Returns true if the server has gone. */
    boolean isGone() {
        return gone;
    }

    /** Returns the first failure in a block, or null. */
    Throwable mistake() {
        return mistake;
    }

    private void setGone() {
        teller = Thread.currentThread();
        gone = true;
    }

    /** Replaces the ports for blocks. Returns when no block uses the previous ones any more. */
    void set(NotesIn[] ins, NotesOut[] outs, SoundPorts.Pair[] pairs) {
        ports = new Ports(ins, outs, pairs);
        sound.set(pairs);
        awaitOutside();
    }

    private void awaitOutside() {
        await(() -> !inside);
    }

    private void await(BooleanSupplier condition) {
        long since = clock.nanos();
        while (!condition.getAsBoolean() && clock.nanos() - since < MAX_WAITING) {
            clock.rest(MICRO * 50);
        }
    }

    private int process(int frames, Pointer argument) {
        inside = true;
        try {
            if (!closing) {
                block(frames);
            }
        } catch (RuntimeException | Error e) {
            // No exception may end the server's thread; the owner of the client reports it.
            if (mistake == null) {
                mistake = e;
            }
        } finally {
            inside = false;
        }
        return 0;
    }

    private void block(int frames) {
        Ports now = ports;
        long start = Calls.jack_frames_to_time(handle, Calls.jack_last_frame_time(handle));
        // Both clocks are read together, since their origins may differ.
        time.begin(clock.nanos() + (start - Calls.jack_get_time()) * MICRO, frames, rate);
        block = frames;
        transport.block(handle, time, rate);
        for (NotesIn in : now.ins) {
            in.hear(time, scratch);
        }
        for (NotesOut out : now.outs) {
            out.send(time, scratch);
        }
        sound.play(now.pairs, frames);
    }

    /** Provides beats, if no other client does. */
    void sayBeats(boolean on) {
        if (on) {
            Native.setCallbackThreadInitializer(timebase, new CallbackThreadInitializer(true, false));
            Calls.jack_set_timebase_callback(handle, 1, timebase, null);
        } else {
            Calls.jack_release_timebase(handle);
        }
    }

    /** Leaves the server. Nothing of ours is under way then: the library may end its threads in the middle of a call. */
    void close() {
        closing = true;
        gone = true;
        awaitOutside();
        Thread told = teller;
        await(() -> told == null || !told.isAlive());
        Calls.jack_client_close(handle);
    }
}
