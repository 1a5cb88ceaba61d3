package dibble.files;

import static dibble.text.CoreText.say;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.function.LongFunction;

/** Reads files that have to be in memory as a whole. A pipe or a device is refused before it is opened: it may never end. */
public final class WholeFile {
    private WholeFile() {}

    /**
     * Reads a file.
     *
     * @param maxBytes the limit; counted while reading, since a file can grow
     * @param tooLarge makes the exception for a larger file from its size
     * @throws IOException with one line if the file is missing, not a regular file, too large or cannot be read
     */
    public static byte[] read(Path file, int maxBytes, LongFunction<? extends IOException> tooLarge)
            throws IOException {
        if (Files.isDirectory(file)) {
            throw new IOException(say("common.is-a-folder-expected-a", file));
        }
        if (!Files.exists(file)) {
            throw new NoSuchFileException(file.toString());
        }
        if (!Files.isRegularFile(file)) {
            throw new IOException(say("whole-file.is-no-ordinary-file", file));
        }
        long size = Files.size(file);
        if (size > maxBytes) {
            throw tooLarge.apply(size);
        }
        try (InputStream in = Files.newInputStream(file)) {
            byte[] bytes = in.readNBytes(maxBytes);
            if (bytes.length == maxBytes && in.read() >= 0) {
                throw tooLarge.apply(maxBytes + 1L);
            }
            return bytes;
        }
    }
}
