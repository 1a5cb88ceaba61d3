package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.midi.ShortMessage;
import dibble.time.Clock;
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
}
