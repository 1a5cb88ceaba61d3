package dibble.testing.disk;

import java.io.File;
import java.io.IOException;
import java.net.URI;
import java.nio.file.FileSystem;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.WatchEvent;
import java.nio.file.WatchKey;
import java.nio.file.WatchService;

/** A path of the watched file system. */
final class WatchedPath implements Path {
    private final WatchedFileSystem files;
    final Path path;

    WatchedPath(WatchedFileSystem files, Path path) {
        this.files = files;
        this.path = path;
    }

    private static Path plain(Path other) {
        return WatchedProvider.plain(other);
    }

    @Override
    public FileSystem getFileSystem() {
        return files;
    }

    @Override
    public boolean isAbsolute() {
        return path.isAbsolute();
    }

    @Override
    public Path getRoot() {
        return files.watched(path.getRoot());
    }

    @Override
    public Path getFileName() {
        return files.watched(path.getFileName());
    }

    @Override
    public Path getParent() {
        return files.watched(path.getParent());
    }

    @Override
    public int getNameCount() {
        return path.getNameCount();
    }

    @Override
    public Path getName(int index) {
        return files.watched(path.getName(index));
    }

    @Override
    public Path subpath(int begin, int end) {
        return files.watched(path.subpath(begin, end));
    }

    @Override
    public boolean startsWith(Path other) {
        return path.startsWith(plain(other));
    }

    @Override
    public boolean endsWith(Path other) {
        return path.endsWith(plain(other));
    }

    @Override
    public Path normalize() {
        return files.watched(path.normalize());
    }

    @Override
    public Path resolve(Path other) {
        return files.watched(path.resolve(plain(other)));
    }

    @Override
    public Path relativize(Path other) {
        return files.watched(path.relativize(plain(other)));
    }

    @Override
    public URI toUri() {
        return path.toUri();
    }

    @Override
    public Path toAbsolutePath() {
        return files.watched(path.toAbsolutePath());
    }

    @Override
    public Path toRealPath(LinkOption... options) throws IOException {
        ((WatchedProvider) files.provider()).told(path);
        return files.watched(path.toRealPath(options));
    }

    @Override
    public File toFile() {
        return new File(path.toString());
    }

    @Override
    public WatchKey register(WatchService watcher, WatchEvent.Kind<?>[] events, WatchEvent.Modifier... modifiers)
            throws IOException {
        return path.register(watcher, events, modifiers);
    }

    @Override
    public int compareTo(Path other) {
        return path.compareTo(plain(other));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof WatchedPath watched && path.equals(watched.path);
    }

    @Override
    public int hashCode() {
        return path.hashCode();
    }

    @Override
    public String toString() {
        return path.toString();
    }
}
