package dibble.files;

import java.io.IOException;

/** A file that is no session, or a damaged one. The message is one line: what, where, and what was expected. */
public sealed class SessionFormatException extends IOException permits DamagedSessionException {
    public SessionFormatException(String message) {
        super(message);
    }
}
