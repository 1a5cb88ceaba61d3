package dibble.checks;

import java.util.Optional;
import java.util.Set;

/**
 * The state of the running gear.
 *
 * @param ports the names of the ports that are present; empty if they are not known
 * @param loops loops that were found and cut
 * @param twins sources that keep sending the same events
 */
public record Live(Optional<Set<String>> ports, Set<Loop> loops, Set<Twins> twins) {
    /** Nothing is known: the session alone is looked at. */
    public static final Live UNKNOWN = new Live(Optional.empty(), Set.of(), Set.of());

    /**
     * A loop: events sent to one port return from another.
     *
     * @param input the name of a source's port
     * @param output the name of an instrument's port
     */
    public record Loop(String input, String output) {}

    /** Two sources, by their ids. */
    public record Twins(String first, String second) {}

    public Live {
        ports = ports.map(Set::copyOf);
        loops = Set.copyOf(loops);
        twins = Set.copyOf(twins);
    }

    /** The ports are known, and nothing else. */
    public static Live ports(Set<String> there) {
        return new Live(Optional.of(there), Set.of(), Set.of());
    }
}
