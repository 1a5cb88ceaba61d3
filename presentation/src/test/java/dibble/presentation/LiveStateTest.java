package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ChannelSet;
import dibble.midi.ShortMessage;
import dibble.ports.EventRing;
import dibble.routing.ControlKind;
import dibble.routing.SlotAllocator;
import dibble.studio.Packed;
import org.junit.jupiter.api.Test;

class LiveStateTest {
    private final EventRing ring = new EventRing(64);
    private final SlotAllocator slots = new SlotAllocator();
    private final int larkspur = slots.source("larkspur");
    private final LiveState live = new LiveState(ring, () -> 0, slots);

    private void played(long stamp, int message) {
        ring.offer(stamp, Packed.of(Packed.PLAYED, larkspur, 0, 0, message));
    }

    private void sent(long stamp, int message) {
        ring.offer(stamp, Packed.of(Packed.SENT, 0, 0, 0, message));
    }

    @Test
    void whatLeavesAFrameLaterStillBelongsToItsNote() {
        played(10, ShortMessage.noteOn(0, 60, 80));
        live.read();
        assertThat(live.lastNote().sent()).isEmpty();
        sent(10, ShortMessage.noteOn(3, 60, 80));
        live.read();
        assertThat(live.lastNote().sent()).hasSize(1);
    }

    @Test
    void whatIsPlayedBackBelongsToNoKey() {
        played(10, ShortMessage.noteOn(0, 60, 80));
        sent(10, ShortMessage.noteOn(3, 60, 80));
        sent(12, ShortMessage.noteOn(5, 40, 80));
        live.read();
        assertThat(live.lastNote().sent())
                .extracting(LiveState.Sent::message)
                .containsExactly(ShortMessage.noteOn(3, 60, 80));
    }

    @Test
    void valuesOfSeveralControllersAreKnownAsOne() {
        for (int[] one : new int[][] {{101, 0}, {100, 1}, {6, 64}, {38, 5}, {7, 100}, {39, 3}}) {
            played(one[0], ShortMessage.controller(1, one[0], one[1]));
        }
        live.read();
        assertThat(live.value("larkspur", ControlKind.RPN, 1, ChannelSet.of(2))).isEqualTo(8197);
        assertThat(live.value("larkspur", ControlKind.RPN, 1, ChannelSet.of(3))).isEqualTo(LiveState.UNKNOWN);
        assertThat(live.value("larkspur", ControlKind.NRPN, 1, ChannelSet.ALL)).isEqualTo(LiveState.UNKNOWN);
        assertThat(live.value("larkspur", ControlKind.CONTROLLER_14, 7, ChannelSet.ALL))
                .isEqualTo(100 << 7 | 3);
        assertThat(live.lastMove().what().isPair()).isTrue();
    }

    @Test
    void aKeyIsDownOnTheChannelsThatPressedIt() {
        played(10, ShortMessage.noteOn(1, 60, 80));
        played(11, ShortMessage.noteOn(4, 60, 80));
        played(12, ShortMessage.noteOff(1, 60, 64));
        live.read();
        assertThat(live.isDown("larkspur", 60)).isTrue();
        assertThat(live.isDown("larkspur", 60, ChannelSet.of(2))).isFalse();
        assertThat(live.isDown("larkspur", 60, ChannelSet.of(5, 6))).isTrue();
        assertThat(live.last("larkspur").channel()).isEqualTo(2);
    }
}
