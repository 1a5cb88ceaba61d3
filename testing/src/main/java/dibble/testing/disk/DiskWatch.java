package dibble.testing.disk;

import java.io.IOException;
import java.nio.file.Path;

/** Observes a {@link WatchedFileSystem} on the calling thread. It may refuse a call by an exception, or delay it. */
public interface DiskWatch {
    /** Lets everything pass. */
    DiskWatch NONE = path -> {};

    /** Something is about to be done that may wait for the disk. */
    void call(Path path) throws IOException;

    /** A file that was not there is made. */
    default void made(Path file) throws IOException {}

    /** A folder is made. */
    default void madeFolder(Path folder) throws IOException {}

    /**
     * Bytes are about to be written.
     *
     * @return how many of them are written; fewer than there are is a short write
     */
    default int writes(Path file, long at, byte[] bytes) throws IOException {
        return bytes.length;
    }

    /** A file or a folder is about to be forced to the disk. */
    default void forces(Path path) throws IOException {}

    /** A file is about to be moved, replacing the target. */
    default void moves(Path from, Path to) throws IOException {}

    /** Something that is there is deleted. */
    default void deletes(Path path) throws IOException {}
}
