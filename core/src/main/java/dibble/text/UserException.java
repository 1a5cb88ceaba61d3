package dibble.text;

/**
 * Tells a user that input is wrong: its message is one line in the user's language. Every other runtime exception is a
 * mistake in the program.
 */
public final class UserException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** @param line the problem, its place, and the expected value */
    public UserException(String line) {
        super(line);
    }
}
