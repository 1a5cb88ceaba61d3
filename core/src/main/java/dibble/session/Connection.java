package dibble.session;

/**
 * A cable between a port of ours and one of another program.
 *
 * @param own the id of the port of ours: it stays the same when what it is named after gets another name
 * @param other the whole name of the other program's port, as the server of ports gives it
 */
public record Connection(String own, String other) implements Comparable<Connection> {
    @Override
    public int compareTo(Connection with) {
        int byOwn = own.compareTo(with.own);
        return byOwn != 0 ? byOwn : other.compareTo(with.other);
    }
}
