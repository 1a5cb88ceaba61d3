package dibble.jack;

import com.sun.jna.CallbackThreadInitializer;
import com.sun.jna.Native;
import dibble.time.Clock;
import java.util.concurrent.TimeUnit;

/**
 * The library's thread that calls for each block. When a client is closed the library ends it wherever it is, and one that
 * is ended on its way into the JVM takes the JVM with it. So it comes in once, before it calls for a block, and is waited
 * for; it stays the JVM's from one block to the next, else each block would make a thread object.
 */
final class BlockThread {
    private static final long LOOK_AGAIN = TimeUnit.MILLISECONDS.toNanos(1);

    /** Counted, not timed: while the process is stopped, the thread does not advance either. */
    private static final int MAX_POLLS = 2000;

    /** The library calls it for as long as the client is there. */
    private final Calls.ThreadInit comesIn = argument -> setIn();

    private volatile boolean in;

    /** @param name the name of the thread */
    BlockThread(String name) {
        Native.setCallbackThreadInitializer(comesIn, new CallbackThreadInitializer(true, false, name));
    }

    private void setIn() {
        in = true;
    }

    /** Begins to call for blocks. Returns when the thread is there. */
    void activate(long client, Clock clock) {
        Calls.jack_set_thread_init_callback(client, comesIn, null);
        Calls.jack_activate(client);
        for (int looks = 0; !in && looks < MAX_POLLS; looks++) {
            clock.rest(LOOK_AGAIN);
        }
    }
}
