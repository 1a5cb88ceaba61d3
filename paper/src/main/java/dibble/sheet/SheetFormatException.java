package dibble.sheet;

/** A sheet that cannot be read: one line with the place, the given and the expected value. */
public final class SheetFormatException extends Exception {
    private static final long serialVersionUID = 1;

    SheetFormatException(String line) {
        super(line);
    }
}
