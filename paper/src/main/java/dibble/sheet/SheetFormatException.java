package dibble.sheet;

/** A sheet that cannot be read: one line that says where, what was given and what was expected. */
public final class SheetFormatException extends Exception {
    private static final long serialVersionUID = 1;

    SheetFormatException(String line) {
        super(line);
    }
}
