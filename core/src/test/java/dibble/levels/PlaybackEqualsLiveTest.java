package dibble.levels;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.edits.TakeEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.midi.ShortMessage;
import dibble.recording.EventLog;
import dibble.recording.Onto;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Destination;
import dibble.routing.RandomRouting;
import dibble.routing.Router;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.Slots;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionBuilder;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** A take sounds the same live and when its tracks are played back, whatever kind of tracks it was printed onto. */
class PlaybackEqualsLiveTest {
    /** At this tempo a tick lasts a whole number of nanoseconds, so that no time is rounded. */
    private static final TempoMap TEMPO = TempoMap.of(125);

    private static final long TICK = 500_000;
    private static final long FIRST = 100;

    private record Sent(long tick, int message) {
        @Override
        public String toString() {
            return tick + " " + Integer.toHexString(message);
        }
    }

    private static Session session(Random random, Routing routing) {
        return new SessionBuilder("random")
                .tempo(TEMPO)
                .sources(routing.sources())
                .instruments(routing.instruments().stream()
                        .map(PlaybackEqualsLiveTest::onChannelsOfTheirOwn)
                        .toList())
                .zones(routing.zones())
                .tracks(tracks(random, routing))
                .build();
    }

    /** The channel numbers of two instruments on two ports are the same; on one port each part has its own. */
    private static Instrument onChannelsOfTheirOwn(Instrument instrument) {
        return instrument.withParts(
                instrument.parts().stream().map(part -> part.withChannel(null)).toList());
    }

    /** Tracks of one kind, which take every event once. */
    private static List<Track> tracks(Random random, Routing routing) {
        List<Track> tracks = new ArrayList<>();
        switch (random.nextInt(4)) {
            case 0 ->
                routing.sources()
                        .forEach(source -> tracks.add(
                                Track.of("of-" + source.id(), source.id(), new Track.OfSource(source.id()))));
            case 1 ->
                routing.sources().forEach(source -> {
                    for (int channel = 1; channel <= 16; channel++) {
                        String id = "of-" + source.id() + "-" + channel;
                        tracks.add(Track.of(id, id, new Track.OfChannel(source.id(), channel)));
                    }
                });
            case 2 ->
                routing.instruments()
                        .forEach(instrument -> instrument.parts().forEach(part -> {
                            String id = "of-" + instrument.id() + "-" + part.id();
                            tracks.add(Track.of(id, id, instrument.ref(part)));
                        }));
            default -> {
                // All of it goes onto the track for the rest.
            }
        }
        tracks.add(Track.of("rest", "rest", new Track.Rest()));
        return tracks;
    }

    private static EventLog played(Random random, RandomRouting events, List<String> sources) {
        EventLog log = new EventLog();
        long tick = FIRST;
        for (int i = 0; i < 80; i++) {
            tick += 1 + random.nextInt(20);
            int message = events.message();
            if (ShortMessage.kind(message) != ShortMessage.PROGRAM_CHANGE) {
                log.add(tick * TICK, random.nextInt(sources.size()), message);
            }
        }
        return log;
    }

    private static Map<String, List<Sent>> live(Take take) {
        Slots slots = new Slots();
        Map<String, List<Sent>> sent = new TreeMap<>();
        Router router = new Router((stamp, port, message, instrument) -> {
            String name = slots.portName(port) + " " + ShortMessage.channel(message);
            sent.computeIfAbsent(name, key -> new ArrayList<>()).add(new Sent(stamp / TICK, message));
            return true;
        });
        router.install(RoutingCompiler.compile(take.marks().get(0).routing(), slots), 0);
        for (int i = 0; i < take.log().size(); i++) {
            router.event(
                    slots.source(take.sources().get(take.log().source(i))),
                    take.log().message(i),
                    take.log().stamp(i));
        }
        router.close(take.length());
        return sent;
    }

    /** Returns the messages that the tracks send from the beginning of the take on; earlier ones only set controllers. */
    private static Map<String, List<Sent>> playedBack(Session session) {
        Rendition rendition = Rendition.ofTracks(session, Performance.NEW);
        Map<String, List<Sent>> sent = new TreeMap<>();
        for (int i = 0; i < rendition.size(); i++) {
            if (rendition.stamp(i) >= FIRST * TICK) {
                String name = rendition.port(i) + " " + ShortMessage.channel(rendition.message(i));
                sent.computeIfAbsent(name, key -> new ArrayList<>())
                        .add(new Sent(rendition.stamp(i) / TICK, rendition.message(i)));
            }
        }
        return sent;
    }

    @Property(tries = 300)
    void tracksOfEveryKindSendWhatWasHeard(@ForAll long seed) {
        Recorded recorded = Recorded.random(seed);
        assertSameSent(playedBack(recorded.session), live(recorded.take), recorded.end());
    }

    /** Recorded events follow their part to its new channel. */
    @Property(tries = 300)
    void recordedMaterialFollowsItsPart(@ForAll long seed) {
        Recorded recorded = Recorded.random(seed);
        Routing before = recorded.session.routing(Performance.NEW);
        Session moved = recorded.session.withInstruments(recorded.session.instruments().stream()
                .map(instrument ->
                        isAloneOnItsPort(instrument, before) ? withRotatedChannels(instrument, before) : instrument)
                .toList());
        Routing after = moved.routing(Performance.NEW);
        Map<String, Integer> channels = new HashMap<>();
        for (Instrument instrument : moved.instruments()) {
            for (Part part : instrument.parts()) {
                Destination was = before.destination(instrument.ref(part)).orElseThrow();
                Destination is = after.destination(instrument.ref(part)).orElseThrow();
                channels.put(was.port() + " " + (was.channel() - 1), is.channel() - 1);
            }
        }
        Map<String, List<Sent>> expected = new TreeMap<>();
        live(recorded.take).forEach((name, sent) -> {
            int channel =
                    channels.getOrDefault(name, ShortMessage.channel(sent.get(0).message()));
            expected.put(
                    name.substring(0, name.indexOf(' ')) + " " + channel,
                    sent.stream()
                            .map(it -> new Sent(it.tick(), ShortMessage.onChannel(it.message(), channel)))
                            .toList());
        });
        assertSameSent(playedBack(moved), expected, recorded.end());
    }

    private static boolean isAloneOnItsPort(Instrument instrument, Routing routing) {
        return routing.instruments().stream()
                .noneMatch(other ->
                        other.port().equals(instrument.port()) && !other.id().equals(instrument.id()));
    }

    private static Instrument withRotatedChannels(Instrument instrument, Routing routing) {
        List<Part> parts = instrument.parts();
        List<Part> rotated = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            Part next = parts.get((i + 1) % parts.size());
            rotated.add(parts.get(i)
                    .withChannel(routing.destination(instrument.ref(next))
                            .orElseThrow()
                            .channel()));
        }
        return instrument.withParts(rotated);
    }

    private static void assertSameSent(Map<String, List<Sent>> actual, Map<String, List<Sent>> expected, long end) {
        assertThat(actual.keySet()).isEqualTo(expected.keySet());
        // At the end, the order in which voices come to rest is free.
        expected.forEach((channel, sent) -> {
            assertSame(channel, during(actual.get(channel), end), during(sent, end));
            assertThat(sounding(actual.get(channel)))
                    .as(channel)
                    .isEqualTo(sounding(sent))
                    .isZero();
        });
    }

    /** A session with the tracks of one random take. */
    private record Recorded(Session session, Take take) {
        static Recorded random(long seed) {
            Random random = new Random(seed);
            RandomRouting made = new RandomRouting(random);
            Routing routing = made.routing(8);
            while (routing.sources().isEmpty()) {
                routing = made.routing(8);
            }
            Session session = PlaybackEqualsLiveTest.session(random, routing);
            List<String> sources =
                    session.sources().stream().map(source -> source.id()).toList();
            EventLog log = played(random, made, sources);
            Take take = new Take(
                    "take-1",
                    "Take 1",
                    sources,
                    log,
                    List.of(new Take.Mark(0, 0, session.routing(Performance.NEW))),
                    TEMPO,
                    log.size() == 0 ? FIRST * TICK : log.stamp(log.size() - 1) + TICK,
                    0);
            Set<String> armed = session.tracks().stream().map(Track::id).collect(Collectors.toSet());
            Printer printer = Printer.print(take, session.tracks(), armed);
            return new Recorded(TakeEdits.keep(session, take, printer, Onto.INSTEAD), take);
        }

        long end() {
            return take.length() / TICK;
        }
    }

    /** Compares from the first difference on, so that a failure shows little. */
    private static void assertSame(String channel, List<Sent> actual, List<Sent> expected) {
        int at = 0;
        while (at < Math.min(actual.size(), expected.size()) && actual.get(at).equals(expected.get(at))) {
            at++;
        }
        assertThat(actual.subList(at, Math.min(at + 4, actual.size())))
                .as(channel)
                .isEqualTo(expected.subList(at, Math.min(at + 4, expected.size())));
    }

    /**
     * Returns the messages before the end. Where one event makes several tracks send to one channel, only messages of the
     * same kind and key keep their order within the tick.
     */
    private static List<Sent> during(List<Sent> sent, long end) {
        return sent.stream()
                .filter(it -> it.tick() < end)
                .sorted(Comparator.comparingLong(Sent::tick).thenComparingInt(PlaybackEqualsLiveTest::key))
                .toList();
    }

    private static int key(Sent sent) {
        boolean hasKey =
                ShortMessage.isNote(sent.message()) || ShortMessage.kind(sent.message()) == ShortMessage.KEY_PRESSURE;
        return hasKey ? ShortMessage.data1(sent.message()) : -1;
    }

    private static int sounding(List<Sent> sent) {
        BitSet keys = new BitSet();
        for (Sent it : sent) {
            if (ShortMessage.isNote(it.message())) {
                keys.set(ShortMessage.data1(it.message()), ShortMessage.startsNote(it.message()));
            }
        }
        return keys.cardinality();
    }
}
