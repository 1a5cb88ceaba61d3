package dibble.sound;

import static dibble.text.CoreText.say;

import dibble.gear.Loudness;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.levels.StripPlan;

/**
 * A sounding strip: a synthesizer, followed by level, pan and sends. Changes of these glide over 512 frames, to avoid
 * clicks. Confined to the mixer's thread; other threads read its meters.
 */
final class ChannelStrip implements AutoCloseable {
    /** The frames of a glide: 11 ms at 44,100 a second. */
    private static final int GLIDE = 512;

    private static final double HIGHEST_CONTROLLER = 127;

    /** Channel, or a key of it. */
    final int channel;

    final int key;
    private final float[] left;
    private final float[] right;
    private final Meter meter;
    private final Ramp toLeft = new Ramp();
    private final Ramp toRight = new Ramp();
    private final Ramp toRoom = new Ramp();
    private final Ramp toChorus = new Ramp();
    private StripPlan plan;
    private PartSynth synth;
    private SoundBank bank;
    private boolean heard;
    private int reverb;
    private int chorus;
    private volatile double level;
    private volatile int pan;

    /** A factor on its way to another. */
    private static final class Ramp {
        private float now;
        private float to;
        private float step;
        private int left;

        void aim(double target) {
            if ((float) target != to) {
                to = (float) target;
                left = GLIDE;
                step = (to - now) / GLIDE;
            }
        }

        void jump() {
            now = to;
            left = 0;
        }

        boolean isStill() {
            return left == 0;
        }

        float next() {
            if (left > 0) {
                left--;
                now = left == 0 ? to : now + step;
            }
            return now;
        }
    }

    /** @param channel 0-15 */
    ChannelStrip(AudioSettings settings, int channel, int key) {
        this.channel = channel;
        this.key = key;
        left = new float[settings.block()];
        right = new float[settings.block()];
        meter = new Meter(settings.rate(), settings.block());
    }

    /** Applies the session's settings; a new value overrides one that was played. */
    void follow(StripPlan next) {
        Strip before = plan == null ? null : plan.strip();
        if (plan == null || plan.drums() != next.drums()) {
            leaveSynth();
        }
        plan = next;
        if (!next.strip().equals(before)) {
            set(next.strip());
        }
    }

    private void set(Strip strip) {
        level = strip.levelNow();
        pan = strip.panNow();
        reverb = strip.reverb();
        chorus = strip.chorus();
        aim();
    }

    private void aim() {
        double gain = Loudness.gain(level);
        toLeft.aim(gain * Loudness.left(pan));
        toRight.aim(gain * Loudness.right(pan));
        toRoom.aim(reverb / HIGHEST_CONTROLLER);
        toChorus.aim(chorus / HIGHEST_CONTROLLER);
        if (!isSounding()) {
            toLeft.jump();
            toRight.jump();
            toRoom.jump();
            toChorus.jump();
        }
    }

    /** Its synthesizer has the sounds of a file from now on, or with null those that come with Dibble. */
    void setBank(SoundBank next) {
        if (next != bank) {
            bank = next;
            leaveSynth();
        }
    }

    SoundBank bank() {
        return bank;
    }

    /** Returns true if it takes one of the controllers that are a strip's: volume, pan and sends. */
    static boolean takes(int controller) {
        return controller == 7 || controller == 10 || controller == 91 || controller == 93;
    }

    /**
     * Moves it as a controller of its channel says; the volume that the session says means the level that it says. A key's
     * strip moves with its part's by as many dB.
     *
     * @param of the part's strip, where this is a key's
     */
    void control(int controller, int value, ChannelStrip of) {
        switch (controller) {
            case 7 -> level = of == this ? levelOf(value) : beside(of, of.levelOf(value));
            case 10 -> pan = of == this ? value : pan;
            case 91 -> reverb = of == this ? value : reverb;
            default -> chorus = of == this ? value : chorus;
        }
        aim();
    }

    private double levelOf(int volume) {
        Double said = plan.strip().level();
        return said != null && Loudness.volume(said) == volume ? said : Loudness.ofVolume(volume);
    }

    private double beside(ChannelStrip of, double partsLevel) {
        double by = partsLevel - of.plan.strip().levelNow();
        double own = plan.strip().levelNow();
        return Double.isNaN(by) ? own : Math.min(Loudness.MAX, own + by);
    }

    PartSynth synth() {
        return synth;
    }

    void setSynth(PartSynth made) {
        synth = made;
        synth.setDrums(plan.drums());
    }

    /**
     * Gives up its synthesizer, which does not return, and the sounds of a file that it has. Another thread than the one
     * that renders.
     *
     * @return what happened, as a sentence
     */
    String giveUp() {
        PartSynth stuck = synth;
        if (stuck != null) {
            stuck.abandon();
        }
        SoundBank of = bank;
        if (of != null) {
            of.setUnusable();
        }
        return say("sound.does-not-return", plan.name());
    }

    private void leaveSynth() {
        if (synth != null) {
            synth.close();
            synth = null;
        }
    }

    /** The strip as the session has it. */
    StripPlan plan() {
        return plan;
    }

    boolean isPart() {
        return key == StripRef.ALL;
    }

    /** Renders the next block into its own samples. */
    void render() {
        heard = synth != null && synth.render(left, right);
        if (!heard) {
            meter.rest();
            return;
        }
        if (toLeft.isStill() && toRight.isStill()) {
            for (int i = 0; i < left.length; i++) {
                left[i] *= toLeft.now;
                right[i] *= toRight.now;
            }
        } else {
            for (int i = 0; i < left.length; i++) {
                left[i] *= toLeft.next();
                right[i] *= toRight.next();
            }
        }
        meter.take(left, right);
    }

    /** Gives the block that was rendered to a way out that wants strips. */
    void giveTo(AudioOut out) {
        if (heard) {
            out.takeStrip(plan.port(), plan.channel(), plan.ref().key(), left, right);
        }
    }

    /** Adds the block that was rendered to an output. */
    void addTo(float[] outLeft, float[] outRight) {
        if (heard) {
            for (int i = 0; i < left.length; i++) {
                outLeft[i] += left[i];
                outRight[i] += right[i];
            }
        }
    }

    /**
     * Sends the rendered block to the effects, after level and pan. Once for each block, since glides advance.
     *
     * @param alone the effects for this strip only, on request; else null
     */
    void send(EffectBus effects, EffectBus alone) {
        if (heard) {
            send(toRoom, effects.roomIn(), alone == null ? null : alone.roomIn());
            send(toChorus, effects.chorusIn(), alone == null ? null : alone.chorusIn());
        }
    }

    private void send(Ramp share, float[] to, float[] toAlone) {
        if (share.isStill() && share.now == 0) {
            return;
        }
        for (int i = 0; i < left.length; i++) {
            float sent = (left[i] + right[i]) * 0.5f * share.next();
            to[i] += sent;
            if (toAlone != null) {
                toAlone[i] += sent;
            }
        }
    }

    /** Returns true if anything is to be heard of it. */
    boolean isSounding() {
        return synth != null && synth.isSounding();
    }

    Meter meter() {
        return meter;
    }

    /** Returns the present level in dB: that of the session, or of a controller. */
    double level() {
        return level;
    }

    /** The pan that holds now, 0-127. */
    int pan() {
        return pan;
    }

    @Override
    public void close() {
        leaveSynth();
    }
}
