package dibble.testing.disk;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.FileSystem;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.nio.file.WatchService;
import java.nio.file.attribute.UserPrincipalLookupService;
import java.nio.file.spi.FileSystemProvider;
import java.util.Set;
import java.util.stream.StreamSupport;

/** A file system whose paths lead to the watched provider. */
final class WatchedFileSystem extends FileSystem {
    private final WatchedProvider provider;
    private final FileSystem system;

    WatchedFileSystem(WatchedProvider provider, FileSystem system) {
        this.provider = provider;
        this.system = system;
    }

    Path watched(Path path) {
        return path == null || path instanceof WatchedPath ? path : new WatchedPath(this, path);
    }

    @Override
    public FileSystemProvider provider() {
        return provider;
    }

    @Override
    public void close() throws IOException {
        system.close();
    }

    @Override
    public boolean isOpen() {
        return system.isOpen();
    }

    @Override
    public boolean isReadOnly() {
        return system.isReadOnly();
    }

    @Override
    public String getSeparator() {
        return system.getSeparator();
    }

    @Override
    public Iterable<Path> getRootDirectories() {
        return StreamSupport.stream(system.getRootDirectories().spliterator(), false)
                .map(this::watched)
                .toList();
    }

    @Override
    public Iterable<FileStore> getFileStores() {
        return system.getFileStores();
    }

    @Override
    public Set<String> supportedFileAttributeViews() {
        return system.supportedFileAttributeViews();
    }

    @Override
    public Path getPath(String first, String... more) {
        return watched(system.getPath(first, more));
    }

    @Override
    public PathMatcher getPathMatcher(String pattern) {
        PathMatcher matcher = system.getPathMatcher(pattern);
        return path -> matcher.matches(WatchedProvider.plain(path));
    }

    @Override
    public UserPrincipalLookupService getUserPrincipalLookupService() {
        return system.getUserPrincipalLookupService();
    }

    @Override
    public WatchService newWatchService() throws IOException {
        return system.newWatchService();
    }
}
