package dibble.sound;

import dibble.gear.Loudness;
import dibble.levels.SoundPlan;
import dibble.levels.StripPlan;
import dibble.ports.OutputPort;
import dibble.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The sound of Dibble in real time: the instruments, one mixer on its own thread, and one audio device or none. A
 * message is audible a constant time after its stamp, so that blocks do not affect the rhythm. Without a device it
 * works silently, with levels, until a device appears.
 */
public final class AudioEngine implements SoundEngine {
    /** From the time stamp of an event to its first sample, beyond what waits in the device. */
    static final long LATENCY_NANOS = TimeUnit.MILLISECONDS.toNanos(12);

    /** The interval of polls for missed messages while nothing sounds and no device waits for samples. */
    private static final long REST_NANOS = TimeUnit.MILLISECONDS.toNanos(200);

    /** The interval for looking for a missing device. */
    private static final long AGAIN_NANOS = TimeUnit.SECONDS.toNanos(2);

    /** The interval for detecting a synthesizer that does not return. */
    private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(500);

    private static final Logger LOG = LoggerFactory.getLogger(AudioEngine.class);

    private final Clock clock;
    private final Function<AudioSettings, Optional<AudioOut>> devices;
    private final Function<AudioSettings, SynthSupply> supplies;
    private final Queue<SynthInstrument> arriving = new ConcurrentLinkedQueue<>();
    private final Queue<SynthInstrument> leaving = new ConcurrentLinkedQueue<>();
    private final Thread watching;
    private volatile Thread thread;
    private volatile AudioOut current;
    private volatile String trouble;
    private volatile AudioSettings settings = AudioSettings.USUAL;
    private volatile Mixer mixer = new Mixer(settings);
    private volatile SynthSupply pool;
    private volatile SoundPlan plan = SoundPlan.NONE;
    private volatile Map<String, SoundBank> banks = Map.of();
    private volatile boolean closing;
    private volatile boolean looksAgain;
    private volatile boolean resting;
    private volatile Status status = new Status(true, 0, 1);

    /** Changed as a whole, on the mixer's thread. */
    private volatile List<SynthInstrument> sources = List.of();

    /** Sounds on the audio device that the settings name. */
    public AudioEngine(Clock clock) {
        this(clock, AudioEngine::device);
    }

    /** @param devices opens a way out; asked again where one has gone away, and after {@link #lookAgain} */
    public AudioEngine(Clock clock, Function<AudioSettings, Optional<AudioOut>> devices) {
        this(clock, devices, SynthPool::new);
    }

    /** @param supplies makes what synthesizers come from, for some settings */
    AudioEngine(
            Clock clock,
            Function<AudioSettings, Optional<AudioOut>> devices,
            Function<AudioSettings, SynthSupply> supplies) {
        this.clock = clock;
        this.devices = devices;
        this.supplies = supplies;
        pool = supplies.apply(settings);
        thread = mixing(false);
        watching = new Thread(this::watch, "dibble-mixer-watch");
        watching.setDaemon(true);
    }

    private Thread mixing(boolean anew) {
        Thread mixing = new Thread(() -> run(anew), "dibble-mixer");
        mixing.setDaemon(true);
        return mixing;
    }

    /** Prepares the first notes in the background, which takes a second of a processor. */
    @Override
    public synchronized void start() {
        if (thread.getState() == Thread.State.NEW) {
            pool.start();
            thread.start();
            watching.start();
        }
    }

    /** Opens an audio device of the machine; empty where there is none, or where another program holds it. */
    public static Optional<AudioOut> device(AudioSettings settings) {
        return DeviceOut.open(settings);
    }

    /** The names of all audio devices that can be chosen. */
    public static List<String> devices() {
        return DeviceOut.names();
    }

    /** An instrument on a port, which sounds until it is closed. */
    @Override
    public OutputPort open(String port) {
        SynthInstrument instrument = new SynthInstrument(port, this);
        arriving.add(instrument);
        start();
        wake();
        return instrument;
    }

    /** Removes an instrument and ends its sound. */
    void leave(SynthInstrument instrument) {
        leaving.add(instrument);
        wake();
    }

    /** Changes over to other settings at once. */
    @Override
    public void choose(AudioSettings chosen) {
        settings = chosen;
        wake();
    }

    /** Another way out has come: it is asked for again which one to take. */
    @Override
    public void lookAgain() {
        looksAgain = true;
        wake();
    }

    /**
     * Sets the strips by a plan.
     *
     * @param files the open sound files, by their ids in the session
     */
    @Override
    public void follow(SoundPlan next, Map<String, SoundBank> files) {
        if (next.equals(plan) && files.equals(banks)) {
            return;
        }
        plan = next;
        banks = Map.copyOf(files);
        Map<SoundBank, Integer> counts = new HashMap<>();
        for (StripPlan strip : next.strips()) {
            SoundBank bank = strip.soundFile() == null ? null : banks.get(strip.soundFile());
            if (bank != null && !bank.isUnusable()) {
                counts.merge(bank, 1, Integer::sum);
            }
        }
        pool.want(counts);
        sources.forEach(source -> source.follow(next, banks));
        wake();
    }

    /** Returns true if anything is heard now. Any thread. */
    @Override
    public boolean isSounding() {
        for (SynthInstrument source : sources) {
            if (source.isSounding()) {
                return true;
            }
        }
        return false;
    }

    @Override
    public Reading strip(String port, int channel, int key) {
        ChannelStrip strip = find(port, channel, key);
        return strip == null ? Reading.NOTHING : Reading.of(strip.meter(), strip.level(), strip.pan());
    }

    private ChannelStrip find(String port, int channel, int key) {
        for (SynthInstrument source : sources) {
            if (source.name().equals(port)) {
                return source.strip(channel - 1, key);
            }
        }
        return null;
    }

    @Override
    public Reading output(int number) {
        Meter meter = mixer.meter(number);
        return meter == null ? Reading.NOTHING : Reading.of(meter, 0, Loudness.MIDDLE);
    }

    @Override
    public void forgetPeaks() {
        for (SynthInstrument source : sources) {
            source.strips().forEach(strip -> strip.meter().forget());
        }
        for (int number = 1; number <= Mixer.OUTPUTS; number++) {
            Meter meter = mixer.meter(number);
            if (meter != null) {
                meter.forget();
            }
        }
    }

    @Override
    public Status status() {
        return status;
    }

    /** Returns true if a sender whose ring is full has something to wait for; waits a block. */
    boolean waitsForMixer() {
        clock.rest(mixer.settings().nanos(settings.block()));
        return !closing && thread.isAlive();
    }

    /** Something was sent. */
    void wake() {
        if (resting) {
            LockSupport.unpark(thread);
        }
    }

    @Override
    public String trouble() {
        return trouble;
    }

    private void watch() {
        while (!closing) {
            LockSupport.parkNanos(this, LOOK_NANOS);
            look();
        }
    }

    /** Looks whether a synthesizer does not return; where it does not, another thread mixes from now on, without it. */
    synchronized void look() {
        for (SynthInstrument source : sources) {
            ChannelStrip stuck = source.watch().look();
            if (stuck != null) {
                giveUp(stuck);
                return;
            }
        }
    }

    private void giveUp(ChannelStrip stuck) {
        trouble = stuck.giveUp();
        LOG.error("a synthesizer does not return: {}", trouble);
        Thread left = thread;
        // The thread cannot be ended, so it gets the lowest priority.
        left.setPriority(Thread.MIN_PRIORITY);
        thread = mixing(true);
        AudioOut held = current;
        if (held != null) {
            held.close();
        }
        thread.start();
    }

    /** Returns true if the calling thread is not the one that mixes any more. */
    private boolean isReplaced() {
        return Thread.currentThread() != thread;
    }

    private void run(boolean anew) {
        boolean beginsAnew = anew;
        try {
            while (!closing && !isReplaced()) {
                AudioSettings now = settings;
                looksAgain = false;
                try (AudioOut out = wayOut(now)) {
                    current = out;
                    AudioSettings rendered = now.at(out.rate());
                    if (beginsAnew || !rendered.rendersLike(mixer.settings())) {
                        changeOver(rendered);
                        beginsAnew = false;
                    }
                    play(out, now);
                } catch (RuntimeException e) {
                    if (isReplaced()) {
                        return;
                    }
                    // A single failure must not silence the rest of a session: all sounding objects are rebuilt.
                    LOG.error("sound failed, and begins anew: {}", e.toString(), e);
                    beginsAnew = true;
                    clock.rest(REST_NANOS);
                }
            }
        } finally {
            if (!isReplaced()) {
                sources.forEach(SynthInstrument::end);
                pool.close();
            }
        }
    }

    /** A device that cannot be opened is like one that is not there: it is looked for again. */
    private AudioOut wayOut(AudioSettings now) {
        Optional<AudioOut> device = Optional.empty();
        try {
            device = devices.apply(now);
        } catch (RuntimeException e) {
            LOG.warn("the audio device cannot be opened: {}", e.toString(), e);
        }
        return device.orElseGet(() -> new SilentOut(clock, now.nanos(now.block())));
    }

    private void changeOver(AudioSettings now) {
        pool.close();
        pool = supplies.apply(now);
        pool.start();
        mixer = new Mixer(now);
        sources.forEach(source -> source.start(now, pool));
    }

    /** Instruments that were opened or closed since the last block. */
    private void comeAndGo() {
        if (arriving.isEmpty() && leaving.isEmpty()) {
            return;
        }
        List<SynthInstrument> all = new ArrayList<>(sources);
        List<SynthInstrument> came = new ArrayList<>();
        for (SynthInstrument next = arriving.poll(); next != null; next = arriving.poll()) {
            next.start(mixer.settings(), pool);
            came.add(next);
        }
        all.addAll(came);
        for (SynthInstrument next = leaving.poll(); next != null; next = leaving.poll()) {
            next.end();
            all.remove(next);
        }
        sources = List.copyOf(all);
        // Only now: a plan that comes meanwhile finds them among the others.
        came.forEach(next -> next.follow(plan, banks));
    }

    /** Plays until it is closed, something else is chosen, the device goes away, or one is to be looked for. */
    private void play(AudioOut out, AudioSettings now) {
        Mixer mixing = mixer;
        AudioSettings rendered = mixing.settings();
        float[] frames = new float[rendered.block() * 2 * out.pairs()];
        Mixer.Tap strips = out.takesStrips() ? new StripTap(out) : null;
        long since = clock.nanos();
        long origin = since - rendered.nanos(mixing.frames());
        status = new Status(out.isSilent(), 0, out.pairs());
        while (!closing && !isReplaced() && !looksAgain && now.equals(settings)) {
            comeAndGo();
            if (out.isSilent() && !isBusy()) {
                rest();
            } else if (out.isSilent() && clock.nanos() - since > AGAIN_NANOS) {
                return;
            }
            // The time of a block runs by its length, and is set right where the device ran away from the clock.
            long end = origin + mixing.blockEnd();
            if (Math.abs(clock.nanos() - end) > LATENCY_NANOS) {
                origin += clock.nanos() - end;
                end = clock.nanos();
            }
            mixing.mix(sources, end - LATENCY_NANOS, strips);
            mixing.interleave(out.pairs(), frames);
            if (!out.write(frames)) {
                LOG.warn("the audio device has gone away");
                return;
            }
            if (out.dropouts() != status.dropouts()) {
                status = new Status(false, out.dropouts(), out.pairs());
            }
        }
    }

    /** Gives a way out the strips that it wants by themselves. */
    private record StripTap(AudioOut out) implements Mixer.Tap {
        @Override
        public EffectBus effects(AudioSource source, ChannelStrip strip) {
            return null;
        }

        @Override
        public void take(AudioSource source, ChannelStrip strip) {
            strip.giveTo(out);
        }
    }

    private boolean isBusy() {
        if (!arriving.isEmpty() || !leaving.isEmpty()) {
            return true;
        }
        for (SynthInstrument source : sources) {
            if (!source.isIdle() || source.isSounding()) {
                return true;
            }
        }
        return false;
    }

    /** Sleeps until something is sent. */
    private void rest() {
        // Nothing is mixed now, so no meter falls automatically.
        mixer.rest();
        sources.forEach(source -> source.strips().forEach(strip -> strip.meter().rest()));
        resting = true;
        if (!isBusy() && !closing) {
            LockSupport.parkNanos(this, REST_NANOS);
        }
        resting = false;
    }

    @Override
    public void close() {
        closing = true;
        pool.close();
        LockSupport.unpark(thread);
        LockSupport.unpark(watching);
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
