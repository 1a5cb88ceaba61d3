package dibble.cli;

import java.io.IOException;
import java.io.OutputStream;
import java.util.Locale;

/** Standard output, which says where it could not be written: a full disk, a reader that is gone. */
final class StandardOutput extends OutputStream {
    private final OutputStream to;
    private IOException failure;

    StandardOutput(OutputStream to) {
        this.to = to;
    }

    /** Output was lost, and the rest is dropped. */
    static final class Failed extends IOException {
        private static final long serialVersionUID = 1L;

        Failed(IOException cause) {
            super(cause);
        }
    }

    /** Why it could not be written; null where all was. */
    IOException failure() {
        return failure;
    }

    /** Returns true if the reader has closed the pipe, which is not an error. */
    boolean isReaderGone() {
        String said =
                failure == null ? "" : String.valueOf(failure.getMessage()).toLowerCase(Locale.ROOT);
        return said.contains("broken pipe") || said.contains("pipe is being closed");
    }

    private interface Writing {
        void run() throws IOException;
    }

    private void write(Writing writing) throws Failed {
        if (failure != null) {
            throw new Failed(failure);
        }
        try {
            writing.run();
        } catch (IOException e) {
            failure = e;
            throw new Failed(e);
        }
    }

    @Override
    public void write(int value) throws Failed {
        write(() -> to.write(value));
    }

    @Override
    public void write(byte[] bytes, int from, int length) throws Failed {
        write(() -> to.write(bytes, from, length));
    }

    @Override
    public void flush() throws Failed {
        write(to::flush);
    }
}
