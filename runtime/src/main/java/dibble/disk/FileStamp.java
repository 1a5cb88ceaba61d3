package dibble.disk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;

/**
 * The version of a file, to detect changes by others. Asks the disk, so not on the interface thread.
 *
 * @param time milliseconds since 1970; -1 for no file
 * @param size bytes
 */
public record FileStamp(long time, long size) {
    /** No file is there. */
    public static final FileStamp NONE = new FileStamp(-1, 0);

    /** A version that no file has: the file was never read. */
    public static final FileStamp UNKNOWN = new FileStamp(-2, 0);

    /** Returns the version of a file now; {@link #NONE} where there is none. */
    public static FileStamp of(Path file) {
        try {
            BasicFileAttributes found = Files.readAttributes(file, BasicFileAttributes.class);
            return new FileStamp(found.lastModifiedTime().toMillis(), found.size());
        } catch (IOException e) {
            return NONE;
        }
    }
}
