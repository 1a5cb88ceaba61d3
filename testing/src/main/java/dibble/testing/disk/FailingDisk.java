package dibble.testing.disk;

import java.io.IOException;
import java.nio.file.Path;

/** A disk whose changes fail from one on, for as many as are wanted. */
public final class FailingDisk implements DiskWatch {
    private final String trouble;
    private int changes;
    private int first = Integer.MAX_VALUE;
    private int count;
    private int mostBytes = Integer.MAX_VALUE;

    /** @param trouble what the system says of a change that fails */
    public FailingDisk(String trouble) {
        this.trouble = trouble;
    }

    /** Has changes fail, the first of them after so many. */
    public synchronized void fail(int after, int howMany) {
        changes = 0;
        first = after;
        count = howMany;
    }

    /** Has each write take only so many bytes. */
    public synchronized void writeAtMost(int bytes) {
        mostBytes = bytes;
    }

    private synchronized void change() throws IOException {
        int number = changes++;
        if (number >= first && number - first < count) {
            throw new IOException(trouble);
        }
    }

    @Override
    public void call(Path path) {}

    @Override
    public void made(Path file) throws IOException {
        change();
    }

    @Override
    public synchronized int writes(Path file, long at, byte[] bytes) throws IOException {
        change();
        return Math.min(mostBytes, bytes.length);
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
