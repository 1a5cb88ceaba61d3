package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.StandardProtocolFamily;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.util.List;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.Test;

/** Whoever opens a socket of a network while the window is driven fails its test: that this would be seen. */
class NoNetworkTest {
    @Test
    void everyWayToANetworkIsRefusedAndSaysWhoAsked() throws Exception {
        Toolkit.start();
        List<ThrowingCallable> ways = List.of(
                () -> new Socket(InetAddress.getLoopbackAddress(), 1).close(),
                () -> new ServerSocket(0).close(),
                () -> new DatagramSocket().close(),
                () -> SocketChannel.open().close(),
                () -> ServerSocketChannel.open().close(),
                () -> SocketChannel.open(StandardProtocolFamily.INET).close());
        for (ThrowingCallable way : ways) {
            assertThatThrownBy(way).hasMessageContaining(NoNetworkTest.class.getName());
            assertThat(NoNetwork.asked()).hasSize(1);
        }
        SocketChannel.open(StandardProtocolFamily.UNIX).close();
        assertThat(NoNetwork.asked()).isEmpty();
    }
}
