package dibble.testing.disk;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.MappedByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.ReadableByteChannel;
import java.nio.channels.WritableByteChannel;
import java.nio.file.Path;

/** Reports writes and forces to a {@link DiskWatch}. */
final class WatchedChannel extends FileChannel {
    private final FileChannel channel;
    private final Path path;
    private final DiskWatch watch;

    WatchedChannel(FileChannel channel, Path path, DiskWatch watch) {
        this.channel = channel;
        this.path = path;
        this.watch = watch;
    }

    @Override
    public int write(ByteBuffer from) throws IOException {
        int written = write(from, channel.position());
        channel.position(channel.position() + written);
        return written;
    }

    @Override
    public int write(ByteBuffer from, long at) throws IOException {
        byte[] bytes = new byte[from.remaining()];
        from.duplicate().get(bytes);
        int count = watch.writes(path, at, bytes);
        from.position(from.position() + count);
        return channel.write(ByteBuffer.wrap(bytes, 0, count), at);
    }

    @Override
    public long write(ByteBuffer[] from, int first, int length) throws IOException {
        long all = 0;
        for (int i = first; i < first + length; i++) {
            all += write(from[i]);
        }
        return all;
    }

    @Override
    public void force(boolean metadata) throws IOException {
        watch.forces(path);
        channel.force(metadata);
    }

    @Override
    public int read(ByteBuffer to) throws IOException {
        return channel.read(to);
    }

    @Override
    public int read(ByteBuffer to, long at) throws IOException {
        return channel.read(to, at);
    }

    @Override
    public long read(ByteBuffer[] to, int first, int length) throws IOException {
        return channel.read(to, first, length);
    }

    @Override
    public long position() throws IOException {
        return channel.position();
    }

    @Override
    public FileChannel position(long at) throws IOException {
        channel.position(at);
        return this;
    }

    @Override
    public long size() throws IOException {
        return channel.size();
    }

    @Override
    public FileChannel truncate(long size) {
        throw new UnsupportedOperationException("nothing is cut off");
    }

    @Override
    public long transferTo(long at, long count, WritableByteChannel to) throws IOException {
        return channel.transferTo(at, count, to);
    }

    @Override
    public long transferFrom(ReadableByteChannel from, long at, long count) {
        throw new UnsupportedOperationException("writes are told one by one");
    }

    @Override
    public MappedByteBuffer map(MapMode mode, long at, long size) {
        throw new UnsupportedOperationException("writes are told one by one");
    }

    @Override
    public FileLock lock(long at, long size, boolean shared) throws IOException {
        return channel.lock(at, size, shared);
    }

    @Override
    public FileLock tryLock(long at, long size, boolean shared) throws IOException {
        return channel.tryLock(at, size, shared);
    }

    @Override
    protected void implCloseChannel() throws IOException {
        channel.close();
    }
}
