package dibble.session;

/**
 * A connection between a port of Dibble and one of another application.
 *
 * @param own the id of Dibble's port, which stays the same when the named object is renamed
 * @param other the full name of the other port, as the server gives it
 */
public record Connection(String own, String other) implements Comparable<Connection> {
    @Override
    public int compareTo(Connection with) {
        int byOwn = own.compareTo(with.own);
        return byOwn != 0 ? byOwn : other.compareTo(with.other);
    }
}
