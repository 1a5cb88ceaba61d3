package dibble.files;

import static dibble.text.CoreText.say;

import java.util.List;
import java.util.stream.Collectors;

/** A session's container of which something is missing or damaged; its message says what, in one line. */
public final class DamagedSessionException extends SessionFormatException {
    private static final long serialVersionUID = 1L;
    private static final int MAX_NAMED = 3;

    /** @param damage the damage, at least one item */
    public DamagedSessionException(List<Damage> damage) {
        super(say("damaged-session-exception.the-session-is-damaged", named(damage)));
    }

    private static String named(List<Damage> damage) {
        String first = damage.stream().limit(MAX_NAMED).map(Damage::text).collect(Collectors.joining(", "));
        return damage.size() > MAX_NAMED
                ? say("damaged-session-exception.and-more", first, damage.size() - MAX_NAMED)
                : first;
    }
}
