package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.levels.OfflinePlayback;
import dibble.levels.SoundPlan;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.time.Clock;
import dibble.work.Progress;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A synthesizer that does not return is taken out, and everything else goes on. */
class BlockWatchTest {
    private static final String PORT = "stand-in:sorrel";

    private final CountDownLatch released = new CountDownLatch(1);
    private final AtomicInteger made = new AtomicInteger();
    private final AtomicBoolean isStuck = new AtomicBoolean();

    @TempDir
    Path folder;

    @AfterEach
    void release() {
        released.countDown();
    }

    /** The first that is made never returns from a block; those after it sound. */
    private PartSynth make() {
        boolean hangs = made.getAndIncrement() == 0;
        return new PartSynth() {
            private boolean plays;

            @Override
            public void setDrums(boolean drums) {}

            @Override
            public void play(int packed, int frame) {
                plays = true;
            }

            @Override
            public boolean isSounding() {
                return plays;
            }

            @Override
            public boolean render(float[] left, float[] right) {
                if (hangs) {
                    isStuck.set(true);
                    awaitRelease();
                    throw new IllegalStateException("given up");
                }
                java.util.Arrays.fill(left, 0.5f);
                java.util.Arrays.fill(right, 0.5f);
                return true;
            }

            @Override
            public void close() {}
        };
    }

    private void awaitRelease() {
        boolean done = false;
        while (!done) {
            try {
                released.await();
                done = true;
            } catch (InterruptedException e) {
                // It does not return, whatever is asked of it.
            }
        }
    }

    private SynthSupply supply() {
        return new SynthSupply() {
            @Override
            public void start() {}

            @Override
            public void want(Map<SoundBank, Integer> counts) {}

            @Override
            public PartSynth take(SoundBank bank) {
                return make();
            }

            @Override
            public void close() {}
        };
    }

    @Test
    void mixerGoesOnWithoutASynthesizerThatDoesNotReturn() {
        AudioEngine engine = new AudioEngine(Clock.SYSTEM, settings -> Optional.empty(), settings -> supply());
        try {
            OutputPort port = engine.open(PORT);
            port.send(ShortMessage.noteOn(0, 60, 100), Clock.SYSTEM.nanos());
            await().untilTrue(isStuck);
            assertThat(engine.trouble()).isNull();
            await().until(() -> {
                // More often than the engine looks by itself.
                engine.look();
                return engine.trouble() != null;
            });
            assertThat(engine.trouble()).contains("does not end");
            port.send(ShortMessage.noteOn(0, 64, 100), Clock.SYSTEM.nanos());
            await().until(() -> engine.strip(PORT, 1, dibble.gear.StripRef.ALL).peak() > -20);
        } finally {
            engine.close();
        }
    }

    @Test
    void renderingEndsWithTheNameOfASoundThatDoesNotEnd() {
        MidiTrack.Builder track = new MidiTrack.Builder();
        track.text(0, MidiTrack.META_TRACK_NAME, "Sedge pads");
        track.add(0, ShortMessage.noteOn(9, 53, 100));
        MidiFile file = new MidiFile(1, 960, List.of(track.build()));
        OfflinePlayback music = OfflinePlayback.ofFile(
                LamplightersRound.session(), LamplightersRound.performance(), file, new String[] {"sedge"});
        SoundPlan plan = SoundPlan.of(LamplightersRound.session(), LamplightersRound.performance());
        Path to = folder.resolve("out");
        assertThatThrownBy(() -> Bounce.render(
                        music, plan, Map.of(), Bounce.Wanted.USUAL, to, Progress.NONE, settings -> bank -> make()))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("does not end");
        assertThat(Files.exists(to)).isFalse();
    }
}
