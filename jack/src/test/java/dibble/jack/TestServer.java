package dibble.jack;

import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.sun.jna.NativeLibrary;
import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.awaitility.Awaitility;

/** A JACK server with its dummy driver, which needs no sound hardware, and programs that come with it. */
final class TestServer implements AutoCloseable {
    static final int RATE = 48_000;
    static final int BLOCK = 256;
    private static final int TIMEOUT_MILLIS = 1000;
    private static final int PATIENCE_SECONDS = 60;

    private static final String SERVER_VARIABLE = "JACK_DEFAULT_SERVER";

    /**
     * Named for the folder of the checkout: two of them can run at once. The same in every run, since a server that was
     * killed keeps its name, and the library knows only eight.
     */
    private static final String SERVER = "dibble-"
            + Integer.toHexString(Path.of("").toAbsolutePath().toString().hashCode());

    private final List<Process> programs = new ArrayList<>();
    private Process server;

    /** Skips the test where no server is installed. */
    static void assumeInstalled() {
        assumeTrue(has("jackd"), "SKIPPED: jackd is not installed (Debian: apt-get install jackd2)");
        // The library reads the environment of the process, of which Java only has a copy.
        NativeLibrary.getProcess().getFunction("setenv").invokeInt(new Object[] {SERVER_VARIABLE, SERVER, 1});
    }

    private static boolean has(String program) {
        for (String folder : System.getenv("PATH").split(File.pathSeparator)) {
            if (new File(folder, program).canExecute()) {
                return true;
            }
        }
        return false;
    }

    void start() {
        start(RATE, BLOCK);
    }

    void start(int rate, int block) {
        // Synchronous: a client of a busy machine misses no block. The server waits ten times this timeout for a client
        // that was killed within a block, so with 60 seconds a test stood still for ten minutes.
        server = run(
                "jackd",
                "--no-realtime",
                "--sync",
                "--timeout",
                String.valueOf(TIMEOUT_MILLIS),
                "-d",
                "dummy",
                "-r",
                String.valueOf(rate),
                "-p",
                String.valueOf(block));
        Awaitility.await().until(() -> run("jack_lsp").waitFor() == 0);
    }

    /** Starts a program that is a client of the server. */
    Process run(String... command) {
        try {
            ProcessBuilder builder = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD);
            builder.environment().put(SERVER_VARIABLE, SERVER);
            Process process = builder.start();
            programs.add(process);
            Runtime.getRuntime().addShutdownHook(new Thread(process::destroy));
            return process;
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** The server ends as it does when it fails: without a word to anybody. */
    void kill() throws InterruptedException {
        server.destroyForcibly().waitFor();
    }

    @Override
    public void close() {
        programs.remove(server);
        programs.forEach(Process::destroyForcibly);
        programs.add(server);
        // Told to end rather than killed, it leaves nothing behind. Where it waits for a client that is gone, it is
        // killed.
        server.destroy();
        try {
            if (!server.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
                server.destroyForcibly();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        Awaitility.await().until(() -> programs.stream().noneMatch(Process::isAlive));
    }
}
