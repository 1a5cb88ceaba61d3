package dibble.testing.disk;

import java.io.IOException;
import java.nio.file.Path;

/** A disk whose changes fail from one on, for as many as are wanted. */
public final class FailingDisk extends ChangeWatch {
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

    @Override
    synchronized void change() throws IOException {
        int number = changes++;
        if (number >= first && number - first < count) {
            throw new IOException(trouble);
        }
    }

    @Override
    public synchronized int writes(Path file, long at, byte[] bytes) throws IOException {
        return Math.min(mostBytes, super.writes(file, at, bytes));
    }
}
