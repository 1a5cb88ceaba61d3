package dibble.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Set;
import java.util.TreeSet;

/**
 * The output and input of MIDI clock.
 *
 * @param to the names of output ports for clock, start, stop, continue and song position
 * @param from the name of the input port whose clock is followed, or null for none
 */
@RecordBuilder
public record ClockPlan(Set<String> to, String from) implements ClockPlanBuilder.With {
    /** No clock is sent, and none is followed. */
    public static final ClockPlan NONE = new ClockPlan(Set.of(), null);

    public ClockPlan {
        to = java.util.Collections.unmodifiableSet(new TreeSet<>(to));
    }

    public ClockPlan withTo(String port, boolean on) {
        Set<String> ports = new TreeSet<>(to);
        if (on) {
            ports.add(port);
        } else {
            ports.remove(port);
        }
        return new ClockPlan(ports, from);
    }
}
