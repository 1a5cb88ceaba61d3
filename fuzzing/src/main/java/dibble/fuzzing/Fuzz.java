package dibble.fuzzing;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;

/** The entry point for a coverage-guided fuzzer, which calls it once per input. */
public final class Fuzz {
    private static Target target;

    private Fuzz() {}

    /** Selects the target. */
    public static void fuzzerInitialize(String[] args) {
        target = Target.valueOf(System.getProperty("dibble.fuzz").toUpperCase(Locale.ROOT));
    }

    /** Reads one input. */
    public static void fuzzerTestOneInput(byte[] bytes) {
        target.run(bytes);
    }

    /**
     * Writes inputs that are in order into folders, one for each target.
     *
     * @param args the folder that these are in
     */
    public static void main(String[] args) throws IOException {
        for (Target each : Target.values()) {
            Path folder = Files.createDirectories(Path.of(args[0]).resolve(each.id()));
            int number = 0;
            for (byte[] seed : each.seeds()) {
                Files.write(folder.resolve("seed-" + number++), seed);
            }
        }
    }
}
