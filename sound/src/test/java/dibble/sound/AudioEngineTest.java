package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.levels.SoundPlan;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.testing.PatientAwaiting;
import dibble.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;

class AudioEngineTest {
    private static final String PORT = "stand-in:sorrel";
    private static final float ONSET = 1e-3f;

    private static AudioEngine silent() {
        return new AudioEngine(Clock.SYSTEM, settings -> Optional.empty());
    }

    private static double peak(AudioEngine engine, int channel) {
        return engine.strip(PORT, channel, StripRef.ALL).peak();
    }

    /**
     * Returns true if a channel has sounded since the peaks were forgotten: a sound may be over before anybody looks.
     */
    private static boolean hasSounded(AudioEngine engine, int channel) {
        return engine.strip(PORT, channel, StripRef.ALL).highest() > -40;
    }

    @Test
    void eachChannelSoundsOnAStripOfItsOwnWithOrWithoutAnAudioDevice() {
        try (AudioEngine engine = silent();
                OutputPort port = engine.open(PORT)) {
            port.send(ShortMessage.programChange(2, 8), Clock.SYSTEM.nanos());
            port.send(ShortMessage.noteOn(2, 72, 110), Clock.SYSTEM.nanos());
            await().until(() -> hasSounded(engine, 3));
            assertThat(peak(engine, 4)).isEqualTo(Double.NEGATIVE_INFINITY);
            assertThat(engine.isSounding()).isTrue();
            assertThat(engine.status().silent()).isTrue();
            port.send(ShortMessage.controller(2, 120, 0), Clock.SYSTEM.nanos());
            await().until(() -> peak(engine, 3) < -90);
            assertThat(engine.strip(PORT, 3, StripRef.ALL).highest()).isGreaterThan(-40);
            engine.forgetPeaks();
            assertThat(engine.strip(PORT, 3, StripRef.ALL).highest()).isLessThan(-40);
        }
    }

    /** What came before the first note is said again to the synthesizer that is made for it, and after a change over. */
    @Test
    void whatAChannelWasToldHoldsForSynthesizersThatComeLater() {
        try (AudioEngine engine = silent();
                OutputPort port = engine.open(PORT)) {
            port.send(ShortMessage.controller(4, 11, 0), Clock.SYSTEM.nanos());
            port.send(ShortMessage.noteOn(4, 72, 110), Clock.SYSTEM.nanos());
            port.send(ShortMessage.noteOn(5, 72, 110), Clock.SYSTEM.nanos());
            await().until(() -> hasSounded(engine, 6));
            assertThat(peak(engine, 5)).isLessThan(-60);
            engine.choose(new AudioSettings("", 25, 48_000, 64, 1));
            await().until(() -> peak(engine, 6) < -90);
            engine.forgetPeaks();
            port.send(ShortMessage.noteOn(4, 72, 110), Clock.SYSTEM.nanos());
            port.send(ShortMessage.noteOn(5, 72, 110), Clock.SYSTEM.nanos());
            await().until(() -> hasSounded(engine, 6));
            assertThat(peak(engine, 5)).isLessThan(-60);
        }
    }

    @Test
    void aStateIsRepeatedWithBankAndProgramFirstAndWithoutWhatIsTheStrips() {
        ChannelState state = new ChannelState();
        int[] told = {
            ShortMessage.controller(1, 64, 127),
            ShortMessage.programChange(1, 5),
            ShortMessage.controller(1, 0, 2),
            ShortMessage.controller(1, 7, 20),
            ShortMessage.controller(1, 120, 0),
            ShortMessage.controller(1, 64, 0),
            ShortMessage.noteOff(1, 60, 64)
        };
        for (int message : told) {
            state.take(message);
        }
        List<Integer> repeated = new ArrayList<>();
        state.repeat(repeated::add);
        assertThat(repeated)
                .containsExactly(
                        ShortMessage.controller(1, 0, 2),
                        ShortMessage.programChange(1, 5),
                        ShortMessage.controller(1, 64, 0));
    }

    /** A device that takes some blocks and is gone then. */
    private static AudioOut leaving(int blocks, AtomicInteger closed) {
        AtomicInteger left = new AtomicInteger(blocks);
        return new AudioOut() {
            @Override
            public boolean write(float[] frames) {
                return left.getAndDecrement() > 0;
            }

            @Override
            public int dropouts() {
                return 3;
            }

            @Override
            public void close() {
                closed.incrementAndGet();
            }
        };
    }

    @Test
    void anAudioDeviceThatGoesAwayIsFollowedByTheNextOneAndTakenUpAgain() {
        AtomicInteger asked = new AtomicInteger();
        AtomicInteger closed = new AtomicInteger();
        AtomicInteger back = new AtomicInteger();
        try (AudioEngine engine = new AudioEngine(Clock.SYSTEM, settings -> switch (asked.incrementAndGet()) {
                    case 1, 2 -> Optional.of(leaving(5, closed));
                    case 3 -> Optional.empty();
                    default -> Optional.of(leaving(Integer.MAX_VALUE, back));
                });
                OutputPort port = engine.open(PORT)) {
            await().until(() -> asked.get() == 3);
            assertThat(closed).hasValue(2);
            port.send(ShortMessage.noteOn(2, 72, 110), Clock.SYSTEM.nanos());
            await().until(() -> hasSounded(engine, 3));
            // While something sounds, it is looked whether the device is there again.
            await().until(() -> {
                port.send(ShortMessage.noteOn(2, 72, 110), Clock.SYSTEM.nanos());
                return !engine.status().silent() && engine.status().dropouts() == 3;
            });
            assertThat(asked).hasValue(4);
        }
        assertThat(back).hasValue(1);
    }

    @Test
    void aDeviceWithSeveralPairsHasEachOutputOnItsOwn() {
        List<float[]> blocks = new ArrayList<>();
        AtomicInteger pairs = new AtomicInteger();
        AudioOut six = new AudioOut() {
            @Override
            public int pairs() {
                return 3;
            }

            @Override
            public boolean write(float[] frames) {
                synchronized (blocks) {
                    blocks.add(frames.clone());
                }
                LockSupport.parkNanos(2_000_000);
                return true;
            }

            @Override
            public void close() {}
        };
        try (AudioEngine engine = new AudioEngine(Clock.SYSTEM, settings -> {
                    pairs.set(settings.pairs());
                    return Optional.of(six);
                });
                OutputPort port = engine.open(PORT)) {
            engine.choose(new AudioSettings("", 25, 44_100, 128, 3));
            engine.follow(
                    new SoundPlan(
                            List.of(Desk.plan(
                                    3, StripRef.ALL, Strip.PLAIN.withLevel(0.0).withOutput(3))),
                            Map.of()),
                    Map.of());
            port.send(ShortMessage.noteOn(2, 72, 110), Clock.SYSTEM.nanos());
            await().until(() -> engine.output(3).peak() > -40);
            assertThat(pairs).hasValue(3);
            assertThat(engine.status().pairs()).isEqualTo(3);
        }
        double[] sums = new double[6];
        for (float[] block : blocks) {
            for (int i = 0; i < block.length; i++) {
                sums[i % 6] += Math.abs(block[i]);
            }
        }
        assertThat(sums[0] + sums[1] + sums[2] + sums[3]).isZero();
        assertThat(sums[4]).isPositive();
        assertThat(sums[5]).isPositive();
    }

    /** Each note is given to the device 12 ms after its stamp, or up to a block earlier: never later, and never shaken. */
    @Test
    void aNoteIsHeardWithinOneBlockOfTheSameTimeAfterItsStamp() throws Exception {
        int block = AudioSettings.USUAL.block();
        double rate = AudioSettings.USUAL.rate();
        AtomicLong frames = new AtomicLong();
        CountDownLatch sent = new CountDownLatch(1);
        CountDownLatch full = new CountDownLatch(1);
        float[] heard = new float[20 * 22_050];
        AudioOut device = new AudioOut() {
            @Override
            public boolean write(float[] samples) {
                try {
                    sent.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS);
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
                int from = (int) frames.getAndAdd(block);
                for (int i = 0; i < block && from + i < heard.length; i++) {
                    heard[from + i] = samples[2 * i];
                }
                if (from + block >= heard.length) {
                    full.countDown();
                }
                return true;
            }

            @Override
            public void close() {}
        };
        long[] stamps = new long[18];
        try (AudioEngine engine = new AudioEngine(
                        () -> AudioSettings.USUAL.nanos(frames.get()), settings -> Optional.of(device));
                OutputPort port = engine.open(PORT)) {
            port.send(ShortMessage.programChange(0, 16), 0);
            for (int i = 0; i < stamps.length; i++) {
                stamps[i] = 500_000_000L * (i + 1) + 371_023L * i;
                port.send(ShortMessage.noteOn(0, 84, 127), stamps[i]);
                port.send(ShortMessage.controller(0, 120, 0), stamps[i] + 100_000_000);
            }
            sent.countDown();
            assertThat(full.await(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS))
                    .isTrue();
        }
        double own = onset() / rate * 1000;
        for (long stamp : stamps) {
            int at = (int) (stamp / 1e9 * rate);
            while (Math.abs(heard[at]) < ONSET) {
                at++;
            }
            double late = at / rate * 1000 - stamp / 1e6 - own;
            assertThat(late).isBetween(12 - block / rate * 1000 - 0.1, 12.1);
        }
    }

    /** How many frames the sound itself takes to begin. */
    private static int onset() throws Exception {
        AudioSettings settings = AudioSettings.USUAL;
        float[] left = new float[settings.block()];
        try (JdkSynth synth = new JdkSynth(settings, null)) {
            synth.play(ShortMessage.programChange(0, 16), 0);
            for (int i = 0; i < 20; i++) {
                synth.render(left, new float[settings.block()]);
            }
            synth.play(ShortMessage.noteOn(0, 84, 127), 0);
            for (int frame = 0; ; frame += settings.block()) {
                synth.render(left, new float[settings.block()]);
                for (int i = 0; i < left.length; i++) {
                    if (Math.abs(left[i]) >= ONSET) {
                        return frame + i;
                    }
                }
            }
        }
    }

    /** A device that fails in the middle of a block, once. */
    private static AudioOut failing() {
        return new AudioOut() {
            @Override
            public boolean write(float[] frames) {
                throw new IllegalStateException("no audio");
            }

            @Override
            public void close() {}
        };
    }

    @Test
    void whereSoundFailsItBeginsAnewWithWhatChannelsWereTold() {
        AtomicInteger asked = new AtomicInteger();
        try (AudioEngine engine = new AudioEngine(Clock.SYSTEM, settings -> switch (asked.incrementAndGet()) {
                    case 1 -> Optional.of(failing());
                    case 2 -> throw new IllegalStateException("no device");
                    default -> Optional.empty();
                });
                OutputPort port = engine.open(PORT)) {
            port.send(ShortMessage.controller(4, 11, 0), Clock.SYSTEM.nanos());
            await().until(() -> asked.get() >= 2);
            await().until(() -> {
                port.send(ShortMessage.noteOn(4, 72, 110), Clock.SYSTEM.nanos());
                port.send(ShortMessage.noteOn(5, 72, 110), Clock.SYSTEM.nanos());
                return hasSounded(engine, 6);
            });
            assertThat(peak(engine, 5)).isLessThan(-60);
        }
    }

    @Test
    void whoSendsToOneWhoseMixerIsGoneIsTold() {
        AudioEngine engine = silent();
        OutputPort port = engine.open(PORT);
        engine.close();
        assertThatThrownBy(() -> {
                    for (int i = 0; i < 1 << 15; i++) {
                        port.send(ShortMessage.controller(0, 7, 1), Clock.SYSTEM.nanos());
                    }
                })
                .hasMessageContaining("does not sound");
    }
}
