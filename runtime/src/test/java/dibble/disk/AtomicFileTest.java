package dibble.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import dibble.testing.PatientAwaiting;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Saving leaves what a file was besides its contents, and nothing else. */
class AtomicFileTest {
    private static final byte[] NEW = "new".getBytes();

    @TempDir
    private Path folder;

    @BeforeEach
    void posixOnly() {
        assumeTrue(folder.getFileSystem().supportedFileAttributeViews().contains("posix"));
    }

    private Stream<Path> all() throws IOException {
        return Files.list(folder);
    }

    @Test
    void permissionsStay() throws IOException {
        Path file = Files.writeString(folder.resolve("a"), "old");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-rw---x"));
        AtomicFile.write(file, NEW);
        assertThat(file).hasContent("new");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-rw---x");
        Path plain = Files.writeString(folder.resolve("plain"), "");
        AtomicFile.write(folder.resolve("fresh"), NEW);
        assertThat(Files.getPosixFilePermissions(folder.resolve("fresh")))
                .as("as any new file has them")
                .isEqualTo(Files.getPosixFilePermissions(plain));
    }

    @Test
    void aLinkStaysALink() throws IOException {
        Path file = Files.writeString(folder.resolve("a"), "old");
        Path link = Files.createSymbolicLink(folder.resolve("link"), Path.of("a"));
        Path second = Files.createSymbolicLink(folder.resolve("second"), Path.of("link"));
        AtomicFile.write(second, NEW);
        assertThat(second).isSymbolicLink();
        assertThat(link).isSymbolicLink();
        assertThat(file).hasContent("new");
        Path dangling = Files.createSymbolicLink(folder.resolve("dangling"), Path.of("made"));
        AtomicFile.write(dangling, NEW);
        assertThat(folder.resolve("made")).hasContent("new");
        Path round = Files.createSymbolicLink(folder.resolve("round"), Path.of("round"));
        assertThatThrownBy(() -> AtomicFile.write(round, NEW)).isInstanceOf(IOException.class);
    }

    @Test
    void aPipeIsWrittenIntoAndStaysOne() throws Exception {
        Path pipe = folder.resolve("pipe");
        assumeTrue(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor() == 0);
        CompletableFuture<byte[]> read = CompletableFuture.supplyAsync(() -> {
            try {
                return Files.readAllBytes(pipe);
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        });
        AtomicFile.write(pipe, NEW);
        assertThat(read.get(PatientAwaiting.TIMEOUT.toSeconds(), TimeUnit.SECONDS))
                .isEqualTo(NEW);
        assertThat(AtomicFile.isStream(pipe)).isTrue();
        assertThatThrownBy(() -> AtomicFile.write(Path.of("/dev/full"), NEW)).isInstanceOf(IOException.class);
    }

    @Test
    void namesUpToTheLimitOfTheSystemCanBeWritten() throws IOException {
        Path longest = folder.resolve("x".repeat(255));
        AtomicFile.write(longest, NEW);
        AtomicFile.write(longest, NEW);
        assertThat(all()).containsExactly(longest);
    }

    @Test
    void whatAKilledProcessLeftGoesWithTheNextSave() throws Exception {
        Process gone = new ProcessBuilder("true").start();
        gone.waitFor();
        Path left = Files.writeString(folder.resolve(".dibble-" + gone.pid() + "-3.new"), "half");
        Path running = Files.writeString(
                folder.resolve(".dibble-" + ProcessHandle.current().pid() + "-999999.new"), "being written");
        Path others = Files.writeString(folder.resolve(".dibble-notes.new"), "somebody's own");
        AtomicFile.write(folder.resolve("a"), NEW);
        assertThat(left).doesNotExist();
        assertThat(running).exists();
        assertThat(others).exists();
    }

    @Test
    void aFailureOnTheWayLeavesTheOldFileAndNothingElse() throws IOException {
        Path file = Files.writeString(folder.resolve("a"), "old");
        assertThatThrownBy(() -> AtomicFile.write(file, out -> {
                    out.write(NEW);
                    throw new IOException("the disk is full");
                }))
                .hasMessage("the disk is full");
        assertThat(file).hasContent("old");
        assertThat(all()).containsExactly(file);
        assertThatThrownBy(() -> AtomicFile.write(folder, NEW)).hasMessageContaining("is a folder");
        assertThatThrownBy(() -> AtomicFile.write(folder.resolve("no/a"), NEW)).hasMessageContaining("no folder");
    }

    /** A folder in memory is a folder as any other, wherever the system has put it. */
    @Test
    @org.junit.jupiter.api.condition.EnabledIf("hasSharedMemory")
    void filesInSharedMemoryAreOrdinaryFiles() throws IOException {
        Path file = Path.of("/dev/shm", "dibble-test-" + ProcessHandle.current().pid());
        try {
            assertThat(AtomicFile.isStream(file)).isFalse();
            AtomicFile.write(file, NEW);
            assertThat(file).hasBinaryContent(NEW);
        } finally {
            Files.deleteIfExists(file);
        }
    }

    static boolean hasSharedMemory() {
        return Files.isWritable(Path.of("/dev/shm"));
    }
}
