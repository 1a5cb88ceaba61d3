package dibble.testing.disk;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.channels.AsynchronousFileChannel;
import java.nio.channels.FileChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.AccessMode;
import java.nio.file.CopyOption;
import java.nio.file.DirectoryStream;
import java.nio.file.FileStore;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.FileAttributeView;
import java.nio.file.spi.FileSystemProvider;
import java.util.Iterator;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutorService;

/**
 * A file system that delegates to that of the operating system, and reports all calls to a {@link DiskWatch}. It can be the default file system of a test process, or an additional one.
 */
public final class WatchedProvider extends FileSystemProvider {
    private static volatile DiskWatch usual = DiskWatch.NONE;

    final FileSystemProvider system;
    private final WatchedFileSystem files;
    private final DiskWatch watch;

    /** Is the default of a process. @param system the provider of the operating system */
    public WatchedProvider(FileSystemProvider system) {
        this(system, null);
    }

    private WatchedProvider(FileSystemProvider system, DiskWatch watch) {
        this.system = system;
        this.watch = watch;
        files = new WatchedFileSystem(this, system.getFileSystem(URI.create("file:///")));
    }

    /** Returns whether this is the default file system of the process; if so, sets its observer. */
    public static boolean isDefault(DiskWatch watch) {
        boolean is = FileSystems.getDefault() instanceof WatchedFileSystem;
        if (is) {
            usual = watch;
        }
        return is;
    }

    /** Returns a path whose use is reported to an observer. */
    public static Path watched(Path path, DiskWatch watch) {
        return new WatchedProvider(path.getFileSystem().provider(), watch).files.watched(path);
    }

    private DiskWatch watch() {
        return watch == null ? usual : watch;
    }

    /** Returns the path of the operating system, for a call that may wait. */
    private Path disk(Path path) throws IOException {
        watch().call(plain(path));
        return plain(path);
    }

    /** Tells of a call that may wait. */
    void told(Path path) throws IOException {
        watch().call(path);
    }

    /** The same, for a call that cannot fail. */
    private Path unfailing(Path path) {
        try {
            return disk(path);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static Path plain(Path path) {
        return path instanceof WatchedPath watched ? watched.path : path;
    }

    @Override
    public String getScheme() {
        return system.getScheme();
    }

    @Override
    public FileSystem newFileSystem(URI uri, Map<String, ?> env) throws IOException {
        return system.newFileSystem(uri, env);
    }

    @Override
    public FileSystem getFileSystem(URI uri) {
        return files;
    }

    @Override
    public Path getPath(URI uri) {
        return files.watched(system.getPath(uri));
    }

    @Override
    public SeekableByteChannel newByteChannel(
            Path path, Set<? extends OpenOption> options, FileAttribute<?>... attributes) throws IOException {
        return options.contains(StandardOpenOption.WRITE)
                ? newFileChannel(path, options, attributes)
                : system.newByteChannel(disk(path), options, attributes);
    }

    @Override
    public FileChannel newFileChannel(Path path, Set<? extends OpenOption> options, FileAttribute<?>... attributes)
            throws IOException {
        boolean writes = options.contains(StandardOpenOption.WRITE);
        Path plain = disk(path);
        if (writes && !Files.exists(plain)) {
            watch().made(plain);
        }
        return new WatchedChannel(system.newFileChannel(plain, options, attributes), plain, watch());
    }

    @Override
    public AsynchronousFileChannel newAsynchronousFileChannel(
            Path path, Set<? extends OpenOption> options, ExecutorService executor, FileAttribute<?>... attributes)
            throws IOException {
        return system.newAsynchronousFileChannel(disk(path), options, executor, attributes);
    }

    @Override
    public InputStream newInputStream(Path path, OpenOption... options) throws IOException {
        return system.newInputStream(disk(path), options);
    }

    @Override
    public OutputStream newOutputStream(Path path, OpenOption... options) throws IOException {
        // By a channel, as it is for every other file system.
        return super.newOutputStream(path, options);
    }

    @Override
    public DirectoryStream<Path> newDirectoryStream(Path folder, DirectoryStream.Filter<? super Path> filter)
            throws IOException {
        DirectoryStream<Path> entries =
                system.newDirectoryStream(disk(folder), entry -> filter.accept(files.watched(entry)));
        return new DirectoryStream<>() {
            @Override
            public Iterator<Path> iterator() {
                Iterator<Path> all = entries.iterator();
                return new Iterator<>() {
                    @Override
                    public boolean hasNext() {
                        return all.hasNext();
                    }

                    @Override
                    public Path next() {
                        return files.watched(all.next());
                    }
                };
            }

            @Override
            public void close() throws IOException {
                entries.close();
            }
        };
    }

    @Override
    public void createDirectory(Path folder, FileAttribute<?>... attributes) throws IOException {
        system.createDirectory(disk(folder), attributes);
        watch().madeFolder(plain(folder));
    }

    @Override
    public void createSymbolicLink(Path link, Path target, FileAttribute<?>... attributes) throws IOException {
        system.createSymbolicLink(disk(link), plain(target), attributes);
    }

    @Override
    public void createLink(Path link, Path existing) throws IOException {
        system.createLink(disk(link), plain(existing));
    }

    @Override
    public void delete(Path path) throws IOException {
        watch().deletes(disk(path));
        system.delete(plain(path));
    }

    @Override
    public boolean deleteIfExists(Path path) throws IOException {
        if (Files.exists(disk(path), LinkOption.NOFOLLOW_LINKS)) {
            watch().deletes(plain(path));
        }
        return system.deleteIfExists(plain(path));
    }

    @Override
    public Path readSymbolicLink(Path link) throws IOException {
        return files.watched(system.readSymbolicLink(disk(link)));
    }

    @Override
    public void copy(Path source, Path target, CopyOption... options) throws IOException {
        system.copy(disk(source), plain(target), options);
    }

    @Override
    public void move(Path source, Path target, CopyOption... options) throws IOException {
        watch().moves(disk(source), plain(target));
        system.move(plain(source), plain(target), options);
    }

    @Override
    public boolean isSameFile(Path path, Path other) throws IOException {
        return system.isSameFile(disk(path), plain(other));
    }

    @Override
    public boolean isHidden(Path path) throws IOException {
        return system.isHidden(disk(path));
    }

    @Override
    public FileStore getFileStore(Path path) throws IOException {
        return system.getFileStore(disk(path));
    }

    @Override
    public void checkAccess(Path path, AccessMode... modes) throws IOException {
        system.checkAccess(disk(path), modes);
    }

    @Override
    public <V extends FileAttributeView> V getFileAttributeView(Path path, Class<V> type, LinkOption... options) {
        return system.getFileAttributeView(unfailing(path), type, options);
    }

    @Override
    public <A extends BasicFileAttributes> A readAttributes(Path path, Class<A> type, LinkOption... options)
            throws IOException {
        return system.readAttributes(disk(path), type, options);
    }

    @Override
    public Map<String, Object> readAttributes(Path path, String attributes, LinkOption... options) throws IOException {
        return system.readAttributes(disk(path), attributes, options);
    }

    @Override
    public void setAttribute(Path path, String attribute, Object value, LinkOption... options) throws IOException {
        system.setAttribute(disk(path), attribute, value, options);
    }
}
