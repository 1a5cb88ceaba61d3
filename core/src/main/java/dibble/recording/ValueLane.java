package dibble.recording;

import dibble.midi.CombinedControllers;
import dibble.midi.MidiTrack;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import dibble.routing.ControlKind;
import java.util.Comparator;
import java.util.Set;
import java.util.TreeSet;

/**
 * The values of one control in a clip: of a controller, a parameter, a wheel, pressure or programs. Combined values of
 * several controllers form one lane; their halves have none.
 *
 * @param number the number of the controller or parameter; 0 for other kinds, and for poly pressure, which is of
 *     all keys
 */
public record ValueLane(ControlKind kind, int number) implements Comparable<ValueLane> {
    /** A message says nothing of the lane. */
    public static final int NOTHING = -1;

    private static final int FIRST_MODE = 120;

    /** Returns all lanes of a clip, sorted. */
    public static Set<ValueLane> all(MidiTrack clip) {
        Set<ValueLane> lanes = new TreeSet<>();
        CombinedControllers values = new CombinedControllers();
        values.open(16);
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isChannelMessage(i) && !ShortMessage.isNote(clip.message(i))) {
                add(lanes, values, clip.message(i));
            }
        }
        for (ValueLane whole : Set.copyOf(lanes)) {
            if (whole.kind == ControlKind.CONTROLLER_14) {
                lanes.remove(new ValueLane(ControlKind.CONTROLLER, whole.number));
                lanes.remove(new ValueLane(ControlKind.CONTROLLER, whole.number + CombinedControllers.FINE));
            }
        }
        return lanes;
    }

    private static void add(Set<ValueLane> lanes, CombinedControllers values, int message) {
        int way = ShortMessage.channel(message);
        int number = ShortMessage.data1(message);
        switch (ShortMessage.kind(message)) {
            case ShortMessage.PITCH_BEND -> lanes.add(new ValueLane(ControlKind.PITCH_BEND, 0));
            case ShortMessage.CHANNEL_PRESSURE -> lanes.add(new ValueLane(ControlKind.CHANNEL_PRESSURE, 0));
            case ShortMessage.KEY_PRESSURE -> lanes.add(new ValueLane(ControlKind.KEY_PRESSURE, 0));
            case ShortMessage.PROGRAM_CHANGE -> lanes.add(new ValueLane(ControlKind.PROGRAM_CHANGE, 0));
            default -> {
                values.take(way, message);
                if (values.parameter(way, message) != CombinedControllers.NOTHING) {
                    boolean nrpn = Parameter.isNrpn(values.choice(way));
                    lanes.add(new ValueLane(
                            nrpn ? ControlKind.NRPN : ControlKind.RPN, Parameter.number(values.choice(way))));
                } else if (number >= CombinedControllers.FINE
                        && values.pair(way, message) != CombinedControllers.NOTHING) {
                    lanes.add(new ValueLane(ControlKind.CONTROLLER_14, number - CombinedControllers.FINE));
                } else if (number < FIRST_MODE && !Parameter.isChoice(message)) {
                    lanes.add(new ValueLane(ControlKind.CONTROLLER, number));
                }
            }
        }
    }

    /** The value before anything is said: wheels and tunings rest in their middle. */
    public int rest() {
        return switch (kind) {
            case PITCH_BEND -> (kind.most() + 1) / 2;
            case RPN -> Math.max(0, ControllerLanes.valueAtFirst(ControllerLanes.registered(number)) << 7);
            default -> 0;
        };
    }

    /** Reads the values of the lane from the messages of a clip. */
    public Reader reader() {
        return new Reader();
    }

    /** Receives each message of a clip in order. Confined to one thread. */
    public final class Reader {
        private final CombinedControllers values = new CombinedControllers();

        private Reader() {
            values.open(16);
        }

        /** The value that the next message says of the lane, 0 to {@link ControlKind#most}, or {@link #NOTHING}. */
        public int value(int message) {
            int way = ShortMessage.channel(message);
            values.take(way, message);
            return switch (ShortMessage.kind(message)) {
                case ShortMessage.CONTROLLER -> controller(way, message);
                case ShortMessage.PITCH_BEND ->
                    only(ControlKind.PITCH_BEND, ShortMessage.data1(message) | ShortMessage.data2(message) << 7);
                case ShortMessage.CHANNEL_PRESSURE -> only(ControlKind.CHANNEL_PRESSURE, ShortMessage.data1(message));
                case ShortMessage.PROGRAM_CHANGE -> only(ControlKind.PROGRAM_CHANGE, ShortMessage.data1(message));
                case ShortMessage.KEY_PRESSURE -> only(ControlKind.KEY_PRESSURE, ShortMessage.data2(message));
                default -> NOTHING;
            };
        }

        private int only(ControlKind wanted, int value) {
            return kind == wanted ? value : NOTHING;
        }

        private int controller(int way, int message) {
            int of = ShortMessage.data1(message);
            return switch (kind) {
                case RPN, NRPN -> {
                    boolean isChosen = values.choice(way) == Parameter.choice(kind == ControlKind.NRPN, number);
                    yield isChosen ? values.parameter(way, message) : NOTHING;
                }
                case CONTROLLER_14 ->
                    of == number || of == number + CombinedControllers.FINE ? values.pair(way, message) : NOTHING;
                case CONTROLLER -> of == number ? ShortMessage.data2(message) : NOTHING;
                default -> NOTHING;
            };
        }
    }

    @Override
    public int compareTo(ValueLane other) {
        return Comparator.comparing(ValueLane::kind)
                .thenComparingInt(ValueLane::number)
                .compare(this, other);
    }
}
