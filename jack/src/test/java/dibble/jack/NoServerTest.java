package dibble.jack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.programs.OwnPorts;
import dibble.testing.JackServer;
import dibble.time.Clock;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Where there is nothing to be among: the rest goes on, and it is said what is missing. */
class NoServerTest {
    @Test
    void withoutTheLibraryItIsSaidOnce() {
        AtomicInteger tries = new AtomicInteger();
        try (JackDevices devices = new JackDevices(Clock.SYSTEM, () -> {
            tries.incrementAndGet();
            throw new UnsatisfiedLinkError("no jack");
        })) {
            AtomicInteger told = new AtomicInteger();
            devices.onChange(told::incrementAndGet);
            devices.start();
            await().until(() -> devices.state().kind() == ServerState.Kind.NO_LIBRARY);
            devices.follow(OwnPorts.NONE, Set.of());
            assertThat(devices.inputs()).isEmpty();
            assertThat(devices.output("program:keys")).isEmpty();
            assertThat(devices.sound()).isEmpty();
            assertThat(devices.cables()).isEmpty();
            assertThat(tries).hasValue(1);
            assertThat(told).hasValue(1);
        }
    }

    @Test
    void withoutAServerItIsLookedForOn() {
        JackServer.assumeInstalled();
        try (JackDevices devices = new JackDevices(Clock.SYSTEM)) {
            devices.start();
            await().until(() -> devices.state().kind() == ServerState.Kind.NO_SERVER);
            try (JackServer server = new JackServer()) {
                server.start();
                await().pollInterval(Duration.ofMillis(1))
                        .until(() -> devices.state().isRunning());
                // Who leaves at once finds nobody on the way in.
                assertThat(Thread.getAllStackTraces().keySet())
                        .anyMatch(thread -> thread.getName().equals("dibble-programs-block"));
            }
        }
    }

    @Test
    void theServerOfAnotherUserLeavesAMark(@TempDir Path marks) throws IOException {
        String me = System.getProperty("user.name");
        assertThat(JackDevices.hasOthersServer(marks, me)).isFalse();
        Files.createFile(marks.resolve("jack_default_1000_0"));
        assertThat(JackDevices.hasOthersServer(marks, me)).isFalse();
        assertThat(JackDevices.hasOthersServer(marks, "somebody-else")).isTrue();
        assertThat(JackDevices.hasOthersServer(marks.resolve("none"), me)).isFalse();
    }
}
