package dibble.disk;

import static dibble.text.CoreText.say;

import dibble.work.Progress;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFileAttributes;
import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Writes a file next to the previous one, forces it to disk and renames it over the previous one atomically. It keeps
 * the permissions and the owner of the previous file; links stay links; a target that is not a regular file is written
 * directly.
 */
public final class AtomicFile {
    private static final Logger LOG = LoggerFactory.getLogger(AtomicFile.class);
    private static final Pattern BESIDE = Pattern.compile("\\.dibble-(\\d{1,18})-\\d+\\.new");
    private static final int MAX_LINKS = 40;
    private static final AtomicInteger NUMBER = new AtomicInteger();

    /** Files that are being written now: they go when the process is asked to end, and none is begun after that. */
    private static final Set<Path> OPEN = new HashSet<>();

    private static boolean ending;

    static {
        Runtime.getRuntime().addShutdownHook(new Thread(AtomicFile::end, "dibble-tidy"));
    }

    private AtomicFile() {}

    private static void end() {
        synchronized (OPEN) {
            ending = true;
            OPEN.forEach(AtomicFile::remove);
        }
    }

    private static FileChannel begin(Path file) throws IOException {
        synchronized (OPEN) {
            if (ending) {
                throw new IOException(say("atomic-file.is-not-written-the-program", file));
            }
            FileChannel channel = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
            OPEN.add(file);
            return channel;
        }
    }

    private static void done(Path file) {
        synchronized (OPEN) {
            remove(file);
            OPEN.remove(file);
        }
    }

    /** Writes the contents of a file. */
    @FunctionalInterface
    public interface Content {
        void to(OutputStream out) throws IOException;
    }

    /** Replaces or makes a file. Where this fails, the old file is as it was. */
    public static void write(Path path, byte[] bytes) throws IOException {
        write(path, out -> out.write(bytes));
    }

    /** Creates or replaces a file. On failure the previous file is unchanged. */
    public static void write(Path path, Content content) throws IOException {
        write(path, content, Progress.NONE);
    }

    /**
     * Replaces or makes a file. Where this fails or is cancelled, the old file is as it was.
     *
     * @param progress is committed right before the old file is replaced
     */
    public static void write(Path path, Content content, Progress progress) throws IOException {
        Path absolute = path.toAbsolutePath();
        if (isStream(absolute)) {
            try (OutputStream out =
                    new BufferedOutputStream(Files.newOutputStream(absolute, StandardOpenOption.WRITE), 1 << 16)) {
                content.to(out);
            }
            return;
        }
        Path target = followed(absolute);
        Path folder = target.getParent();
        if (folder == null || !Files.isDirectory(folder)) {
            throw new IOException(say("atomic-file.no-folder-expected-an-existing", folder));
        }
        if (Files.isDirectory(target)) {
            throw new IOException(say("common.is-a-folder-expected-a", path));
        }
        if (Files.exists(target) && !Files.isWritable(target)) {
            throw new IOException(say("atomic-file.is-write-protected", path));
        }
        clearLeftovers(folder);
        Path beside =
                folder.resolve(".dibble-" + ProcessHandle.current().pid() + "-" + NUMBER.incrementAndGet() + ".new");
        try {
            writeWhole(beside, content);
            keepAttributes(target, beside);
            progress.commit();
            move(beside, target);
        } finally {
            done(beside);
        }
        flush(folder);
    }

    /** Returns true if it is a pipe, a terminal or a device, which no file may take the place of. */
    public static boolean isStream(Path path) throws IOException {
        Path absolute = path.toAbsolutePath().normalize();
        // These names are redirected outputs, whose files are already open.
        if (absolute.startsWith("/proc")
                || absolute.startsWith("/dev/fd")
                || absolute.toString().startsWith("/dev/std")) {
            return true;
        }
        try {
            return Files.readAttributes(absolute, BasicFileAttributes.class).isOther();
        } catch (NoSuchFileException e) {
            return false;
        }
    }

    private static Path followed(Path path) throws IOException {
        Path target = path;
        for (int i = 0; Files.isSymbolicLink(target); i++) {
            if (i == MAX_LINKS) {
                throw new IOException(say("atomic-file.is-a-link-that-points", path));
            }
            target = target.resolveSibling(Files.readSymbolicLink(target));
        }
        return target;
    }

    private static void writeWhole(Path file, Content content) throws IOException {
        try (FileChannel channel = begin(file)) {
            // The caller that closes the stream has finished, but the file has not been forced.
            OutputStream out = new BufferedOutputStream(Channels.newOutputStream(channel), 1 << 16) {
                @Override
                public void close() throws IOException {
                    flush();
                }
            };
            content.to(out);
            out.flush();
            channel.force(true);
        }
    }

    private static void keepAttributes(Path old, Path file) throws IOException {
        PosixFileAttributeView view = Files.getFileAttributeView(file, PosixFileAttributeView.class);
        if (view == null || !Files.exists(old)) {
            return;
        }
        PosixFileAttributes kept = Files.readAttributes(old, PosixFileAttributes.class);
        PosixFileAttributes given = view.readAttributes();
        if (!kept.owner().equals(given.owner()) || !kept.group().equals(given.group())) {
            try {
                view.setGroup(kept.group());
                view.setOwner(kept.owner());
            } catch (IOException e) {
                LOG.debug("the owner of {} could not be kept: {}", old, e.getMessage());
            }
        }
        view.setPermissions(kept.permissions());
    }

    private static void move(Path from, Path to) throws IOException {
        try {
            Files.move(from, to, StandardCopyOption.ATOMIC_MOVE);
        } catch (AtomicMoveNotSupportedException e) {
            Files.move(from, to, StandardCopyOption.REPLACE_EXISTING);
        }
    }

    /** Makes a folder where it is not there, with those that it is in, so that they outlive a power cut. */
    public static void makeFolder(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) {
            Path parent = folder.toAbsolutePath().getParent();
            if (parent != null) {
                makeFolder(parent);
            }
            Files.createDirectories(folder);
            if (parent != null) {
                flush(parent);
            }
        }
    }

    /** Forces the entries of a folder to disk; where folders cannot be forced, the system does it later. */
    public static void flush(Path folder) {
        try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        } catch (IOException e) {
            LOG.debug("{} could not be flushed: {}", folder, e.getMessage());
        }
    }

    /** Removes what processes that were killed while they wrote have left here. */
    private static void clearLeftovers(Path folder) {
        try (DirectoryStream<Path> left = Files.newDirectoryStream(folder, ".dibble-*.new")) {
            for (Path file : left) {
                Matcher name = BESIDE.matcher(file.getFileName().toString());
                if (name.matches()
                        && ProcessHandle.of(Long.parseLong(name.group(1))).isEmpty()
                        && Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) {
                    remove(file);
                }
            }
        } catch (IOException | DirectoryIteratorException e) {
            LOG.debug("{} could not be looked through: {}", folder, e.getMessage());
        }
    }

    private static void remove(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException e) {
            LOG.debug("{} could not be removed: {}", file, e.getMessage());
        }
    }
}
