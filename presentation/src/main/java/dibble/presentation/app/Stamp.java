package dibble.presentation.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;

/**
 * When a file was last written and how large it is: where another one is found later, somebody else has written it.
 *
 * @param time milliseconds since 1970; -1 for no file
 * @param size bytes
 */
record Stamp(long time, long size) {
    static final Stamp NONE = new Stamp(-1, 0);

    /** The stamp of a file; {@link #NONE} where there is none, or for null. */
    static Stamp of(Path file) {
        if (file == null) {
            return NONE;
        }
        try {
            BasicFileAttributes found = Files.readAttributes(file, BasicFileAttributes.class);
            return new Stamp(found.lastModifiedTime().toMillis(), found.size());
        } catch (IOException e) {
            return NONE;
        }
    }
}
