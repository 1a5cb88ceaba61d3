package dibble.sound;

import com.sun.media.sound.SoftAudioBuffer;
import com.sun.media.sound.SoftReverb;
import dibble.gear.Effects;
import java.util.Arrays;
import javax.sound.sampled.AudioFormat;

/**
 * A room (the JDK's reverb) and a chorus for the sends of strips. Linear: the effect of several sends is the sum of
 * each.
 */
final class EffectBus {
    private static final float PRE_DELAY = 0.012f;
    private static final double BRIGHTEST = 16_000;
    private static final double DARKEST = 1_500;
    private static final float QUIET = 1e-6f;

    private final SoftReverb room = new SoftReverb();
    private final Chorus chorus;
    private final SoftAudioBuffer roomIn;
    private final SoftAudioBuffer roomLeft;
    private final SoftAudioBuffer roomRight;
    private final float[] toRoom;
    private final float[] chorusIn;
    private final int tail;
    private Effects effects;
    private int quiet;

    EffectBus(AudioSettings settings) {
        AudioFormat mono = new AudioFormat(settings.rate(), 16, 1, true, false);
        roomIn = new SoftAudioBuffer(settings.block(), mono);
        roomLeft = new SoftAudioBuffer(settings.block(), mono);
        roomRight = new SoftAudioBuffer(settings.block(), mono);
        room.init(settings.rate(), (float) settings.rate() / settings.block());
        room.setInput(0, roomIn);
        room.setOutput(0, roomLeft);
        room.setOutput(1, roomRight);
        room.setMixMode(false);
        room.processControlLogic();
        chorus = new Chorus(settings.rate());
        toRoom = new float[settings.block()];
        chorusIn = new float[settings.block()];
        tail = settings.rate() / settings.block();
        quiet = tail;
        set(Effects.USUAL);
    }

    void set(Effects wanted) {
        if (!wanted.equals(effects)) {
            effects = wanted;
            float size = (float) Math.exp((wanted.room() - 40) * 0.025);
            room.setRoomSize(size);
            room.setGain(5 / Math.max(1, size));
            room.setDamp((float) (BRIGHTEST * Math.pow(DARKEST / BRIGHTEST, wanted.damping() / 127.0)));
            room.setPreDelay(PRE_DELAY);
            chorus.set(wanted.rate(), wanted.depth());
            if (!isSounding()) {
                chorus.rest();
            }
        }
    }

    Effects effects() {
        return effects;
    }

    /** Is as another is now, for a part of what that one is sent. */
    void alongside(EffectBus other) {
        set(other.effects);
        chorus.alongside(other.chorus);
    }

    /** Returns the input of the room for this block, to be added to. */
    float[] roomIn() {
        return toRoom;
    }

    /** Returns the input of the chorus for this block, to be added to. */
    float[] chorusIn() {
        return chorusIn;
    }

    /** Adds the effects of this block to both sides, and clears the inputs. */
    void process(float[] left, float[] right) {
        boolean sent = !isQuiet(toRoom);
        // A buffer that was cleared lets the room rest.
        roomIn.clear();
        if (sent) {
            System.arraycopy(toRoom, 0, roomIn.array(), 0, toRoom.length);
        }
        room.processAudio();
        boolean rings = !roomLeft.isSilent();
        if (rings) {
            add(roomLeft.array(), left);
            add(roomRight.array(), right);
        }
        boolean chorused = !isQuiet(chorusIn);
        if (chorused || isSounding()) {
            chorus.process(chorusIn, left, right);
        }
        boolean silent = !sent && !chorused && (!rings || isQuiet(roomLeft.array()));
        quiet = silent ? Math.min(tail, quiet + 1) : 0;
        if (!isSounding()) {
            // The same music sounds the same, whenever it begins.
            chorus.rest();
        }
        Arrays.fill(toRoom, 0);
        Arrays.fill(chorusIn, 0);
    }

    private static void add(float[] from, float[] to) {
        for (int i = 0; i < to.length; i++) {
            to[i] += from[i];
        }
    }

    private static boolean isQuiet(float[] samples) {
        for (float sample : samples) {
            if (Math.abs(sample) > QUIET) {
                return false;
            }
        }
        return true;
    }

    /** Returns true if anything is still heard of it. */
    boolean isSounding() {
        return quiet < tail;
    }
}
