package dibble.desktop.notes;

import static dibble.desktop.ui.UiText.say;

import dibble.midi.ControllerNames;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import java.util.Set;
import java.util.TreeSet;

/**
 * What a lane shows: a controller, or a kind of message without one. Imports no nodes.
 *
 * @param kind of {@link ShortMessage}
 * @param number of the controller; 0 for other kinds
 */
record LaneKind(int kind, int number) implements Comparable<LaneKind> {
    static LaneKind of(int message) {
        int kind = ShortMessage.kind(message);
        return new LaneKind(kind, kind == ShortMessage.CONTROLLER ? ShortMessage.data1(message) : 0);
    }

    boolean has(int message) {
        return ShortMessage.kind(message) == kind
                && (kind != ShortMessage.CONTROLLER || ShortMessage.data1(message) == number);
    }

    /** All that a clip has. */
    static Set<LaneKind> all(MidiTrack clip, ClipIndex index) {
        Set<LaneKind> kinds = new TreeSet<>();
        for (ClipIndex.Lane lane : index.lanes()) {
            kinds.add(of(clip.message(lane.events()[0])));
        }
        boolean hasPolyPressure = false;
        for (int i = 0; i < clip.size() && !hasPolyPressure; i++) {
            hasPolyPressure =
                    clip.isChannelMessage(i) && ShortMessage.kind(clip.message(i)) == ShortMessage.KEY_PRESSURE;
        }
        if (hasPolyPressure) {
            kinds.add(new LaneKind(ShortMessage.KEY_PRESSURE, 0));
        }
        return kinds;
    }

    String name() {
        return switch (kind) {
            case ShortMessage.PITCH_BEND -> say("lane-kind.pitch-bend");
            case ShortMessage.CHANNEL_PRESSURE -> say("lane-kind.channel-pressure");
            case ShortMessage.KEY_PRESSURE -> say("lane-kind.poly-pressure");
            case ShortMessage.PROGRAM_CHANGE -> say("lane-kind.program-change");
            default ->
                ControllerNames.name(number)
                        .map(name -> say("lane-kind.controller-named", number, name))
                        .orElse(say("lane-kind.controller", number));
        };
    }

    /** From 0 at the foot of a lane to 1 at its head. */
    double height(int message) {
        return switch (kind) {
            case ShortMessage.PITCH_BEND -> (ShortMessage.data1(message) + ShortMessage.data2(message) * 128) / 16383.0;
            case ShortMessage.CHANNEL_PRESSURE, ShortMessage.PROGRAM_CHANGE -> ShortMessage.data1(message) / 127.0;
            default -> ShortMessage.data2(message) / 127.0;
        };
    }

    /** Where it is before it is moved. */
    double rest() {
        return kind == ShortMessage.PITCH_BEND ? 0.5 : 0;
    }

    /** Whether a value stands until the next: others are single events. */
    boolean stands() {
        return kind != ShortMessage.KEY_PRESSURE && kind != ShortMessage.PROGRAM_CHANGE;
    }

    @Override
    public int compareTo(LaneKind other) {
        return kind == other.kind ? Integer.compare(number, other.number) : Integer.compare(kind, other.kind);
    }
}
