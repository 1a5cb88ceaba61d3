package dibble.jack;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.jna.CallbackThreadInitializer;
import com.sun.jna.Native;
import com.sun.jna.Pointer;
import dibble.edits.ZoneEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.ports.Devices;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import dibble.programs.NotesPort;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.Studio;
import dibble.testing.JackServer;
import dibble.time.Clock;
import java.lang.management.ManagementFactory;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/**
 * What the way from a port of ours through the router to another costs in a server's callback, beside a bare copy of the
 * same events from port to port in the same callback. Run by {@code ./dibble bench programs}.
 */
class ProgramsMeasurement {
    private static final String IN = "program:keys";
    private static final String OUT = "program:box";
    private static final int NOTES = 8;
    private static final int WARM = 4_000;
    private static final int MEASURED = 4_000;

    private final com.sun.management.ThreadMXBean threads =
            (com.sun.management.ThreadMXBean) ManagementFactory.getThreadMXBean();
    private final Scratch scratch = new Scratch();
    private final BlockTime time = new BlockTime();
    private final long[] bare = new long[WARM + MEASURED];
    private final long[] routed = new long[WARM + MEASURED];
    /** Kept: the library does not keep it. */
    private final Calls.Process process = this::process;

    private long client;
    private long source;
    private long copy;
    private NotesIn in;
    private NotesOut out;
    private volatile int blocks;
    private volatile long allocated;
    private volatile Throwable mistake;

    /** The two ports that are measured, and nothing else. */
    private final class TwoPorts implements Devices {
        @Override
        public String kind() {
            return "measured";
        }

        @Override
        public void onChange(Runnable listener) {
            // These never change by themselves.
        }

        @Override
        public void close() {
            // Nothing is open.
        }

        @Override
        public Optional<InputPort> input(String name) {
            return name.equals(IN) ? Optional.of(in) : Optional.empty();
        }

        @Override
        public Optional<OutputPort> output(String name) {
            return name.equals(OUT) ? Optional.of(new NotesOpening(out)) : Optional.empty();
        }

        @Override
        public List<String> inputs() {
            return List.of(IN);
        }

        @Override
        public List<String> outputs() {
            return List.of(OUT);
        }

        @Override
        public boolean isCurrent(String name, OutputPort port) {
            return true;
        }
    }

    private static Session session() {
        Session session = Session.empty("Measured")
                .withSources(List.of(Source.keyboard("keys", "Keys", IN, Range.ALL)))
                .withInstruments(List.of(Instrument.of(
                        "box", "Box", false, OUT, List.of(Part.of("organ", "Organ", 1, 19, Range.ALL, 1)))));
        return ZoneEdits.layerPart(session, "all", "keys", new PartRef("box", "organ"), Range.ALL);
    }

    private int process(int frames, Pointer argument) {
        try {
            measure(frames);
        } catch (RuntimeException | Error e) {
            mistake = e;
        }
        return 0;
    }

    private void measure(int frames) {
        int block = blocks;
        if (block >= bare.length) {
            return;
        }
        if (block == WARM) {
            allocated = -threads.getCurrentThreadAllocatedBytes();
        }
        long from = Calls.jack_port_get_buffer(source, frames);
        long to = Calls.jack_port_get_buffer(copy, frames);
        long start = System.nanoTime();
        Calls.jack_midi_clear_buffer(to);
        int count = Calls.jack_midi_get_event_count(from);
        for (int i = 0; i < count; i++) {
            scratch.read(from, i);
            scratch.write(to, scratch.frame(), scratch.at(0) | scratch.at(1) << 8 | scratch.at(2) << 16, 3);
        }
        long middle = System.nanoTime();
        time.begin(middle, frames, JackServer.RATE);
        in.hear(time, scratch);
        out.send(time, scratch);
        long end = System.nanoTime();
        bare[block] = middle - start;
        routed[block] = end - middle;
        blocks = block + 1;
        if (block == bare.length - 1) {
            allocated += threads.getCurrentThreadAllocatedBytes();
        }
    }

    @Test
    void roundTripBesideABareCopy() throws InterruptedException {
        JackServer.assumeInstalled();
        try (JackServer server = new JackServer()) {
            server.start();
            Calls.load();
            client = Calls.jack_client_open("Dibble", Calls.NO_START_SERVER, 0);
            source = Calls.jack_port_register(client, "Keys", Calls.MIDI, Calls.IS_INPUT, 0);
            copy = Calls.jack_port_register(client, "Copy", Calls.MIDI, Calls.IS_OUTPUT, 0);
            long organ = Calls.jack_port_register(client, "Organ", Calls.MIDI, Calls.IS_OUTPUT, 0);
            in = new NotesIn(IN, source);
            out = new NotesOut(OUT, Clock.SYSTEM);
            out.bear(new NotesOut.Bearer[] {
                new NotesOut.Bearer(new NotesPort("out/box", "Organ", false, OUT, 0xFFFF, false), organ)
            });
            Studio studio = new Studio(Clock.SYSTEM, new TwoPorts(), new Document(session(), Performance.NEW));
            Native.setCallbackThreadInitializer(process, new CallbackThreadInitializer(true, false, "measured"));
            Calls.jack_set_process_callback(client, process, null);
            Calls.jack_activate(client);
            try (Partner player = new Partner("Wren")) {
                player.connect("Wren:out", "Dibble:Keys");
                int at = player.soon();
                while (blocks < bare.length) {
                    assertThat(mistake).isNull();
                    for (; at - player.soon() < JackServer.RATE / 2; at += JackServer.BLOCK) {
                        for (int i = 0; i < NOTES; i++) {
                            player.play(at + i * 20, ShortMessage.noteOn(0, 48 + i, 90));
                            player.play(at + i * 20 + 10, ShortMessage.noteOff(0, 48 + i, 64));
                        }
                    }
                    studio.pulse();
                    while (studio.monitor().poll()) {
                        // Read as the window does.
                    }
                    Thread.sleep(5);
                }
            }
            Calls.jack_client_close(client);
            studio.close();
        }
        System.out.printf(
                "%d events a block, ns an event: bare copy %s, routed %s, ratio of the medians %.1f, %d bytes allocated%n",
                2 * NOTES, each(bare), each(routed), (double) median(routed) / median(bare), allocated);
    }

    private static long median(long[] nanos) {
        return at(nanos, 0.5);
    }

    private static long at(long[] nanos, double share) {
        long[] sorted = Arrays.copyOfRange(nanos, WARM, nanos.length);
        Arrays.sort(sorted);
        return sorted[(int) (sorted.length * share)];
    }

    private static String each(long[] nanos) {
        return at(nanos, 0.5) / (2 * NOTES) + " (99 %: " + at(nanos, 0.99) / (2 * NOTES) + ")";
    }
}
