package dibble.desktop.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** Dibble as a process of its own, for what is measured. */
final class Processes {
    private Processes() {}

    /** The folder of the whole project. */
    static Path root() {
        return Path.of("").toAbsolutePath().getParent();
    }

    /** The launcher with the demo. */
    static List<String> demo() {
        return List.of(root().resolve("dibble").toString(), "demo");
    }

    /** @param options of Java */
    static Process start(List<String> command, String options) throws IOException {
        ProcessBuilder builder = new ProcessBuilder(command)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.DISCARD);
        Map<String, String> environment = builder.environment();
        environment.put("JAVA_TOOL_OPTIONS", options);
        return builder.start();
    }

    /** What the system tells of the Java process that a launcher has started. */
    static Path system(Process launcher, String file) {
        return launcher.descendants()
                .filter(child -> child.info().command().orElse("").endsWith("java"))
                .map(child -> Path.of("/proc", String.valueOf(child.pid()), file))
                .filter(Files::isReadable)
                .findFirst()
                .orElseThrow();
    }

    /** Ends a launcher and what it has started. */
    static void end(Process launcher) throws InterruptedException {
        launcher.descendants().forEach(ProcessHandle::destroy);
        launcher.destroy();
        launcher.waitFor();
    }
}
