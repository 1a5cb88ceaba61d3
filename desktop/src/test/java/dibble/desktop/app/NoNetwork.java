package dibble.desktop.app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.DatagramSocket;
import java.net.ProtocolFamily;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketException;
import java.net.StandardProtocolFamily;
import java.nio.channels.DatagramChannel;
import java.nio.channels.Pipe;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.nio.channels.spi.AbstractSelector;
import java.nio.channels.spi.SelectorProvider;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;

/**
 * Refuses every socket of a network, and notes who asked for one, whether that was Dibble or a library. Sockets of this
 * machine alone, which are files, are none of a network. The command line of the test JVM names it as selector provider.
 */
public final class NoNetwork extends SelectorProvider {
    private static final Queue<String> ASKED = new ConcurrentLinkedQueue<>();

    private final SelectorProvider real = usual();

    /** Has sockets of the older kind refused as well; once in a JVM. */
    @SuppressWarnings("deprecation")
    static void begin() {
        try {
            Socket.setSocketImplFactory(() -> {
                throw new IllegalStateException(refused("a socket"));
            });
            ServerSocket.setSocketFactory(() -> {
                throw new IllegalStateException(refused("a server socket"));
            });
            DatagramSocket.setDatagramSocketImplFactory(() -> {
                throw new IllegalStateException(refused("a datagram socket"));
            });
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Who has asked for a socket since the last question, with the call that did. */
    static List<String> asked() {
        List<String> all = new ArrayList<>();
        for (String next = ASKED.poll(); next != null; next = ASKED.poll()) {
            all.add(next);
        }
        return all;
    }

    private static String refused(String what) {
        String who = StackWalker.getInstance()
                .walk(frames -> frames.filter(frame -> !frame.getClassName().startsWith("java")
                                && !frame.getClassName().equals(NoNetwork.class.getName()))
                        .findFirst()
                        .map(Object::toString)
                        .orElse("the JDK"));
        ASKED.add(what + " by " + who);
        return what + " was asked for by " + who;
    }

    /** The provider that Java would have taken. */
    private static SelectorProvider usual() {
        try {
            return (SelectorProvider) Class.forName("sun.nio.ch.DefaultSelectorProvider")
                    .getMethod("get")
                    .invoke(null);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void only(ProtocolFamily family) throws IOException {
        if (family != StandardProtocolFamily.UNIX) {
            throw new SocketException(refused("a channel of a network"));
        }
    }

    @Override
    public DatagramChannel openDatagramChannel() throws IOException {
        return openDatagramChannel(StandardProtocolFamily.INET);
    }

    @Override
    public DatagramChannel openDatagramChannel(ProtocolFamily family) throws IOException {
        only(family);
        return real.openDatagramChannel(family);
    }

    @Override
    public Pipe openPipe() throws IOException {
        return real.openPipe();
    }

    @Override
    public AbstractSelector openSelector() throws IOException {
        return real.openSelector();
    }

    @Override
    public ServerSocketChannel openServerSocketChannel() throws IOException {
        return openServerSocketChannel(StandardProtocolFamily.INET);
    }

    @Override
    public SocketChannel openSocketChannel() throws IOException {
        return openSocketChannel(StandardProtocolFamily.INET);
    }

    @Override
    public SocketChannel openSocketChannel(ProtocolFamily family) throws IOException {
        only(family);
        return real.openSocketChannel(family);
    }

    @Override
    public ServerSocketChannel openServerSocketChannel(ProtocolFamily family) throws IOException {
        only(family);
        return real.openServerSocketChannel(family);
    }
}
