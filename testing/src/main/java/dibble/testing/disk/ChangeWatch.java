package dibble.testing.disk;

import java.io.IOException;
import java.nio.file.Path;

/** Observes everything that changes a disk alike, and nothing else. */
abstract class ChangeWatch implements DiskWatch {
    /** Something is about to be changed. */
    abstract void change() throws IOException;

    @Override
    public void call(Path path) {}

    @Override
    public void made(Path file) throws IOException {
        change();
    }

    @Override
    public int writes(Path file, long at, byte[] bytes) throws IOException {
        change();
        return bytes.length;
    }

    @Override
    public void forces(Path path) throws IOException {
        change();
    }

    @Override
    public void moves(Path from, Path to) throws IOException {
        change();
    }
}
