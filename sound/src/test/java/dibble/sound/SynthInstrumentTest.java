package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import dibble.midi.ShortMessage;
import dibble.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class SynthInstrumentTest {
    @Test
    void eachChannelSoundsOnAStripOfItsOwnWithOrWithoutAnAudioDevice() {
        try (SynthInstrument synth = new SynthInstrument("test", Clock.SYSTEM)) {
            synth.send(ShortMessage.programChange(2, 8), Clock.SYSTEM.nanos());
            synth.send(ShortMessage.noteOn(2, 72, 110), Clock.SYSTEM.nanos());
            await().until(() -> synth.level(2) > 0.01f);
            assertThat(synth.level(3)).isZero();
            synth.send(ShortMessage.noteOff(2, 72, 64), Clock.SYSTEM.nanos());
            synth.send(ShortMessage.controller(2, 120, 0), Clock.SYSTEM.nanos());
            await().until(() -> synth.level(2) < 0.001f);
        }
    }

    /** What came before the first note is said again to the synthesizer that is made for it. */
    @Test
    void whatAChannelWasToldBeforeItsFirstNoteHolds() {
        try (SynthInstrument synth = new SynthInstrument("test", Clock.SYSTEM)) {
            synth.send(ShortMessage.controller(4, 7, 0), Clock.SYSTEM.nanos());
            synth.send(ShortMessage.noteOn(4, 72, 110), Clock.SYSTEM.nanos());
            synth.send(ShortMessage.noteOn(5, 72, 110), Clock.SYSTEM.nanos());
            await().until(() -> synth.level(5) > 0.01f);
            assertThat(synth.level(4)).isLessThan(0.001f);
        }
    }

    @Test
    void aStateIsRepeatedWithBankAndProgramFirst() {
        ChannelState state = new ChannelState();
        int[] told = {
            ShortMessage.controller(1, 64, 127),
            ShortMessage.programChange(1, 5),
            ShortMessage.controller(1, 0, 2),
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
            public boolean write(byte[] block) {
                return left.getAndDecrement() > 0;
            }

            @Override
            public void close() {
                closed.incrementAndGet();
            }
        };
    }

    @Test
    void anAudioDeviceThatGoesAwayIsFollowedByTheNextOne() {
        AtomicInteger asked = new AtomicInteger();
        AtomicInteger closed = new AtomicInteger();
        try (SynthInstrument synth = new SynthInstrument(
                "test",
                Clock.SYSTEM,
                () -> asked.incrementAndGet() < 3 ? Optional.of(leaving(5, closed)) : Optional.empty())) {
            await().until(() -> asked.get() == 3);
            assertThat(closed).hasValue(2);
            synth.send(ShortMessage.noteOn(2, 72, 110), Clock.SYSTEM.nanos());
            await().until(() -> synth.level(2) > 0.01f);
        }
    }

    @Test
    void whoSendsToOneWhoseMixerIsGoneIsTold() {
        SynthInstrument synth = new SynthInstrument("test", Clock.SYSTEM, () -> {
            throw new IllegalStateException("no audio");
        });
        assertThatThrownBy(() -> {
                    for (int i = 0; i < 1 << 15; i++) {
                        synth.send(ShortMessage.controller(0, 7, 1), Clock.SYSTEM.nanos());
                    }
                })
                .hasMessageContaining("does not sound");
        synth.close();
    }
}
