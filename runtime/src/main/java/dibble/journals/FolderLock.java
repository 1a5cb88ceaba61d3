package dibble.journals;

import dibble.disk.AtomicFile;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;

/**
 * Locks for folders of unsaved work. A process that makes, looks for or deletes such a folder holds the guard for that
 * moment, so that no other process treats a new folder as an abandoned one. A process that writes into a folder holds
 * the lock of the folder.
 */
final class FolderLock {
    /** The lock file in each folder. */
    static final String LOCK = "in-use";

    private static final String GUARD = ".guard";

    /** Locks of files are held by whole programs: within this one, this one is. */
    private static final ReentrantLock WITHIN = new ReentrantLock();

    /** Folders that this program holds. To open and close their lock once more would let it go on many systems. */
    private static final Set<Path> HELD = ConcurrentHashMap.newKeySet();

    private FolderLock() {}

    /** An action under the guard. */
    interface Guarded<T> {
        T run() throws IOException;
    }

    /**
     * Waits for the guard of all folders in one, which is made where it is not there. A thread takes it once.
     *
     * @throws IOException where that folder cannot be written, or its disk knows no locks
     */
    static <T> T within(Path parent, Guarded<T> work) throws IOException {
        WITHIN.lock();
        try {
            AtomicFile.makeFolder(parent);
            try (FileChannel guard = FileChannel.open(
                    parent.resolveSibling(parent.getFileName() + GUARD),
                    StandardOpenOption.CREATE,
                    StandardOpenOption.WRITE)) {
                guard.lock();
                return work.run();
            }
        } finally {
            WITHIN.unlock();
        }
    }

    /** A folder that this program alone writes into, until this is closed. */
    record Held(Path folder, FileChannel file) implements AutoCloseable {
        @Override
        public void close() throws IOException {
            HELD.remove(folder);
            file.close();
        }
    }

    /**
     * Locks a folder for this process. The guard must be held.
     *
     * @return null if the folder is locked, also by this process
     */
    static Held lock(Path folder) throws IOException {
        Path real = folder.toRealPath();
        if (HELD.contains(real)) {
            return null;
        }
        FileChannel file = FileChannel.open(real.resolve(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        try {
            if (file.tryLock() != null) {
                HELD.add(real);
                return new Held(real, file);
            }
        } catch (IOException e) {
            file.close();
            throw e;
        }
        file.close();
        return null;
    }

    /** Returns true if a folder is in use, or if that is not known. The guard must be held. */
    static boolean isInUse(Path folder) {
        try (Held free = lock(folder)) {
            return free == null;
        } catch (IOException e) {
            return true;
        }
    }
}
