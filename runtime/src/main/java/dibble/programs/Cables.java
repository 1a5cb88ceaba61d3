package dibble.programs;

import dibble.session.Connection;
import java.util.HashSet;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * Maintains the connections between Dibble's ports and other applications: adopts those made elsewhere, restores those
 * whose ends have returned, and drops those that were disconnected elsewhere. Confined to one thread.
 */
public final class Cables {
    private SortedSet<Connection> wanted = new TreeSet<>();

    /** Those that have been there since both their ends are. */
    private final Set<Connection> seen = new HashSet<>();

    /** Those that were missing in the last look, while both ends were there: an end that goes away takes them first. */
    private final Set<Connection> doubted = new HashSet<>();

    /**
     * The result of a look.
     *
     * @param wanted all connections to keep with the session
     * @param toMake the connections to make now, with both ends present
     * @param missing connections with a missing other end
     */
    public record Look(SortedSet<Connection> wanted, SortedSet<Connection> toMake, SortedSet<Connection> missing) {
        public static final Look NOTHING = new Look(new TreeSet<>(), new TreeSet<>(), new TreeSet<>());
    }

    /** Takes in which are wanted: another session has others. */
    public void want(Set<Connection> others) {
        wanted = new TreeSet<>(others);
        seen.retainAll(wanted);
        doubted.retainAll(wanted);
    }

    /** One of those that were to be made is made. */
    public void made(Connection cable) {
        seen.add(cable);
    }

    /**
     * Updates the connections from those present.
     *
     * @param now the present connections
     * @param own the ids of Dibble's present ports
     * @param others the names of other applications' present ports
     */
    public Look look(Set<Connection> now, Set<String> own, Set<String> others) {
        SortedSet<Connection> toMake = new TreeSet<>();
        SortedSet<Connection> missing = new TreeSet<>();
        wanted.addAll(now);
        wanted.removeIf(cable -> {
            boolean hasEnds = own.contains(cable.own()) && others.contains(cable.other());
            if (now.contains(cable)) {
                seen.add(cable);
                doubted.remove(cable);
                return false;
            }
            if (!hasEnds) {
                seen.remove(cable);
                doubted.remove(cable);
                if (own.contains(cable.own())) {
                    missing.add(cable);
                }
                return false;
            }
            if (!seen.contains(cable)) {
                toMake.add(cable);
                return false;
            }
            boolean isPulled = !doubted.add(cable);
            if (isPulled) {
                seen.remove(cable);
                doubted.remove(cable);
            }
            return isPulled;
        });
        return new Look(new TreeSet<>(wanted), toMake, missing);
    }
}
