package dibble.jack;

import com.sun.jna.Memory;
import com.sun.jna.Pointer;
import dibble.midi.ShortMessage;
import dibble.testing.JackServer;
import dibble.time.Clock;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.awaitility.Awaitility;

/** Another program: it plays, and notes on which frame of the server's clock what reaches it was. */
final class Partner implements AutoCloseable {
    private static final int FLOATS = 1 << 14;

    /** What it heard on one of its ports. */
    record Heard(int port, int frame, int message) {
        boolean startsNote() {
            return ShortMessage.startsNote(message);
        }
    }

    private record Due(int frame, int message) {}

    final String name;
    final Queue<Heard> heard = new ConcurrentLinkedQueue<>();
    private final Queue<Due> due = new ConcurrentLinkedQueue<>();
    private final long client;
    private final long[] ins = new long[3];
    private final long out;
    private final long[] sound = new long[2];
    private final float[] samples = new float[FLOATS];
    private final Scratch scratch = new Scratch();
    private final Calls.Process process = this::process;
    private final BlockThread blocks;
    private final double[] energy = new double[2];
    private final Calls.Timebase timebase = (state, frames, position, isNew, argument) -> sayBeats(position);
    private volatile double said;
    private int state;
    private volatile boolean fails;
    private boolean closed;

    Partner(String name) {
        this.name = name;
        client = Calls.jack_client_open(name, Calls.NO_START_SERVER, 0);
        for (int i = 0; i < ins.length; i++) {
            ins[i] = Calls.jack_port_register(client, "in" + (i + 1), Calls.MIDI, Calls.IS_INPUT, 0);
        }
        for (int i = 0; i < sound.length; i++) {
            sound[i] = Calls.jack_port_register(client, "sound" + (i + 1), Calls.AUDIO, Calls.IS_INPUT, 0);
        }
        out = Calls.jack_port_register(client, "out", Calls.MIDI, Calls.IS_OUTPUT, 0);
        Calls.jack_set_process_callback(client, process, null);
        blocks = new BlockThread(name);
        blocks.activate(client, Clock.SYSTEM);
    }

    private int process(int frames, Pointer argument) {
        int start = Calls.jack_last_frame_time(client);
        for (int i = 0; i < ins.length; i++) {
            long buffer = Calls.jack_port_get_buffer(ins[i], frames);
            int count = Calls.jack_midi_get_event_count(buffer);
            for (int k = 0; k < count; k++) {
                scratch.read(buffer, k);
                int message = 0;
                for (int b = 0; b < Math.min(3, scratch.size()); b++) {
                    message |= scratch.at(b) << 8 * b;
                }
                heard.add(new Heard(i + 1, start + scratch.frame(), message));
            }
        }
        long buffer = Calls.jack_port_get_buffer(out, frames);
        Calls.jack_midi_clear_buffer(buffer);
        for (Due next = due.peek(); next != null && next.frame - start < frames; next = due.peek()) {
            fails |= !scratch.write(buffer, Math.max(0, next.frame - start), next.message, 3);
            due.poll();
        }
        for (int i = 0; i < sound.length; i++) {
            new Pointer(Calls.jack_port_get_buffer(sound[i], frames)).read(0, samples, 0, frames);
            double sum = 0;
            for (int f = 0; f < frames; f++) {
                sum += samples[f] * samples[f];
            }
            synchronized (energy) {
                energy[i] += sum;
            }
        }
        return 0;
    }

    /** A frame a little ahead of now. */
    int soon() {
        return Calls.jack_frame_time(client) + 4 * JackServer.BLOCK;
    }

    /** Plays a message on a frame. */
    void play(int frame, int message) {
        due.add(new Due(frame, message));
    }

    /** Connects two ports by their whole names; waits until both are there. */
    void connect(String from, String to) {
        Awaitility.await().until(() -> Calls.jack_connect(client, from, to) == 0);
    }

    void disconnect(String from, String to) {
        Calls.jack_disconnect(client, from, to);
    }

    boolean has(String port) {
        return Calls.jack_port_by_name(client, port) != 0;
    }

    /** What came in on one of its ports, in its order. */
    List<Heard> on(int port) {
        return heard.stream().filter(it -> it.port == port).toList();
    }

    /** Returns the notes that came in on one of its ports, in order; the sounds that parts receive come at any time. */
    List<Heard> notesOn(int port) {
        return heard.stream()
                .filter(it -> it.port == port && ShortMessage.isNote(it.message))
                .toList();
    }

    /** How much sound has reached a port since it was asked last: the sum of all samples' squares. */
    double takeEnergy(int port) {
        synchronized (energy) {
            double was = energy[port - 1];
            energy[port - 1] = 0;
            return was;
        }
    }

    /** The ports that one of its own is connected to. */
    List<String> connections(String port) {
        long array = Calls.jack_port_get_all_connections(client, Calls.jack_port_by_name(client, name + ":" + port));
        return array == 0 ? List.of() : List.of(new Pointer(array).getStringArray(0, Calls.TEXT));
    }

    void locate(int frame) {
        Calls.jack_transport_locate(client, frame);
    }

    void roll() {
        Calls.jack_transport_start(client);
    }

    void halt() {
        Calls.jack_transport_stop(client);
    }

    /** Says from now on that each second has so many beats. */
    void sayTempo(double bpm) {
        Calls.jack_set_timebase_callback(client, 0, timebase, null);
        said = bpm;
    }

    private void sayBeats(long at) {
        Pointer position = new Pointer(at);
        double beats = (position.getInt(20) & 0xFFFF_FFFFL) / (double) JackServer.RATE * said / 60;
        position.setInt(24, 0x10);
        position.setInt(28, (int) (beats / 4) + 1);
        position.setInt(32, (int) (beats % 4) + 1);
        position.setInt(36, (int) (beats % 1 * 1920));
        position.setDouble(40, Math.floor(beats / 4) * 4 * 1920);
        position.setFloat(48, 4);
        position.setFloat(52, 4);
        position.setDouble(56, 1920);
        position.setDouble(64, said);
    }

    private Memory query() {
        Memory position = new Memory(256);
        state = Calls.jack_transport_query(client, Pointer.nativeValue(position));
        return position;
    }

    boolean rolls() {
        query();
        return state == 1;
    }

    long transportFrame() {
        return query().getInt(20) & 0xFFFF_FFFFL;
    }

    double tempo() {
        return query().getDouble(64);
    }

    int bar() {
        return query().getInt(28);
    }

    void setBlock(int frames) {
        Calls.jack_set_buffer_size(client, frames);
    }

    boolean hasFailed() {
        return fails;
    }

    @Override
    public void close() {
        if (!closed) {
            closed = true;
            Calls.jack_client_close(client);
        }
    }
}
