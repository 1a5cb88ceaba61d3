package dibble.user;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Instant;

/** Internal errors of Dibble with their stack traces, in a file of the user's folder, for its developers. */
public final class ErrorLog {
    private static final String FILE = "errors.log";
    private static final String OLDER = "errors.old.log";
    private static final long MAX_BYTES = 1 << 20;

    private final Path folder;

    /** @param folder where the user's own things are */
    public ErrorLog(Path folder) {
        this.folder = folder;
    }

    /** The file; it need not be there. */
    public Path file() {
        return folder.resolve(FILE);
    }

    /**
     * Writes down a mistake. When the file is a megabyte long another one is begun, and the one before that goes.
     *
     * @throws IOException where it cannot be written
     */
    public synchronized void add(String where, Throwable mistake) throws IOException {
        Files.createDirectories(folder);
        if (Files.exists(file()) && Files.size(file()) > MAX_BYTES) {
            Files.move(file(), folder.resolve(OLDER), StandardCopyOption.REPLACE_EXISTING);
        }
        StringWriter text = new StringWriter();
        mistake.printStackTrace(new PrintWriter(text));
        Files.writeString(
                file(),
                Instant.now() + ", in " + where + "\n" + text + "\n",
                StandardCharsets.UTF_8,
                StandardOpenOption.CREATE,
                StandardOpenOption.APPEND);
    }
}
