package dibble.testing.disk;

import java.io.IOException;
import java.util.concurrent.CountDownLatch;

/** A disk that stops answering when something is changed, until it is released. */
public final class HangingDisk extends ChangeWatch {
    private int changesLeft = Integer.MAX_VALUE;
    private CountDownLatch hung = new CountDownLatch(1);
    private CountDownLatch released = new CountDownLatch(0);

    /** Has it hang at a change, after so many others. */
    public synchronized void hangAfter(int changes) {
        changesLeft = changes;
        hung = new CountDownLatch(1);
        released = new CountDownLatch(1);
    }

    /** Has it answer again. */
    public synchronized void release() {
        changesLeft = Integer.MAX_VALUE;
        released.countDown();
    }

    /** Returns true if somebody waits for it. */
    public synchronized boolean hangs() {
        return hung.getCount() == 0 && released.getCount() > 0;
    }

    @Override
    void change() throws IOException {
        CountDownLatch until;
        synchronized (this) {
            if (changesLeft-- > 0) {
                return;
            }
            hung.countDown();
            until = released;
        }
        try {
            until.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }
}
