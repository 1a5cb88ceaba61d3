package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.net.SocketException;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;

class SingleInstanceTest {
    @TempDir
    private Path folder;

    @Test
    void aSecondStartIsHeardByTheFirst() {
        assertThat(SingleInstance.ring(folder, "/a/round.dibble")).isEqualTo(SingleInstance.Answer.NOBODY);
        try (SingleInstance bell = SingleInstance.hang(folder)) {
            assertThat(bell.hasNews()).isFalse();
            assertThat(SingleInstance.ring(folder, "/a/Lampe – ä.dibble")).isEqualTo(SingleInstance.Answer.HEARD);
            await().until(bell::hasNews);
            assertThat(bell.next()).isEqualTo("/a/Lampe – ä.dibble");
            assertThat(SingleInstance.ring(folder, "")).isEqualTo(SingleInstance.Answer.HEARD);
            await().until(bell::hasNews);
            assertThat(bell.next()).isEmpty();
        }
        assertThat(SingleInstance.ring(folder, "")).isEqualTo(SingleInstance.Answer.NOBODY);
    }

    @Test
    void whatAKilledProcessLeftKeepsNobodyOut() throws IOException {
        Files.createFile(Files.createDirectory(folder.resolve("running")).resolve("socket"));
        assertThat(SingleInstance.ring(folder, "")).isEqualTo(SingleInstance.Answer.NOBODY);
        try (SingleInstance bell = SingleInstance.hang(folder)) {
            assertThat(SingleInstance.ring(folder, "x")).isEqualTo(SingleInstance.Answer.HEARD);
            await().until(bell::hasNews);
        }
    }

    private SocketChannel visitor() throws IOException {
        SocketChannel channel = SocketChannel.open(StandardProtocolFamily.UNIX);
        channel.connect(UnixDomainSocketAddress.of(folder.resolve("running").resolve("socket")));
        return channel;
    }

    @Test
    @EnabledOnOs(OS.LINUX)
    void onlyThisUserCanReachTheSocketWhateverTheUmaskIs() throws IOException {
        Path running = Files.createDirectory(folder.resolve("running"));
        Files.setPosixFilePermissions(running, PosixFilePermissions.fromString("rwxrwxrwx"));
        try (SingleInstance bell = SingleInstance.hang(folder)) {
            assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(running)))
                    .isEqualTo("rwx------");
            assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(running.resolve("socket"))))
                    .isEqualTo("rw-------");
            assertThat(bell.hasNews()).isFalse();
        }
    }

    @Test
    void visitorsWhoSayNothingKeepNobodyElseOut() throws IOException {
        List<SocketChannel> idle = new ArrayList<>();
        try (SingleInstance bell = SingleInstance.hang(folder)) {
            for (int i = 0; i < 52; i++) {
                idle.add(visitor());
            }
            assertThat(SingleInstance.ring(folder, "/a/b.dibble")).isEqualTo(SingleInstance.Answer.HEARD);
            assertThat(bell.next()).isEqualTo("/a/b.dibble");
            // They have their time, and no more.
            for (SocketChannel channel : idle) {
                assertThat(channel.read(ByteBuffer.allocate(1))).isEqualTo(-1);
            }
        } finally {
            for (SocketChannel channel : idle) {
                channel.close();
            }
        }
    }

    @Test
    void waitsForAPlaceInAFullQueue() throws IOException {
        Path running = Files.createDirectory(folder.resolve("running"));
        UnixDomainSocketAddress address = UnixDomainSocketAddress.of(running.resolve("socket"));
        List<SocketChannel> queue = new ArrayList<>();
        try (ServerSocketChannel server = ServerSocketChannel.open(StandardProtocolFamily.UNIX)) {
            server.bind(address, 1);
            assertThatThrownBy(() -> {
                        while (true) {
                            SocketChannel channel = SocketChannel.open(StandardProtocolFamily.UNIX);
                            queue.add(channel);
                            channel.configureBlocking(false);
                            channel.connect(address);
                        }
                    })
                    .isInstanceOf(SocketException.class);
            CompletableFuture<SingleInstance.Answer> answer =
                    CompletableFuture.supplyAsync(() -> SingleInstance.ring(folder, "x"));
            ByteBuffer bytes = ByteBuffer.allocate(2);
            for (int i = 1; i < queue.size(); i++) {
                server.accept().close();
            }
            try (SocketChannel accepted = server.accept()) {
                while (bytes.hasRemaining()) {
                    accepted.read(bytes);
                }
                accepted.write(ByteBuffer.wrap("heard\n".getBytes(StandardCharsets.US_ASCII)));
                assertThat(answer.join()).isEqualTo(SingleInstance.Answer.HEARD);
            }
        } finally {
            for (SocketChannel channel : queue) {
                channel.close();
            }
        }
    }

    @Test
    void messagesWithoutAnEndAreCutOffAndTheNextIsHeard() throws IOException {
        try (SingleInstance bell = SingleInstance.hang(folder)) {
            try (SocketChannel channel = visitor()) {
                ByteBuffer bytes = ByteBuffer.allocate(1 << 20);
                assertThatThrownBy(() -> {
                            while (true) {
                                channel.write(bytes.clear());
                            }
                        })
                        .isInstanceOf(IOException.class);
            }
            assertThat(bell.hasNews()).isFalse();
            assertThat(SingleInstance.ring(folder, "x")).isEqualTo(SingleInstance.Answer.HEARD);
        }
    }

    @Test
    void oneThatDoesNotAnswerIsNotTakenForOneThatHeard() throws IOException {
        Path running = Files.createDirectory(folder.resolve("running"));
        try (ServerSocketChannel deaf = ServerSocketChannel.open(StandardProtocolFamily.UNIX)) {
            deaf.bind(UnixDomainSocketAddress.of(running.resolve("socket")));
            assertThat(SingleInstance.ring(folder, "x")).isEqualTo(SingleInstance.Answer.SILENT);
        }
    }
}
