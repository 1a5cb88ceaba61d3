package dibble.studio;

import dibble.demo.LamplightersRound;
import dibble.files.SessionFile;
import dibble.files.SessionJournal;
import dibble.ports.OutputPort;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import dibble.time.Clock;
import java.nio.file.Path;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/** A process that records what it plays itself, and says how far it is, until it is killed. */
final class RecordingVictim {
    private RecordingVictim() {}

    /** @param args the user's folder, and a seed */
    public static void main(String[] args) {
        OutputPort nowhere = new OutputPort() {
            @Override
            public String name() {
                return "nowhere";
            }

            @Override
            public void send(int message, long stamp) {}
        };
        Document document = new Document(LamplightersRound.session(), Performance.NEW);
        SessionJournal journal = new SessionJournal(Path.of(args[0]));
        StandIns standIns = new StandIns(Clock.SYSTEM, name -> nowhere);
        Studio studio = new Studio(Clock.SYSTEM, standIns, document, journal.takes());
        StandIn keyboard = standIns.standIn("stand-in:larkspur").orElseThrow();
        // A Dibble that has been open for a moment has written a session before.
        SessionFile.json(document.session(), document.performance());
        studio.record();
        journal.changed(document.session(), document.performance(), null);
        Random random = new Random(Long.parseLong(args[1]));
        while (studio.recording() == null) {
            Thread.onSpinWait();
        }
        long started = studio.recording().startedAt();
        while (true) {
            int key = 40 + random.nextInt(40);
            if (random.nextBoolean()) {
                keyboard.press(0, key, 1 + random.nextInt(127));
            } else {
                keyboard.release(0, key);
            }
            // Said after it was played: what is said must be in the take, but for the last half a second.
            System.out.println(Clock.SYSTEM.nanos() - started);
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(4));
        }
    }
}
