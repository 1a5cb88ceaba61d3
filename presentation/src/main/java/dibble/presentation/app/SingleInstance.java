package dibble.presentation.app;

import java.io.IOException;
import java.net.ConnectException;
import java.net.SocketException;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.SelectionKey;
import java.nio.channels.Selector;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import jdk.net.ExtendedSocketOptions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The connection of a second start to the running Dibble: a socket in a folder that only this user can enter. A message
 * is one short line; clients are served concurrently, each for a few seconds. Where the system has no such sockets, a
 * second start does not know about the first.
 */
public final class SingleInstance implements AutoCloseable {
    /** The result of a message. */
    public enum Answer {
        /** Another Dibble is running, and opens the file. */
        HEARD,
        /** None is running. */
        NOBODY,
        /** Something holds the socket and does not answer. */
        SILENT
    }

    /** A visitor has this long to say something, and waits twice as long for an answer. */
    static final long PATIENCE_MILLIS = 2000;

    private static final long RETRY_MILLIS = 20;

    /** Longer than any path that a system can open. */
    static final int MAX_BYTES = 1 << 14;

    private static final Logger LOG = LoggerFactory.getLogger(SingleInstance.class);
    private static final String FOLDER = "running";
    private static final String NAME = "socket";
    private static final int MAX_VISITORS = 64;
    private static final byte[] HEARD = "heard\n".getBytes(StandardCharsets.US_ASCII);

    private final ServerSocketChannel server;
    private final Selector selector;
    private final Path place;
    private final Queue<String> rung = new ConcurrentLinkedQueue<>();

    private SingleInstance(ServerSocketChannel server, Selector selector, Path place) {
        this.server = server;
        this.selector = selector;
        this.place = place;
        Thread thread = new Thread(this::listen, "dibble-doorbell");
        thread.setDaemon(true);
        thread.start();
    }

    private static Path place(Path folder) {
        return folder.resolve(FOLDER).resolve(NAME);
    }

    /**
     * Asks the running Dibble to open a file, or only to show itself.
     *
     * @param folder the user's folder
     * @param file an absolute path, or an empty text
     */
    public static Answer ring(Path folder, String file) {
        Path place = place(folder);
        byte[] message = (file + "\n").getBytes(StandardCharsets.UTF_8);
        if (!Files.exists(place) || message.length > MAX_BYTES) {
            return Answer.NOBODY;
        }
        long end = deadline(2);
        try (Selector waiting = Selector.open();
                SocketChannel channel = connect(place, end, waiting)) {
            if (channel == null) {
                return Answer.SILENT;
            }
            ByteBuffer bytes = ByteBuffer.wrap(message);
            ByteBuffer answer = ByteBuffer.allocate(HEARD.length);
            SelectionKey key = channel.register(waiting, SelectionKey.OP_WRITE);
            while (answer.hasRemaining() && waiting.select(millisUntil(end)) > 0) {
                waiting.selectedKeys().clear();
                if (bytes.hasRemaining()) {
                    channel.write(bytes);
                    key.interestOps(bytes.hasRemaining() ? SelectionKey.OP_WRITE : SelectionKey.OP_READ);
                } else if (channel.read(answer) < 0) {
                    return Answer.SILENT;
                }
            }
            return answer.hasRemaining() ? Answer.SILENT : Answer.HEARD;
        } catch (IOException | UnsupportedOperationException | IllegalArgumentException e) {
            LOG.debug("nobody answers at {}: {}", place, e.getMessage());
            return Answer.NOBODY;
        }
    }

    /** Returns a connection, or null if the queue of connections stays full until a deadline. */
    private static SocketChannel connect(Path place, long end, Selector waiting) throws IOException {
        do {
            SocketChannel channel = SocketChannel.open(StandardProtocolFamily.UNIX);
            boolean connected = false;
            try {
                // A blocking channel would wait for a full queue without a limit.
                channel.configureBlocking(false);
                connected = channel.connect(UnixDomainSocketAddress.of(place));
            } catch (ConnectException e) {
                throw e;
            } catch (SocketException e) {
                LOG.debug("{} has a full queue: {}", place, e.getMessage());
            } finally {
                if (!connected) {
                    channel.close();
                }
            }
            if (connected) {
                return channel;
            }
            waiting.select(RETRY_MILLIS);
        } while (end - System.nanoTime() > 0);
        return null;
    }

    private static long deadline(int times) {
        return System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(times * PATIENCE_MILLIS);
    }

    /** At least 1: a selector takes 0 for ever. */
    private static long millisUntil(long end) {
        return Math.max(1, TimeUnit.NANOSECONDS.toMillis(end - System.nanoTime()));
    }

    /** Waits for second starts; null where that is not possible here. */
    public static SingleInstance hang(Path folder) {
        Path place = place(folder);
        try {
            Files.createDirectories(place.getParent());
            allow(place.getParent(), "rwx------");
            // A socket left by a killed process has no listener.
            Files.deleteIfExists(place);
            ServerSocketChannel server = ServerSocketChannel.open(StandardProtocolFamily.UNIX);
            server.bind(UnixDomainSocketAddress.of(place));
            allow(place, "rw-------");
            server.configureBlocking(false);
            Selector selector = Selector.open();
            server.register(selector, SelectionKey.OP_ACCEPT);
            return new SingleInstance(server, selector, place);
        } catch (IOException | UnsupportedOperationException | IllegalArgumentException e) {
            LOG.debug("no second start can be heard at {}: {}", place, e.getMessage());
            return null;
        }
    }

    private static void allow(Path path, String permissions) throws IOException {
        if (path.getFileSystem().supportedFileAttributeViews().contains("posix")) {
            Files.setPosixFilePermissions(path, PosixFilePermissions.fromString(permissions));
        }
    }

    /** A client, and its message so far. */
    private static final class Visitor {
        final ByteBuffer said = ByteBuffer.allocate(MAX_BYTES);
        final long end = deadline(1);
    }

    private void listen() {
        while (selector.isOpen()) {
            try {
                selector.select(PATIENCE_MILLIS);
                for (SelectionKey key : List.copyOf(selector.selectedKeys())) {
                    selector.selectedKeys().remove(key);
                    serve(key);
                }
                for (SelectionKey key : List.copyOf(selector.keys())) {
                    if (key.attachment() instanceof Visitor visitor && visitor.end - System.nanoTime() < 0) {
                        dismiss(key);
                    }
                }
            } catch (IOException | RuntimeException e) {
                if (selector.isOpen()) {
                    LOG.debug("a second start was not heard: {}", e.getMessage(), e);
                }
            }
        }
    }

    private void serve(SelectionKey key) throws IOException {
        if (key.channel() == server) {
            SocketChannel visitor = server.accept();
            if (visitor != null) {
                welcome(visitor);
            }
            return;
        }
        try {
            hear(key, (SocketChannel) key.channel(), (Visitor) key.attachment());
        } catch (IOException e) {
            LOG.debug("a second start was not heard: {}", e.getMessage());
            dismiss(key);
        }
    }

    private void welcome(SocketChannel visitor) throws IOException {
        if (selector.keys().size() > MAX_VISITORS || !isThisUser(visitor)) {
            visitor.close();
            return;
        }
        visitor.configureBlocking(false);
        visitor.register(selector, SelectionKey.OP_READ, new Visitor());
    }

    /** Returns true if the other end belongs to the user whose socket this is, where the system tells. */
    private boolean isThisUser(SocketChannel visitor) {
        try {
            return visitor.getOption(ExtendedSocketOptions.SO_PEERCRED)
                    .user()
                    .getName()
                    .equals(Files.getOwner(place).getName());
        } catch (IOException | UnsupportedOperationException e) {
            LOG.debug("who rang is not known here: {}", e.getMessage());
            return true;
        }
    }

    private void hear(SelectionKey key, SocketChannel visitor, Visitor of) throws IOException {
        int read = visitor.read(of.said);
        int length = of.said.position();
        boolean whole = length > 0 && of.said.get(length - 1) == '\n';
        if (whole) {
            rung.add(new String(of.said.array(), 0, length - 1, StandardCharsets.UTF_8));
            visitor.write(ByteBuffer.wrap(HEARD));
        }
        if (whole || read < 0 || !of.said.hasRemaining()) {
            dismiss(key);
        }
    }

    private static void dismiss(SelectionKey key) {
        key.cancel();
        try {
            key.channel().close();
        } catch (IOException e) {
            LOG.debug("a second start stays connected: {}", e.getMessage());
        }
    }

    /** Returns true if a message has arrived. Any thread. */
    public boolean hasNews() {
        return !rung.isEmpty();
    }

    /** Returns the next path to open, or an empty text; null for no message. */
    public String next() {
        return rung.poll();
    }

    @Override
    public void close() {
        try {
            List.copyOf(selector.keys()).forEach(SingleInstance::dismiss);
            selector.close();
            server.close();
            Files.deleteIfExists(place);
        } catch (IOException e) {
            LOG.debug("{} stays: {}", place, e.getMessage());
        }
    }
}
