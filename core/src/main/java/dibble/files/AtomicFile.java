package dibble.files;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;

/** Writes a file beside the old one, flushes it to disk and moves it over the old one in one step. */
public final class AtomicFile {
    private AtomicFile() {}

    /** Replaces or makes a file. Where this fails, the old file is as it was. */
    public static void write(Path path, byte[] bytes) throws IOException {
        Path target = path.toAbsolutePath();
        Path folder = target.getParent();
        if (folder == null || !Files.isDirectory(folder)) {
            throw new IOException("no folder " + folder + " (expected one that is there)");
        }
        if (Files.isDirectory(target)) {
            throw new IOException(path + " is a folder (expected a file)");
        }
        Path beside = Files.createTempFile(folder, "." + target.getFileName(), ".new");
        try {
            try (FileChannel out = FileChannel.open(beside, StandardOpenOption.WRITE)) {
                ByteBuffer buffer = ByteBuffer.wrap(bytes);
                while (buffer.hasRemaining()) {
                    out.write(buffer);
                }
                out.force(true);
            }
            try {
                Files.move(beside, target, StandardCopyOption.ATOMIC_MOVE);
            } catch (AtomicMoveNotSupportedException e) {
                Files.move(beside, target, StandardCopyOption.REPLACE_EXISTING);
            }
        } finally {
            Files.deleteIfExists(beside);
        }
    }
}
