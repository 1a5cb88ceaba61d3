package dibble.recording;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.routing.ControlKind;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class ValueLaneTest {
    private final MidiTrack.Builder clip = new MidiTrack.Builder();
    private long tick;

    private void controllers(int channel, int... numbersAndValues) {
        for (int i = 0; i < numbersAndValues.length; i += 2) {
            clip.add(tick++, ShortMessage.controller(channel, numbersAndValues[i], numbersAndValues[i + 1]));
        }
    }

    private static List<Integer> read(ValueLane lane, MidiTrack clip) {
        ValueLane.Reader reader = lane.reader();
        List<Integer> read = new ArrayList<>();
        for (int i = 0; i < clip.size(); i++) {
            int value = reader.value(clip.message(i));
            if (value != ValueLane.NOTHING) {
                read.add(value);
            }
        }
        return read;
    }

    @Test
    void parametersAreLanesAndTheirFourMessagesNone() {
        controllers(0, 101, 0, 100, 0, 6, 2, 38, 50, 99, 2, 98, 44, 6, 64);
        controllers(1, 101, 0, 100, 0, 6, 12);
        controllers(0, 38, 5);
        MidiTrack all = clip.build();
        ValueLane bendRange = new ValueLane(ControlKind.RPN, 0);
        ValueLane own = new ValueLane(ControlKind.NRPN, 300);
        assertThat(ValueLane.all(all)).containsExactly(bendRange, own);
        assertThat(bendRange.rest()).isEqualTo(2 << 7);
        assertThat(own.rest()).isZero();
        assertThat(read(bendRange, all)).containsExactly(2 << 7, 2 << 7 | 50, 12 << 7);
        assertThat(read(own, all)).containsExactly(8192, 8197);
    }

    @Test
    void aControllerWithFineHalvesIsOneLaneOf14Bits() {
        controllers(0, 1, 10, 7, 64, 39, 5, 64, 127);
        clip.add(tick++, ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 64));
        clip.add(tick++, ShortMessage.noteOn(0, 60, 80));
        MidiTrack all = clip.build();
        ValueLane volume = new ValueLane(ControlKind.CONTROLLER_14, 7);
        assertThat(ValueLane.all(all))
                .containsExactly(
                        new ValueLane(ControlKind.CONTROLLER, 1),
                        new ValueLane(ControlKind.CONTROLLER, 64),
                        new ValueLane(ControlKind.PITCH_BEND, 0),
                        volume);
        assertThat(read(volume, all)).containsExactly(64 << 7, 64 << 7 | 5);
        assertThat(read(new ValueLane(ControlKind.PITCH_BEND, 0), all)).containsExactly(8192);
    }

    @Test
    void dataForNoParameterIsAControllerLikeOthersAndModesAreNoLane() {
        controllers(0, 6, 9, 101, 127, 100, 127, 6, 10, 121, 0, 123, 0);
        assertThat(ValueLane.all(clip.build())).containsExactly(new ValueLane(ControlKind.CONTROLLER, 6));
    }
}
