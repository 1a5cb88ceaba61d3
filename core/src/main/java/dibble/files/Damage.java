package dibble.files;

import static dibble.text.CoreText.say;

/**
 * Something that is wrong with the container of a session.
 *
 * @param entry the entry that it is wrong with; empty for the whole container
 */
public record Damage(String entry, Kind kind) {
    /** The kinds of damage. */
    public enum Kind {
        /** The container ends too early. */
        CUT_OFF,
        /** The entry differs from its checksum or size. */
        CHANGED,
        /** The session names the entry, and it is not there. */
        MISSING
    }

    /** The container ends too early. */
    public static final Damage CUT_OFF = new Damage("", Kind.CUT_OFF);

    /** Returns it as a phrase. */
    public String text() {
        return switch (kind) {
            case CUT_OFF -> say("container.the-file-was-cut-off");
            case CHANGED -> say("container.is-damaged", SingleLineText.of(entry));
            case MISSING -> say("common.is-missing", entry);
        };
    }
}
