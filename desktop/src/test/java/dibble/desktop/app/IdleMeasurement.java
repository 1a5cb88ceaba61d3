package dibble.desktop.app;

import com.sun.management.OperatingSystemMXBean;
import dibble.demo.LamplightersRound;
import dibble.session.Session;
import java.lang.management.ManagementFactory;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** The processor's work while nothing plays, in each view. No test: {@code ./dibble bench idle} runs it. */
class IdleMeasurement extends WindowTest {
    private static final int SETTLES_SECONDS = 5;
    private static final int MEASURED_SECONDS = 10;

    @Override
    Session session() {
        return LamplightersRound.session();
    }

    @Test
    void measure() throws Exception {
        OperatingSystemMXBean system = (OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean();
        // What has been compiled by then is not what is measured.
        for (Page page : Page.values()) {
            onFx(() -> window.show(page));
            TimeUnit.SECONDS.sleep(1);
        }
        for (Page page : Page.values()) {
            onFx(() -> window.show(page));
            TimeUnit.SECONDS.sleep(SETTLES_SECONDS);
            long before = system.getProcessCpuTime();
            TimeUnit.SECONDS.sleep(MEASURED_SECONDS);
            System.out.printf(
                    "%s: %.1f %% of a core%n",
                    page.title(), (system.getProcessCpuTime() - before) / 1e7 / MEASURED_SECONDS);
        }
    }
}
