package dibble.testing;

import java.time.Duration;
import org.awaitility.Awaitility;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.LauncherSessionListener;

/**
 * Sets the defaults of every awaited condition. The timeout only ends a test that would never end: it is long enough for
 * a machine that is many times slower than a quiet one.
 */
public final class PatientAwaiting implements LauncherSessionListener {
    /** The longest wait for any condition. */
    public static final Duration TIMEOUT = Duration.ofSeconds(Integer.getInteger("dibble.patience", 180));

    private static final Duration POLL_INTERVAL = Duration.ofMillis(5);

    @Override
    public void launcherSessionOpened(LauncherSession session) {
        Awaitility.setDefaultTimeout(TIMEOUT);
        Awaitility.setDefaultPollDelay(Duration.ZERO);
        Awaitility.setDefaultPollInterval(POLL_INTERVAL);
    }
}
