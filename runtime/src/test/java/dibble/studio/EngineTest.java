package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ShortMessage;
import dibble.time.HandClock;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Test;

class EngineTest {
    private final Engine engine = new Engine(new HandClock());

    @Test
    void isIdleOnlyOnceEveryEventIsDecided() {
        assertThat(engine.isIdle()).isTrue();
        engine.openInlet().ring.offer(1, Packed.of(Packed.PLAYED, 0, 0, 0, ShortMessage.noteOn(0, 60, 80)));
        assertThat(engine.isIdle()).isFalse();
        AtomicBoolean idleInTurn = new AtomicBoolean(true);
        engine.submit((router, stamp) -> idleInTurn.set(engine.isIdle()));
        assertThat(idleInTurn).isFalse();
        assertThat(engine.isIdle()).isTrue();
        assertThat(engine.recorderRing().hasEvents()).isTrue();
    }
}
