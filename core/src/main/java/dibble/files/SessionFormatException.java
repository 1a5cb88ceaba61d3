package dibble.files;

import java.io.IOException;

/**
 * A file that is not a session, or is damaged. The message is one line: the problem, the place, and the expected value.
 */
public sealed class SessionFormatException extends IOException permits DamagedSessionException {
    /** @param message the problem, the place, the given and the expected value, in one line */
    public SessionFormatException(String message) {
        super(message);
    }
}
