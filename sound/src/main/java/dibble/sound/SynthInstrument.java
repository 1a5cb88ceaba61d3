package dibble.sound;

import dibble.gear.Effects;
import dibble.gear.PartRef;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.levels.SoundPlan;
import dibble.levels.StripPlan;
import dibble.midi.ShortMessage;
import dibble.ports.EventRing;
import dibble.ports.OutputPort;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import javax.sound.midi.MidiUnavailableException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The built-in instrument of sixteen parts: an output port, and a source of the mixer. A synthesizer for each strip,
 * which is a channel's, or that of a single key. What is sent waits in a ring until the mixer comes to its time.
 */
final class SynthInstrument implements OutputPort, AudioSource {
    private static final int CHANNELS = 16;
    private static final int DRUM_CHANNEL = 9;
    private static final int SOUND_OFF = 120;
    private static final Logger LOG = LoggerFactory.getLogger(SynthInstrument.class);

    /** Keys of a kit that end each other, such as an open hi-hat by a closed one: those of General MIDI. */
    private static final int[][] CHOKES = {{42, 44, 46}, {29, 30}, {71, 72}, {73, 74}, {78, 79}, {80, 81}};

    /** What holds for an instrument. */
    private record Wanted(SoundPlan plan, Map<String, SoundBank> banks) {}

    private final String name;
    private final AudioEngine engine;
    private final EventRing ring = new EventRing(1 << 14);
    private final ChannelState[] states = new ChannelState[CHANNELS];
    private volatile BlockWatch watch = new BlockWatch();
    private AudioSettings settings;
    private SynthMaker maker;
    private Effects effectsPlan = Effects.USUAL;
    private EffectBus effects;

    /** By channel, its own strip and those of its keys behind it. */
    private final List<List<ChannelStrip>> channels = new ArrayList<>();

    /** All of them; replaced as a whole, for whoever reads meters. */
    private volatile List<ChannelStrip> strips = List.of();

    private volatile Wanted wanted = new Wanted(SoundPlan.NONE, Map.of());
    private Wanted followed;
    private long waitingStamp;
    private int waiting = -1;

    /** @param engine is told when something is sent; null where nobody waits for it */
    SynthInstrument(String name, AudioEngine engine) {
        this.name = name;
        this.engine = engine;
        Arrays.setAll(states, channel -> new ChannelState());
    }

    /** Begins, perhaps anew with other settings: what channels were told is told again. Mixer's thread. */
    void start(AudioSettings other, SynthMaker from) {
        end();
        watch = new BlockWatch();
        settings = other;
        maker = from;
        effects = new EffectBus(settings);
        channels.clear();
        for (int channel = 0; channel < CHANNELS; channel++) {
            channels.add(new ArrayList<>());
        }
        followed = null;
        obey();
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public void send(int message, long stamp) {
        while (!ring.offer(stamp, message)) {
            if (engine == null || !engine.waitsForMixer()) {
                throw new IllegalStateException(name + " does not sound any more");
            }
        }
        if (engine != null) {
            engine.wake();
        }
    }

    /** Plays a message at a frame of the next block, past the ring: for who renders without a clock. Mixer's thread. */
    void playNow(int message, int frame) {
        obey();
        play(message, frame);
    }

    /** What notices that one of its synthesizers does not return. Another one after each {@link #start}. */
    BlockWatch watch() {
        return watch;
    }

    /** Returns true if nothing waits to be sounded. */
    boolean isIdle() {
        return waiting == -1 && !ring.hasEvents() && wanted == followed;
    }

    /** Has strips be as a plan says, and their sounds those of files. Any thread. */
    void follow(SoundPlan plan, Map<String, SoundBank> banks) {
        wanted = new Wanted(plan, banks);
    }

    /** Takes in what is wanted. Mixer's thread. */
    void obey() {
        Wanted now = wanted;
        if (now == followed) {
            return;
        }
        followed = now;
        List<StripPlan> plans = now.plan.strips().stream()
                .filter(plan -> plan.port().equals(name))
                .toList();
        for (int channel = 0; channel < CHANNELS; channel++) {
            List<ChannelStrip> before = channels.get(channel);
            List<ChannelStrip> after = new ArrayList<>();
            for (StripPlan plan : plans) {
                // Two parts can be on one channel; it is one strip all the same.
                if (plan.channel() == channel + 1
                        && after.stream().noneMatch(it -> it.key == plan.ref().key())) {
                    take(
                            plan,
                            channel,
                            before,
                            after,
                            plan.soundFile() == null ? null : usable(now.banks.get(plan.soundFile())));
                }
            }
            if (after.stream().noneMatch(ChannelStrip::isPart)) {
                take(unplanned(channel), channel, before, after, null);
            }
            before.stream().filter(strip -> !after.contains(strip)).forEach(ChannelStrip::close);
            channels.set(channel, after);
        }
        strips = channels.stream().flatMap(List::stream).toList();
        Effects next = now.plan.effects().getOrDefault(name, Effects.USUAL);
        if (!next.equals(effectsPlan)) {
            effectsPlan = next;
            effects.set(next);
        }
    }

    private static SoundBank usable(SoundBank bank) {
        return bank == null || bank.isUnusable() ? null : bank;
    }

    private void take(
            StripPlan plan, int channel, List<ChannelStrip> before, List<ChannelStrip> after, SoundBank bank) {
        ChannelStrip strip = before.stream()
                .filter(it -> it.key == plan.ref().key())
                .findFirst()
                .orElseGet(() -> new ChannelStrip(settings, channel, plan.ref().key()));
        strip.follow(plan);
        strip.setBank(bank);
        after.add(strip);
    }

    /** A channel that no part has; what goes there sounds all the same. */
    private StripPlan unplanned(int channel) {
        PartRef nobody = new PartRef("channel", String.valueOf(channel + 1));
        return new StripPlan(
                StripRef.of(nobody), name, channel + 1, "", true, channel == DRUM_CHANNEL, null, Strip.PLAIN);
    }

    @Override
    public List<ChannelStrip> strips() {
        return strips;
    }

    @Override
    public EffectBus effects() {
        return effects;
    }

    @Override
    public boolean isSounding() {
        for (ChannelStrip strip : strips) {
            if (strip.isSounding()) {
                return true;
            }
        }
        return effects.isSounding();
    }

    @Override
    public void render(int frames, long until) {
        obey();
        takeMessages(until);
        BlockWatch watching = watch;
        for (ChannelStrip strip : strips) {
            watching.enter(strip);
            strip.render();
            watching.leave();
        }
    }

    /** Gives the synthesizers what was stamped before a time. */
    private void takeMessages(long until) {
        while (true) {
            if (waiting == -1) {
                if (!ring.poll()) {
                    return;
                }
                waiting = (int) ring.payload();
                waitingStamp = ring.stamp();
            }
            long frame = settings.frames(waitingStamp - until + settings.nanos(settings.block()));
            if (frame >= settings.block()) {
                return;
            }
            play(waiting, (int) Math.max(0, frame));
            waiting = -1;
        }
    }

    private void play(int message, int frame) {
        int channel = ShortMessage.channel(message);
        List<ChannelStrip> all = channels.get(channel);
        if (ShortMessage.startsNote(message)) {
            start(all, message, frame);
            return;
        }
        states[channel].take(message);
        if (ShortMessage.kind(message) == ShortMessage.CONTROLLER) {
            int number = ShortMessage.data1(message);
            if (ChannelStrip.takes(number)) {
                ChannelStrip part = part(all);
                for (ChannelStrip strip : all) {
                    strip.control(number, ShortMessage.data2(message), part);
                }
                return;
            }
            if (Effects.isMovedBy(number)) {
                effects.set(effects.effects().with(number, ShortMessage.data2(message)));
                return;
            }
        }
        // Offs go to all: a key may have got a strip of its own while it sounds.
        for (ChannelStrip strip : all) {
            if (strip.synth() != null) {
                call(strip, message, frame);
            }
        }
    }

    private void call(ChannelStrip strip, int message, int frame) {
        BlockWatch watching = watch;
        watching.enter(strip);
        strip.synth().play(message, frame);
        watching.leave();
    }

    private static ChannelStrip part(List<ChannelStrip> all) {
        for (ChannelStrip strip : all) {
            if (strip.isPart()) {
                return strip;
            }
        }
        throw new IllegalStateException("a channel without a strip");
    }

    private void start(List<ChannelStrip> all, int message, int frame) {
        int key = ShortMessage.data1(message);
        ChannelStrip strip = part(all);
        for (ChannelStrip of : all) {
            strip = of.key == key ? of : strip;
        }
        if (strip.synth() == null) {
            try {
                PartSynth made = maker.take(strip.bank());
                strip.setSynth(made);
                states[strip.channel].repeat(told -> made.play(told, 0));
            } catch (MidiUnavailableException e) {
                LOG.error("no synthesizer for channel {} of {}: {}", strip.channel + 1, name, e.getMessage(), e);
                return;
            }
        }
        if (strip.plan().drums()) {
            choke(all, strip, key, frame);
        }
        call(strip, message, frame);
    }

    /** Within one synthesizer that is the sound's own doing; here a key's strip ends another key's. */
    private void choke(List<ChannelStrip> all, ChannelStrip by, int key, int frame) {
        for (int[] group : CHOKES) {
            if (Arrays.stream(group).anyMatch(one -> one == key)) {
                for (ChannelStrip strip : all) {
                    boolean chokes = strip != by && Arrays.stream(group).anyMatch(one -> one == strip.key);
                    if (chokes && strip.synth() != null) {
                        call(strip, ShortMessage.controller(0, SOUND_OFF, 0), frame);
                    }
                }
            }
        }
    }

    /** The strip of a channel 0-15, or of one of its keys; null where there is none. Any thread. */
    ChannelStrip strip(int channel, int key) {
        for (ChannelStrip strip : strips) {
            if (strip.channel == channel && strip.key == key) {
                return strip;
            }
        }
        return null;
    }

    /** Ends all its synthesizers. Mixer's thread. */
    void end() {
        strips.forEach(ChannelStrip::close);
        strips = List.of();
    }

    @Override
    public void close() {
        if (engine != null) {
            engine.leave(this);
        }
    }
}
