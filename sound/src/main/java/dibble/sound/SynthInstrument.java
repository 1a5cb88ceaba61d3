package dibble.sound;

import dibble.midi.ShortMessage;
import dibble.ports.EventRing;
import dibble.ports.OutputPort;
import dibble.time.Clock;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.sampled.AudioFormat;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The built-in instrument of sixteen parts: a synthesizer for each channel, mixed on a thread of its own. What is sent
 * is heard a set time after its stamp, so that the blocks of the mixer do not shake the rhythm. Works, silent, where
 * there is no audio device; levels are there all the same.
 */
public final class SynthInstrument implements OutputPort {
    static final AudioFormat FORMAT = new AudioFormat(44_100, 16, 2, true, false);
    static final int BLOCK_FRAMES = 128;
    static final int BLOCK_BYTES = BLOCK_FRAMES * 4;
    private static final long BLOCK_NANOS = TimeUnit.SECONDS.toNanos(BLOCK_FRAMES) / 44_100;
    private static final long LATENCY_NANOS = TimeUnit.MILLISECONDS.toNanos(12);
    private static final int CHANNELS = 16;

    /** While nothing sounds and nobody waits for samples, it is looked this often for what was missed. */
    private static final long REST_NANOS = TimeUnit.MILLISECONDS.toNanos(200);

    /** The parts are quieter than full scale together, so that several can sound at once. */
    private static final float GAIN = 0.6f;

    private static final Logger LOG = LoggerFactory.getLogger(SynthInstrument.class);

    /**
     * Which audio device is used, and how much sound waits in it.
     *
     * @param device its name; empty for the system's own choice
     */
    private record Choice(String device, int millis) {
        int bytes() {
            int blocks = Math.max(2, Math.round(millis * 44.1f / BLOCK_FRAMES));
            return blocks * BLOCK_BYTES;
        }
    }

    private static volatile Choice choice = new Choice("", 25);

    private final String name;
    private final Clock clock;
    private final EventRing ring = new EventRing(1 << 14);
    private final Strip[] strips = new Strip[CHANNELS];
    private final ChannelState[] states = new ChannelState[CHANNELS];
    private final Thread mixer;
    private final Supplier<Optional<AudioOut>> device;
    private volatile boolean closing;
    private volatile boolean resting;
    private long waitingStamp;
    private int waiting = -1;

    public SynthInstrument(String name, Clock clock) {
        this(name, clock, () -> DeviceOut.open(choice.device, choice.bytes()));
    }

    /** @param device opens the audio device; asked again where one has gone away */
    SynthInstrument(String name, Clock clock, Supplier<Optional<AudioOut>> device) {
        this.name = name;
        this.clock = clock;
        this.device = device;
        Arrays.setAll(states, channel -> new ChannelState());
        mixer = new Thread(this::run, "dibble-mixer-" + name);
        mixer.setDaemon(true);
        mixer.start();
    }

    /** The names of all audio devices that can be chosen. */
    public static List<String> devices() {
        return DeviceOut.names();
    }

    /**
     * Chooses the audio device for all instruments, which change over at once.
     *
     * @param device its name; empty for the system's own choice, which is also taken where no device has this name
     * @param millis how much sound waits in it
     */
    public static void choose(String device, int millis) {
        choice = new Choice(device, millis);
    }

    /** Has some synthesizers made beforehand, which takes a second of a processor: the first notes need not wait then. */
    public static void prepare() {
        ReadyStrips.prepare();
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public void send(int message, long stamp) {
        while (!ring.offer(stamp, message)) {
            if (closing || !mixer.isAlive()) {
                throw new IllegalStateException(name + " does not sound any more");
            }
            // The mixer is behind: this sender alone waits, as for any slow port.
            clock.rest(BLOCK_NANOS);
        }
        if (resting) {
            LockSupport.unpark(mixer);
        }
    }

    /** Whether anything is heard now. Any thread. */
    public boolean isSounding() {
        for (Strip strip : strips) {
            if (strip != null && strip.level() > 0) {
                return true;
            }
        }
        return false;
    }

    /** How loud a channel (0-15) is now: 0 to 1. */
    public float level(int channel) {
        Strip strip = strips[channel];
        return strip == null ? 0 : strip.level();
    }

    private void run() {
        try {
            while (!closing) {
                try (AudioOut out = device.get().orElseGet(() -> new SilentOut(clock, BLOCK_NANOS))) {
                    mix(out);
                }
            }
        } catch (IOException | RuntimeException e) {
            LOG.error("{} stopped sounding: {}", name, e.toString());
        } finally {
            for (Strip strip : strips) {
                if (strip != null) {
                    strip.close();
                }
            }
        }
    }

    /** Mixes until it is closed, or the device goes away. */
    private void mix(AudioOut out) throws IOException {
        int[] mix = new int[BLOCK_FRAMES * 2];
        byte[] block = new byte[BLOCK_BYTES];
        long heardAt = clock.nanos();
        Choice chosen = choice;
        while (!closing && chosen.equals(choice)) {
            // The time of this block runs by its length, and is set right where the device ran away from the clock.
            if (out.isSilent() && waiting == -1 && !isSounding()) {
                rest();
            }
            heardAt += BLOCK_NANOS;
            if (Math.abs(clock.nanos() - heardAt) > LATENCY_NANOS) {
                heardAt = clock.nanos();
            }
            takeMessages(heardAt - LATENCY_NANOS);
            Arrays.fill(mix, 0);
            for (Strip strip : strips) {
                if (strip != null) {
                    strip.mixInto(mix);
                }
            }
            for (int i = 0; i < mix.length; i++) {
                int sample = Math.max(-32768, Math.min(32767, Math.round(mix[i] * GAIN)));
                block[i * 2] = (byte) sample;
                block[i * 2 + 1] = (byte) (sample >> 8);
            }
            if (!out.write(block)) {
                LOG.warn("the audio device of {} has gone away", name);
                return;
            }
        }
    }

    /** Sleeps until something is sent. */
    private void rest() {
        resting = true;
        if (!ring.hasEvents() && !closing) {
            LockSupport.parkNanos(this, REST_NANOS);
        }
        resting = false;
    }

    /** Gives the synthesizers what was stamped up to a time. */
    private void takeMessages(long upTo) {
        while (true) {
            if (waiting == -1) {
                if (!ring.poll()) {
                    return;
                }
                waiting = (int) ring.payload();
                waitingStamp = ring.stamp();
            }
            if (waitingStamp - upTo > 0) {
                return;
            }
            play(waiting);
            waiting = -1;
        }
    }

    private void play(int message) {
        int channel = ShortMessage.channel(message);
        if (strips[channel] == null) {
            if (!ShortMessage.startsNote(message)) {
                states[channel].take(message);
                return;
            }
            try {
                Strip strip = ReadyStrips.take();
                states[channel].repeat(strip::play);
                strips[channel] = strip;
            } catch (MidiUnavailableException e) {
                LOG.error("no synthesizer for channel {} of {}: {}", channel + 1, name, e.getMessage());
                closing = true;
                return;
            }
        }
        strips[channel].play(message);
    }

    @Override
    public void close() {
        closing = true;
        LockSupport.unpark(mixer);
        try {
            mixer.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
