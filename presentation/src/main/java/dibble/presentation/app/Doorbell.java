package dibble.presentation.app;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * How a second start reaches the Dibble that is running: a socket in the user's folder, which nobody beyond this machine and
 * this user can reach. Where the system has no such sockets, the second start knows nothing of the first.
 */
public final class Doorbell implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Doorbell.class);
    private static final String NAME = "running.socket";

    private final ServerSocketChannel server;
    private final Path place;
    private final Queue<String> rung = new ConcurrentLinkedQueue<>();

    private Doorbell(ServerSocketChannel server, Path place) {
        this.server = server;
        this.place = place;
        Thread thread = new Thread(this::listen, "dibble-doorbell");
        thread.setDaemon(true);
        thread.start();
    }

    /**
     * Asks the running Dibble to open a file, or only to show itself.
     *
     * @param folder the user's folder
     * @param file an absolute path, or an empty text
     * @return whether there is one
     */
    public static boolean ring(Path folder, String file) {
        Path place = folder.resolve(NAME);
        if (!Files.exists(place)) {
            return false;
        }
        try (SocketChannel channel = SocketChannel.open(StandardProtocolFamily.UNIX)) {
            channel.connect(UnixDomainSocketAddress.of(place));
            channel.write(ByteBuffer.wrap((file + "\n").getBytes(StandardCharsets.UTF_8)));
            return true;
        } catch (IOException | UnsupportedOperationException | IllegalArgumentException e) {
            LOG.debug("nobody answers at {}: {}", place, e.getMessage());
            return false;
        }
    }

    /** Waits for second starts; null where that is not possible here. */
    public static Doorbell hang(Path folder) {
        Path place = folder.resolve(NAME);
        try {
            Files.createDirectories(folder);
            // One that was left by a process that was killed: nobody answers there.
            Files.deleteIfExists(place);
            ServerSocketChannel server = ServerSocketChannel.open(StandardProtocolFamily.UNIX);
            server.bind(UnixDomainSocketAddress.of(place));
            return new Doorbell(server, place);
        } catch (IOException | UnsupportedOperationException | IllegalArgumentException e) {
            LOG.debug("no second start can be heard at {}: {}", place, e.getMessage());
            return null;
        }
    }

    private void hear(SocketChannel visitor) throws IOException {
        try (BufferedReader lines =
                new BufferedReader(new InputStreamReader(Channels.newInputStream(visitor), StandardCharsets.UTF_8))) {
            String line = lines.readLine();
            if (line != null) {
                rung.add(line);
            }
        }
    }

    private void listen() {
        while (server.isOpen()) {
            try (SocketChannel visitor = server.accept()) {
                hear(visitor);
            } catch (IOException e) {
                LOG.debug("a second start was not heard: {}", e.getMessage());
            }
        }
    }

    /** Whether somebody has rung. Any thread. */
    public boolean hasNews() {
        return !rung.isEmpty();
    }

    /** What is to be opened next: a path, or an empty text; null where nobody has rung. */
    public String next() {
        return rung.poll();
    }

    @Override
    public void close() {
        try {
            server.close();
            Files.deleteIfExists(place);
        } catch (IOException e) {
            LOG.debug("{} stays: {}", place, e.getMessage());
        }
    }
}
