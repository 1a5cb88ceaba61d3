package dibble.presentation.disk;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URI;
import java.nio.channels.AsynchronousFileChannel;
import java.nio.channels.FileChannel;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.AccessMode;
import java.nio.file.CopyOption;
import java.nio.file.DirectoryStream;
import java.nio.file.FileStore;
import java.nio.file.FileSystem;
import java.nio.file.LinkOption;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.FileAttributeView;
import java.nio.file.spi.FileSystemProvider;
import java.util.Iterator;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutorService;

/**
 * The default file system of a test process. It delegates to the file system of the operating system, and reports every call that may wait for a
 * disk to {@link DiskGuard}.
 */
public final class GuardedProvider extends FileSystemProvider {
    final FileSystemProvider system;
    private final GuardedFileSystem files;

    /** @param system the provider of the operating system */
    public GuardedProvider(FileSystemProvider system) {
        this.system = system;
        files = new GuardedFileSystem(this, system.getFileSystem(URI.create("file:///")));
    }

    /** Returns the path of the operating system, for a call that may wait. */
    private static Path disk(Path path) {
        DiskGuard.disk(path);
        return plain(path);
    }

    static Path plain(Path path) {
        return path instanceof GuardedPath guarded ? guarded.path : path;
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
        return files.guarded(system.getPath(uri));
    }

    @Override
    public SeekableByteChannel newByteChannel(
            Path path, Set<? extends OpenOption> options, FileAttribute<?>... attributes) throws IOException {
        return system.newByteChannel(disk(path), options, attributes);
    }

    @Override
    public FileChannel newFileChannel(Path path, Set<? extends OpenOption> options, FileAttribute<?>... attributes)
            throws IOException {
        return system.newFileChannel(disk(path), options, attributes);
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
        return system.newOutputStream(disk(path), options);
    }

    @Override
    public DirectoryStream<Path> newDirectoryStream(Path folder, DirectoryStream.Filter<? super Path> filter)
            throws IOException {
        DirectoryStream<Path> entries =
                system.newDirectoryStream(disk(folder), entry -> filter.accept(files.guarded(entry)));
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
                        return files.guarded(all.next());
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
        system.delete(disk(path));
    }

    @Override
    public boolean deleteIfExists(Path path) throws IOException {
        return system.deleteIfExists(disk(path));
    }

    @Override
    public Path readSymbolicLink(Path link) throws IOException {
        return files.guarded(system.readSymbolicLink(disk(link)));
    }

    @Override
    public void copy(Path source, Path target, CopyOption... options) throws IOException {
        system.copy(disk(source), plain(target), options);
    }

    @Override
    public void move(Path source, Path target, CopyOption... options) throws IOException {
        system.move(disk(source), plain(target), options);
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
        return system.getFileAttributeView(disk(path), type, options);
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
