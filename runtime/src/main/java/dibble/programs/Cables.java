package dibble.programs;

import dibble.session.Connection;
import java.util.HashSet;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * Keeps the cables between our ports and other programs: those made elsewhere are taken over, those whose ends have come
 * back are made again, and those that somebody pulled out elsewhere are let go. Used by one thread.
 */
public final class Cables {
    private SortedSet<Connection> wanted = new TreeSet<>();

    /** Those that have been there since both their ends are. */
    private final Set<Connection> seen = new HashSet<>();

    /** Those that were missing in the last look, while both ends were there: an end that goes away takes them first. */
    private final Set<Connection> doubted = new HashSet<>();

    /**
     * What a look has shown.
     *
     * @param wanted all that are to be kept with the session
     * @param toMake those that are to be made now: both ends are there
     * @param missing those whose other end is not there
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
     * Takes in what is there now.
     *
     * @param now the cables that there are
     * @param own the ids of our ports that are there
     * @param others the names of other programs' ports that are there
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
