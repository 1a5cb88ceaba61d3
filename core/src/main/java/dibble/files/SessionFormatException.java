package dibble.files;

import java.io.IOException;

/** A file that is no session, or a damaged one. The message is one line: what, where, and what was expected. */
public sealed class SessionFormatException extends IOException permits DamagedSessionException {
    /** @param message what is wrong, where, what was given and what was expected, in one line */
    public SessionFormatException(String message) {
        super(message);
    }
}
