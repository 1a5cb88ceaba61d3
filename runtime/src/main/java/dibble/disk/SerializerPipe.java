package dibble.disk;

import static dibble.text.CoreText.say;

import dibble.system.Workers;
import java.io.IOException;
import java.io.OutputStream;
import java.util.Arrays;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.TimeUnit;

/** A pipe between the thread that serializes a session and the thread that compresses it. */
final class SerializerPipe extends OutputStream {
    private static final int WAITING = 16;
    private static final long WAIT_MILLIS = 50;
    private static final byte[] END = {};

    private final BlockingQueue<byte[]> blocks = new ArrayBlockingQueue<>(WAITING);
    private final CompletableFuture<Void> packing;
    private volatile boolean stopped;

    /** @param to the target, which no other caller writes to until this is closed */
    SerializerPipe(OutputStream to) {
        packing = CompletableFuture.runAsync(() -> pack(to), Workers.shared().files());
    }

    private void pack(OutputStream to) {
        try {
            while (!stopped) {
                byte[] block = blocks.poll(WAIT_MILLIS, TimeUnit.MILLISECONDS);
                if (block == END) {
                    return;
                }
                if (block != null) {
                    to.write(block);
                }
            }
        } catch (IOException e) {
            throw new CompletionException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CompletionException(new IOException(say("common.interrupted")));
        }
    }

    private void put(byte[] block) throws IOException {
        try {
            while (!blocks.offer(block, WAIT_MILLIS, TimeUnit.MILLISECONDS)) {
                if (packing.isDone()) {
                    finish();
                    throw new IOException(say("handover.the-packing-of-the-file"));
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(say("common.interrupted"));
        }
    }

    private void finish() throws IOException {
        try {
            packing.join();
        } catch (CompletionException e) {
            if (e.getCause() instanceof IOException failed) {
                throw failed;
            }
            if (e.getCause() instanceof Error error) {
                throw error;
            }
            throw e;
        }
    }

    @Override
    public void write(int value) throws IOException {
        put(new byte[] {(byte) value});
    }

    @Override
    public void write(byte[] bytes, int from, int length) throws IOException {
        if (length > 0) {
            put(Arrays.copyOfRange(bytes, from, from + length));
        }
    }

    /** Returns when all is packed, or nothing is packed any more. */
    @Override
    public void close() throws IOException {
        try {
            put(END);
        } catch (IOException e) {
            stopped = true;
            throw e;
        } finally {
            finish();
        }
    }
}
