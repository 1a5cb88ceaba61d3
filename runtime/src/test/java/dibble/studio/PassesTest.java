package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.OpenNotes;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import dibble.transport.PlaybackTimebase;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** Whatever is played round a loop is in one of its passes, whole, and in no other. */
class PassesTest {
    private static final long MS = 1_000_000;
    private static final long START = 10_000 * MS;
    private static final TempoMap TEMPO = TempoMap.of(120);
    private static final List<Track> TRACKS = List.of(Track.of("rest", "Everything else", new Track.Rest()));

    private final Routing routing = Session.empty("Passes")
            .withSources(List.of(
                    Source.keyboard("larkspur", "Larkspur", "keys", Range.ALL),
                    Source.keyboard("tansy", "Tansy", "more", Range.ALL)))
            .routing(Performance.NEW);

    private record Event(long at, int source, int message) {}

    private Recording recording(RecordPlan plan, HeldState standing) {
        return new Recording(plan, List.of("larkspur", "tansy"), new Printer(TRACKS, Set.of()), routing, standing);
    }

    /** Keys that are pressed and released by two players, each note known by its velocity and key. */
    private static List<Event> played(Random random) {
        List<Event> events = new ArrayList<>();
        boolean[][] down = new boolean[2][4];
        long at = START - 500 * MS;
        for (int i = 0; i < 120; i++) {
            at += random.nextInt(60) * MS + 1;
            int source = random.nextInt(2);
            int key = random.nextInt(4);
            if (random.nextInt(8) == 0) {
                events.add(new Event(at, source, ShortMessage.controller(0, 64, random.nextInt(128))));
            } else {
                down[source][key] = !down[source][key];
                events.add(new Event(
                        at,
                        source,
                        down[source][key]
                                ? ShortMessage.noteOn(0, 60 + key, 1 + i % 127)
                                : ShortMessage.noteOff(0, 60 + key, 64)));
            }
        }
        return events;
    }

    /** As the recorder does: one pass ends where the next begins. */
    private List<Take> recorded(List<Event> events) {
        List<Take> takes = new ArrayList<>();
        HeldState standing = new HeldState();
        Recording now = recording(
                RecordPlan.along(
                        new PlaybackTimebase(TEMPO, 0, START, new PlaybackTimebase.Loop(0, 1920)),
                        0,
                        0,
                        1920,
                        true,
                        250 * MS),
                new HeldState());
        long last = 0;
        for (Event event : events) {
            now = atTheTime(event.at, now, standing, takes);
            now.event(event.at, event.source, event.message, false);
            standing.add(event.at, event.source, event.message);
            last = event.at;
        }
        long stopped = Math.max(last, now.startedAt()) + MS;
        takes.add(atTheTime(stopped, now, standing, takes).finish(stopped));
        return takes;
    }

    private Recording atTheTime(long at, Recording before, HeldState standing, List<Take> takes) {
        Recording now = before;
        while (at >= now.plan().endsAt()) {
            List<Recording.Note> forNext = now.forNext();
            takes.add(now.finish(now.plan().endsAt()));
            Recording next = recording(now.plan().next(), standing.withoutKeys());
            forNext.forEach(note -> next.event(note.at(), note.source(), note.message(), false));
            now = next;
        }
        return now;
    }

    @Property(tries = 300)
    void everyNoteIsInOneTakeAndEveryTakeIsWhole(@ForAll long seed) {
        List<Event> events = played(new Random(seed));
        List<Take> takes = recorded(events);
        List<String> recorded = new ArrayList<>();
        for (Take take : takes) {
            OpenNotes open = new OpenNotes();
            EventStore log = take.log();
            long before = 0;
            for (int i = 0; i < log.size(); i++) {
                int message = log.message(i);
                assertThat(log.stamp(i)).isBetween(before, take.length());
                before = log.stamp(i);
                if (ShortMessage.startsNote(message)) {
                    assertThat(open.begin(log.source(i), message, i)).isEqualTo(OpenNotes.NONE);
                    recorded.add(log.source(i) + " " + message);
                } else if (ShortMessage.endsNote(message)) {
                    assertThat(open.end(log.source(i), message)).isNotEqualTo(OpenNotes.NONE);
                }
            }
            assertThat(open.count()).isZero();
        }
        List<String> wanted = events.stream()
                .filter(event -> ShortMessage.startsNote(event.message))
                .filter(event -> event.at >= START - 250 * MS || isHeldAtTheStart(events, event))
                .map(event -> event.source + " " + event.message)
                .toList();
        assertThat(recorded).containsExactlyInAnyOrderElementsOf(wanted);
    }

    private static boolean isHeldAtTheStart(List<Event> events, Event on) {
        return events.stream()
                .filter(event -> event.at > on.at
                        && event.source == on.source
                        && ShortMessage.isNote(event.message)
                        && ShortMessage.data1(event.message) == ShortMessage.data1(on.message))
                .findFirst()
                .map(next -> next.at >= START)
                .orElse(true);
    }

    @Property(tries = 200)
    void aPedalThatIsDownAtTheEdgeIsDownInBothPasses(@ForAll long seed) {
        List<Event> events = played(new Random(seed));
        List<Take> takes = recorded(events);
        for (int pass = 1; pass < takes.size(); pass++) {
            long begins = START + pass * TEMPO.nanos(1920);
            for (int source = 0; source < 2; source++) {
                int whose = source;
                boolean down = events.stream()
                        .filter(event -> event.source == whose
                                && event.at < begins
                                && ShortMessage.kind(event.message) == ShortMessage.CONTROLLER)
                        .reduce((first, second) -> second)
                        .map(event -> ShortMessage.data2(event.message) >= 64)
                        .orElse(false);
                EventStore log = takes.get(pass).log();
                boolean said = log.size() > 0 && isPedalDownAtTheStart(log, source);
                assertThat(said).isEqualTo(down);
            }
        }
    }

    private static boolean isPedalDownAtTheStart(EventStore log, int source) {
        for (int i = 0; i < log.size() && log.stamp(i) == 0; i++) {
            if (log.source(i) == source
                    && ShortMessage.kind(log.message(i)) == ShortMessage.CONTROLLER
                    && ShortMessage.data2(log.message(i)) >= 64) {
                return true;
            }
        }
        return false;
    }
}
