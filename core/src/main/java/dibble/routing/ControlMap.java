package dibble.routing;

import static dibble.text.CoreText.say;

import dibble.gear.Ids;
import dibble.gear.Ranges;
import dibble.gear.UnknownFields;
import dibble.midi.ChannelSet;
import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * The effect of a knob, pedal, slider or key.
 *
 * @param source a source's id, or {@link Zone#ANY_SOURCE}
 * @param keep whether zones also receive the event
 * @param ignoreOutside whether values outside the window send nothing, instead of the value of the nearer end
 * @param when the trigger
 * @param sends the messages, one or more
 */
@RecordBuilder
public record ControlMap(
        String id,
        String name,
        String source,
        ChannelSet channels,
        boolean keep,
        boolean ignoreOutside,
        boolean enabled,
        Trigger when,
        List<Send> sends,
        UnknownFields extras)
        implements ControlMapBuilder.With {
    public ControlMap {
        Ids.check(id);
        sends = List.copyOf(sends);
        if (sends.isEmpty()) {
            throw new UserException(say("control-map.control-map-sends-nothing-expected", id));
        }
    }

    /**
     * The event that triggers a control map.
     *
     * @param number the number of the controller, parameter or key; 0 for kinds without one
     * @param low the low end of the window of values
     * @param high its high end, not below the low one
     */
    public record Trigger(ControlKind kind, int number, int low, int high) {
        public Trigger {
            if (!kind.isTrigger()) {
                throw new UserException(say("control-map.kind-of-sends-only", kind.word()));
            }
            Ranges.range("number.number", number, 0, kind.mostNumber());
            Ranges.range("number.window", low, 0, kind.most());
            Ranges.range("number.window", high, 0, kind.most());
            if (low > high) {
                throw new UserException(say("control-map.window-to-expected-low-to", low, high));
            }
        }

        /** Any value of a kind of message. */
        public static Trigger any(ControlKind kind, int number) {
            return new Trigger(kind, number, 0, kind.most());
        }

        /** Any value of a controller. */
        public static Trigger controller(int number) {
            return any(ControlKind.CONTROLLER, number);
        }
    }

    /**
     * A message that a control map sends.
     *
     * @param number the number of the controller or key; 0 for kinds without one
     * @param first the value for the low end of the trigger's window
     * @param last the value for its high end; below the first it inverts
     * @param rest the value of a controller after the map becomes inactive, 0-127, or null for the default of the
     *     contract
     */
    public record Send(
            ControlKind kind, int number, int first, int last, Integer rest, SendTarget to, UnknownFields extras) {
        public Send(ControlKind kind, int number, int first, int last, Integer rest, SendTarget to) {
            this(kind, number, first, last, rest, to, UnknownFields.NONE);
        }

        public Send {
            Ranges.range("number.number", number, 0, kind.mostNumber());
            Ranges.range("number.window", first, 0, kind.most());
            Ranges.range("number.window", last, 0, kind.most());
            Ranges.range("number.rest", rest, 0, 127);
            if (kind == ControlKind.SCENE != to instanceof SendTarget.ToScene) {
                throw new UserException(
                        say("control-map.a-target-of-kind-expected", kind.word(), kind == ControlKind.SCENE));
            }
            if (kind == ControlKind.NOTE && to instanceof SendTarget.AllParts) {
                throw new UserException(say("control-map.a-note-to-all-parts"));
            }
        }

        /** The same with other values for the two ends of the trigger's window. */
        public Send withWindow(int newFirst, int newLast) {
            return new Send(kind, number, newFirst, newLast, rest, to, extras);
        }

        public Send withNumber(int other) {
            return new Send(kind, other, first, last, rest, to, extras);
        }

        public Send withRest(Integer value) {
            return new Send(kind, number, first, last, value, to, extras);
        }

        public Send withTo(SendTarget other) {
            return new Send(kind, number, first, last, rest, other, extras);
        }

        /** Over any range of the trigger, the whole range of a kind of message. */
        public static Send whole(ControlKind kind, int number, SendTarget to) {
            return new Send(kind, number, 0, kind.most(), null, to);
        }

        /** A controller's whole range to a target. */
        public static Send controller(int number, SendTarget to) {
            return whole(ControlKind.CONTROLLER, number, to);
        }

        /** Returns the output for a trigger value in its window; halves are rounded up. */
        public int output(Trigger when, int value) {
            int width = when.high() - when.low();
            return width == 0
                    ? first
                    : first + Math.floorDiv(2 * (value - when.low()) * (last - first) + width, 2 * width);
        }
    }

    /** Returns a map with sends for all channels of a source, which takes the event from zones. */
    public static ControlMap of(String id, String source, Trigger when, Send... sends) {
        return new ControlMap(
                id, "", source, ChannelSet.ALL, false, false, true, when, List.of(sends), UnknownFields.NONE);
    }

    /** Returns true if it answers to events of this source. */
    public boolean isPlayedBy(String sourceId) {
        return source.equals(Zone.ANY_SOURCE) || source.equals(sourceId);
    }

    /** The same with one of its sends changed. */
    public ControlMap withSend(int place, UnaryOperator<Send> change) {
        List<Send> others = new ArrayList<>(sends);
        others.set(place, change.apply(others.get(place)));
        return withSends(others);
    }

    /** Returns the map without its name, which does not affect its function: renaming it releases nothing. */
    ControlMap nameless() {
        return new ControlMap(id, "", source, channels, keep, ignoreOutside, enabled, when, sends, UnknownFields.NONE);
    }
}
