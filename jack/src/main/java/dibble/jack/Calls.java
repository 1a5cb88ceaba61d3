package dibble.jack;

import com.sun.jna.Callback;
import com.sun.jna.Library;
import com.sun.jna.Native;
import com.sun.jna.NativeLibrary;
import com.sun.jna.Platform;
import com.sun.jna.Pointer;
import java.util.Map;

/**
 * The calls of the JACK library that are used here, as its headers declare them. Whatever is a pointer there is a long
 * here: a call with numbers alone makes no object, which is why no ready-made binding is used.
 */
final class Calls {
    /** Options of {@link #jack_client_open}: never start a server. */
    static final int NO_START_SERVER = 0x01;

    static final int IS_INPUT = 0x1;
    static final int IS_OUTPUT = 0x2;
    static final int IS_PHYSICAL = 0x4;

    /** The encoding of texts in the library. */
    static final String TEXT = "UTF-8";

    /** Types of ports. */
    static final String MIDI = "8 bit raw midi";

    static final String AUDIO = "32 bit float mono audio";

    /** Called for each block of sound. */
    interface Process extends Callback {
        int invoke(int frames, Pointer argument);
    }

    /** Called by the thread that calls for blocks, before it does. */
    interface ThreadInit extends Callback {
        void invoke(Pointer argument);
    }

    /** Called when the server has gone. */
    interface Shutdown extends Callback {
        void invoke(Pointer argument);
    }

    /** Called for each block while it is ours to say which beat there is; pointers are numbers here, too. */
    interface Timebase extends Callback {
        void invoke(int state, int frames, long position, int isNew, long argument);
    }

    /** Receives the messages that the library would print. */
    interface Told extends Callback {
        void invoke(Pointer text);
    }

    private Calls() {}

    /**
     * Finds the library, which comes with the server.
     *
     * @throws UnsatisfiedLinkError where there is none, or none for this kind of processor
     */
    static void load() {
        if (Native.POINTER_SIZE != Long.BYTES) {
            throw new UnsatisfiedLinkError("32-bit");
        }
        // Names of ports are UTF-8, whatever the system's own texts are.
        NativeLibrary library = NativeLibrary.getInstance(
                Platform.isWindows() ? "libjack64" : "jack", Map.of(Library.OPTION_STRING_ENCODING, TEXT));
        Native.register(Calls.class, library);
        Native.register(Memory.class, Platform.C_LIBRARY_NAME);
    }

    static native void jack_set_error_function(Told told);

    static native void jack_set_info_function(Told told);

    static native long jack_client_open(String name, int options, long status);

    static native long jack_get_client_name(long client);

    static native int jack_client_close(long client);

    static native int jack_activate(long client);

    static native int jack_set_thread_init_callback(long client, ThreadInit init, Pointer argument);

    static native int jack_set_process_callback(long client, Process process, Pointer argument);

    static native void jack_on_shutdown(long client, Shutdown shutdown, Pointer argument);

    static native int jack_get_sample_rate(long client);

    static native int jack_get_buffer_size(long client);

    static native int jack_set_buffer_size(long client, int frames);

    static native long jack_port_register(long client, String name, String type, long flags, long size);

    static native int jack_port_unregister(long client, long port);

    static native int jack_port_rename(long client, long port, String name);

    static native long jack_port_get_buffer(long port, int frames);

    static native long jack_port_by_name(long client, String name);

    static native long jack_port_get_all_connections(long client, long port);

    static native long jack_get_ports(long client, String names, String types, long flags);

    static native void jack_free(long pointer);

    static native int jack_connect(long client, String from, String to);

    static native int jack_disconnect(long client, String from, String to);

    static native int jack_last_frame_time(long client);

    static native int jack_frame_time(long client);

    static native long jack_frames_to_time(long client, int frames);

    static native long jack_get_time();

    static native int jack_midi_get_event_count(long buffer);

    static native int jack_midi_event_get(long event, long buffer, int number);

    static native void jack_midi_clear_buffer(long buffer);

    static native int jack_midi_event_write(long buffer, int frame, long bytes, long size);

    static native long jack_midi_max_event_size(long buffer);

    static native int jack_set_timebase_callback(long client, int conditional, Timebase timebase, Pointer argument);

    static native int jack_release_timebase(long client);

    static native int jack_transport_query(long client, long position);

    static native int jack_transport_locate(long client, int frame);

    static native void jack_transport_start(long client);

    static native void jack_transport_stop(long client);

    /** The C library's calls that copy and fill memory. */
    static final class Memory {
        private Memory() {}

        static native long memcpy(long to, long from, long bytes);

        static native long memset(long to, int value, long bytes);
    }
}
