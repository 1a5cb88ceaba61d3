package dibble.fuzzing;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** The folder for inputs that must be files, in memory if the machine has such a folder. */
final class Places {
    private static final Path MEMORY = Path.of("/dev/shm");
    private static Path root;

    private Places() {}

    private static synchronized Path root() throws IOException {
        if (root == null) {
            root = Files.isWritable(MEMORY)
                    ? Files.createTempDirectory(MEMORY, "dibble-fuzzing")
                    : Files.createTempDirectory("dibble-fuzzing");
            Path made = root;
            Runtime.getRuntime().addShutdownHook(new Thread(() -> remove(made)));
        }
        return root;
    }

    /** A file that only this thread uses. */
    static Path file(String name) throws IOException {
        return own().resolve(name);
    }

    /** A folder that only this thread uses, with nothing in it. */
    static Path folder(String name) throws IOException {
        Path folder = own().resolve(name);
        remove(folder);
        return Files.createDirectories(folder);
    }

    private static Path own() throws IOException {
        return Files.createDirectories(root().resolve(Thread.currentThread().getName()));
    }

    private static void remove(Path folder) {
        if (!Files.exists(folder)) {
            return;
        }
        try (Stream<Path> files = Files.walk(folder)) {
            List<Path> all = files.sorted(Comparator.reverseOrder()).toList();
            for (Path path : all) {
                Files.deleteIfExists(path);
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }
}
