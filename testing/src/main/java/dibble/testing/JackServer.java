package dibble.testing;

import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.sun.jna.NativeLibrary;
import java.io.File;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.awaitility.Awaitility;

/** A JACK server with its dummy driver, which needs no sound hardware, and programs that come with it. */
public final class JackServer implements AutoCloseable {
    /** The usual frames a second. */
    public static final int RATE = 48_000;

    /** The usual frames a block. */
    public static final int BLOCK = 256;

    private static final int TIMEOUT_MILLIS = 1000;
    private static final int PATIENCE_SECONDS = 60;

    private static final String SERVER_VARIABLE = "JACK_DEFAULT_SERVER";

    /**
     * Names for servers of tests. A server that was killed keeps its name on the machine, and the library knows only
     * eight: so there are few, and each process takes one that no other has.
     */
    private static final int NAMES = 4;

    private static final String SERVER = freeName();

    /** Kept, since a channel that is collected gives its lock up. */
    @SuppressWarnings("unused")
    private static FileChannel held;

    private final List<Process> programs = new ArrayList<>();
    private Process server;

    /** Takes a name until the process ends. */
    private static String freeName() {
        for (int number = 0; number < NAMES; number++) {
            String name = "dibble-test-" + number;
            Path mark = Path.of(System.getProperty("java.io.tmpdir"), name + ".lock");
            try {
                FileChannel channel = FileChannel.open(mark, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                if (channel.tryLock() != null) {
                    held = channel;
                    return name;
                }
                channel.close();
            } catch (IOException e) {
                // It belongs to another user.
            }
        }
        throw new IllegalStateException("more than " + NAMES + " processes want a server for tests");
    }

    /** Skips the test where no server is installed. */
    public static void assumeInstalled() {
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

    /** Starts the server at the usual rate, and waits until it answers. */
    public void start() {
        start(RATE, BLOCK);
    }

    /** Starts the server, and waits until it answers. */
    public void start(int rate, int block) {
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
    public Process run(String... command) {
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
    public void kill() throws InterruptedException {
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
