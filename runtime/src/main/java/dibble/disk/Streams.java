package dibble.disk;

import static dibble.text.CoreText.say;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/** Pipes and devices as input, read to their end. */
public final class Streams {
    private static final long PATIENCE_SECONDS = 2;
    private static final int BLOCK = 1 << 16;

    private Streams() {}

    /** Reads something from a file. */
    public interface Reading<T> {
        T read(Path file) throws IOException;
    }

    /** Reads a file as it is where it is an ordinary one; a pipe or a device as {@link #ofFile} does, with its limit. */
    public static <T> T read(Path path, long most, Reading<T> reading) throws IOException {
        return Files.exists(path) && AtomicFile.isStream(path) ? ofFile(path, most, reading) : reading.read(path);
    }

    /**
     * Copies the content of a pipe into a temporary file, which exists while it is read.
     *
     * @param most the limit in bytes
     * @throws IOException if no other process opens the pipe, or the limit is exceeded
     */
    public static <T> T ofFile(Path pipe, long most, Reading<T> reading) throws IOException {
        try (InputStream in = open(pipe)) {
            return ofFile(in, pipe.toString(), most, reading);
        }
    }

    /** The same with a stream that is open already. */
    public static <T> T ofFile(InputStream in, String name, long most, Reading<T> reading) throws IOException {
        Path copy = Files.createTempFile("dibble-", ".in");
        try {
            try (OutputStream out = Files.newOutputStream(copy)) {
                byte[] block = new byte[BLOCK];
                long left = most;
                for (int n = in.read(block); n >= 0; n = in.read(block)) {
                    left -= n;
                    if (left < 0) {
                        throw new IOException(say("common.is-larger-than-mib", name, most >> 20));
                    }
                    out.write(block, 0, n);
                }
            }
            return reading.read(copy);
        } finally {
            Files.deleteIfExists(copy);
        }
    }

    /** Opens a pipe, whose other end may never be opened. */
    private static InputStream open(Path pipe) throws IOException {
        CompletableFuture<InputStream> opening = new CompletableFuture<>();
        Thread opener = new Thread(
                () -> {
                    try {
                        InputStream in = Files.newInputStream(pipe);
                        if (!opening.complete(in)) {
                            in.close();
                        }
                    } catch (IOException e) {
                        opening.completeExceptionally(e);
                    }
                },
                "dibble-pipe");
        opener.setDaemon(true);
        opener.start();
        try {
            return opening.get(PATIENCE_SECONDS, TimeUnit.SECONDS);
        } catch (TimeoutException e) {
            opening.cancel(false);
            throw new IOException(say("streams.nothing-arrives-through-the-pipe", pipe));
        } catch (ExecutionException e) {
            throw e.getCause() instanceof IOException failed ? failed : new IOException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new UncheckedIOException(new IOException(say("common.interrupted")));
        }
    }
}
