package dibble.studio;

import dibble.demo.LamplightersRound;
import dibble.disk.FileStamp;
import dibble.disk.SessionFile;
import dibble.edits.TakeEdits;
import dibble.files.SessionContent;
import dibble.journals.SessionJournal;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import dibble.time.Clock;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/** A process that works until it is killed, and says how far it is. */
final class Victim {
    /** Ticks of a loop: one bar, which at this tempo is 400 ms. */
    private static final RecordOptions LOOPING =
            RecordOptions.PLAIN.withRange(new RecordOptions.Stretch(0, 3840)).withLoops(true);

    private final Path user;
    private final Random random;
    private final Document document = new Document(LamplightersRound.session(), Performance.NEW);
    private final SessionJournal journal;

    private Victim(Path user, long seed) {
        this.user = user;
        random = new Random(seed);
        journal = new SessionJournal(user);
    }

    /** @param args what it does, the user's folder, and a seed */
    public static void main(String[] args) throws IOException {
        Victim victim = new Victim(Path.of(args[1]), Long.parseLong(args[2]));
        // A Dibble that has been open for a moment has written a session before.
        SessionContent.json(victim.document.session(), victim.document.performance());
        switch (args[0]) {
            case "record" -> victim.record(RecordOptions.PLAIN);
            case "loop" -> victim.record(LOOPING);
            case "save" -> victim.save();
            default -> victim.undo();
        }
    }

    /** Records what it plays itself. Says how long it records, and how many notes there are. */
    private void record(RecordOptions options) {
        OutputPort nowhere = new OutputPort() {
            @Override
            public String name() {
                return "nowhere";
            }

            @Override
            public void send(int message, long stamp) {}
        };
        StandIns standIns = new StandIns(Clock.SYSTEM, name -> nowhere);
        document.edit("tempo", session -> session.withTempo(dibble.time.TempoMap.of(600)));
        Studio studio = new Studio(Clock.SYSTEM, standIns, document, journal.takes());
        document.listen(() -> journal.changed(document.kept(), null, FileStamp.NONE));
        StandIn keyboard = standIns.standIn("stand-in:larkspur").orElseThrow();
        studio.setOptions(options);
        studio.record();
        journal.changed(document.kept(), null, FileStamp.NONE);
        while (studio.recording() == null) {
            Thread.onSpinWait();
        }
        long started = studio.recording().startedAt();
        int notes = 0;
        while (true) {
            int key = 40 + random.nextInt(40);
            if (random.nextBoolean()) {
                keyboard.press(0, key, 1 + random.nextInt(127));
                notes++;
            } else {
                keyboard.release(0, key);
            }
            studio.pulse();
            // Said after it was played: what is said must be in the take, but for the last half a second.
            System.out.println((Clock.SYSTEM.nanos() - started) + " " + notes);
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(4));
        }
    }

    /** Saves one session after another. Says which is on disk. */
    private void save() throws IOException {
        Session session = recorded(recorded(document.session(), 1, 20_000), 2, 20_000);
        for (int number = 0; true; number++) {
            SessionFile.write(user.resolve("round.dibble"), session.withName("n" + number), Performance.NEW);
            System.out.println(number + " 0");
        }
    }

    /** Does things and takes them back. Says how many things are in the journal. */
    private void undo() {
        for (int number = 1; true; number++) {
            step(document, random, number);
            journal.changed(document.kept(), null, FileStamp.NONE);
            if (random.nextInt(3) == 0) {
                journal.sync();
                System.out.println(number + " 0");
            }
        }
    }

    /** One thing that a player does: the same for the same random numbers. */
    static void step(Document document, Random random, int number) {
        switch (random.nextInt(5)) {
            case 0 -> document.undo();
            case 1 -> document.redo();
            case 2 -> document.edit("name", session -> session.withName("n" + number));
            default -> document.edit("record", session -> recorded(session, number, 30));
        }
    }

    private static Session recorded(Session session, long seed, int events) {
        Random random = new Random(seed);
        EventStore log = new EventStore();
        for (int i = 0; i < events; i++) {
            log.add(i * 50_000_000L, 0, ShortMessage.noteOn(0, 40 + random.nextInt(40), 1 + random.nextInt(127)));
        }
        Take take = new Take(
                TakeEdits.freshTakeId(session),
                "Take",
                List.of("larkspur"),
                log,
                List.of(new Take.Mark(0, 0, session.routing(Performance.NEW))),
                session.tempo(),
                events * 50_000_000L,
                0);
        return TakeEdits.keep(session, Performance.NEW, TakeEdits.closed(take));
    }
}
