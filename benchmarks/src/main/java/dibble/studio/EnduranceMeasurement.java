package dibble.studio;

import dibble.disk.SessionFile;
import dibble.edits.TakeEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.journals.SessionJournal;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.routing.Zone;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import dibble.time.Clock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;

/**
 * Sixteen sources that play a thousand events a second each, recorded with everything that belongs to it, for the
 * minutes that are given; and how long a session with takes of a million events takes to be saved and opened.
 */
public final class EnduranceMeasurement {
    private static final int SOURCES = 16;
    private static final int A_SECOND = 1000;

    private EnduranceMeasurement() {}

    /** @param args minutes */
    public static void main(String[] args) throws Exception {
        int minutes = args.length > 0 ? Integer.parseInt(args[0]) : 10;
        Path folder = Files.createTempDirectory("dibble-endurance");
        fileTimes(folder);
        record(folder, minutes);
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path path : (Iterable<Path>) files.sorted(java.util.Comparator.reverseOrder())::iterator) {
                Files.delete(path);
            }
        }
    }

    private static Session session() {
        List<Source> sources = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        List<Part> parts = new ArrayList<>();
        for (int i = 0; i < SOURCES; i++) {
            parts.add(Part.of("p" + i, "Part " + (i + 1), i + 1, i, Range.ALL, 1 + i));
            sources.add(Source.keyboard("s" + i, "Source " + (i + 1), "stand-in:s" + i, Range.ALL));
            zones.add(Zone.of("z" + i, "", "s" + i, Range.ALL, new PartRef("i", "p" + i)));
        }
        return Session.empty("Endurance")
                .withSources(sources)
                .withInstruments(List.of(Instrument.of("i", "Instrument", false, "stand-in:i", parts)))
                .withZones(zones);
    }

    private static void fileTimes(Path folder) throws Exception {
        EventStore log = new EventStore();
        for (int i = 0; i < 500_000; i++) {
            log.add(i * 1_000_000L, i % SOURCES, ShortMessage.noteOn(0, 36 + i % 60, 80));
            log.add(i * 1_000_000L + 900_000L, i % SOURCES, ShortMessage.noteOff(0, 36 + i % 60, 64));
        }
        List<String> ids = session().sources().stream().map(Source::id).toList();
        Take take = new Take(
                "take-1",
                "Take 1",
                ids,
                log,
                List.of(new Take.Mark(0, 0, session().routing(Performance.NEW))),
                session().tempo(),
                500_000_000_000L,
                0);
        Session session = TakeEdits.keep(session(), Performance.NEW, take);
        Path file = folder.resolve("large.dibble");
        for (int i = 0; i < 5; i++) {
            long from = System.nanoTime();
            SessionFile.write(file, session, Performance.NEW);
            long saved = System.nanoTime();
            SessionFile.read(file);
            System.out.printf(
                    "a take of 1,000,000 events with its tracks: saved in %.2f s, opened in %.2f s, %.1f MB%n",
                    (saved - from) / 1e9, (System.nanoTime() - saved) / 1e9, Files.size(file) / 1e6);
        }
    }

    private static void record(Path folder, int minutes) throws Exception {
        OutputPort nowhere = new OutputPort() {
            @Override
            public String name() {
                return "nowhere";
            }

            @Override
            public void send(int message, long stamp) {}
        };
        Document document = new Document(session(), Performance.NEW);
        SessionJournal journal = new SessionJournal(folder);
        StandIns standIns = new StandIns(Clock.SYSTEM, name -> nowhere);
        Studio studio = new Studio(Clock.SYSTEM, standIns, document, journal.takes());
        studio.record();
        while (studio.recording() == null) {
            LockSupport.parkNanos(1000);
        }
        Thread[] players = new Thread[SOURCES];
        for (int i = 0; i < SOURCES; i++) {
            StandIn device = standIns.standIn("stand-in:s" + i).orElseThrow();
            players[i] = new Thread(() -> play(device, minutes));
            players[i].start();
        }
        for (Thread player : players) {
            player.join();
        }
        long wanted = (long) SOURCES * A_SECOND * 60 * minutes;
        long journalSize;
        try (Stream<Path> files = Files.walk(folder)) {
            journalSize = files.filter(file -> file.toString().endsWith(".jsonl"))
                    .mapToLong(file -> file.toFile().length())
                    .sum();
        }
        int recorded = studio.recording().log().size();
        studio.stop();
        while (document.session().takes().isEmpty()) {
            studio.pulse();
            LockSupport.parkNanos(1_000_000);
        }
        System.gc();
        long used = Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
        System.out.printf(
                "%d sources, %d events a second each, %d minutes: %,d played, %,d recorded, %,d lost; journal %.1f MB"
                        + " (%.1f bytes an event), %.0f MB in use, trouble: %s%n",
                SOURCES,
                A_SECOND,
                minutes,
                wanted,
                recorded,
                studio.lost(),
                journalSize / 1e6,
                (double) journalSize / recorded,
                used / 1e6,
                journal.trouble());
        studio.close();
        journal.close();
    }

    private static void play(StandIn device, int minutes) {
        long begun = System.nanoTime();
        long each = TimeUnit.SECONDS.toNanos(1) / A_SECOND;
        long count = (long) A_SECOND * 60 * minutes;
        for (long i = 0; i < count; i++) {
            long left = begun + i * each - System.nanoTime();
            if (left > 0) {
                LockSupport.parkNanos(left);
            }
            int key = (int) (36 + i / 2 % 48);
            device.play(i % 2 == 0 ? ShortMessage.noteOn(0, key, 80) : ShortMessage.noteOff(0, key, 64));
        }
    }
}
