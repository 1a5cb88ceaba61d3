package dibble.levels;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.edits.TakeEdits;
import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.EventKind;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.FileRouter;
import dibble.recording.PrintMode;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.recording.TrackExport;
import dibble.routing.Destination;
import dibble.routing.RandomRouting;
import dibble.routing.Router;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.SlotAllocator;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** A take sounds the same live and when its tracks are played back, whatever kind of tracks it was printed onto. */
class PlaybackEqualsLiveTest {
    /** At this tempo a tick lasts a whole number of nanoseconds, so that no time is rounded. */
    private static final TempoMap TEMPO = TempoMap.of(125);

    private static final long TICK = 500_000;
    private static final long FIRST = 100;

    /** The first lane that is not a key. */
    private static final int OTHERS = 128;

    private static final int PARAMETERS = 256;

    private record Sent(long tick, int message) {
        @Override
        public String toString() {
            return tick + " " + Integer.toHexString(message);
        }
    }

    private static Session session(Random random, Routing routing) {
        return Session.empty("random")
                .with()
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

    private static EventStore played(Random random, RandomRouting events, List<String> sources) {
        EventStore log = new EventStore();
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
        SlotAllocator slots = new SlotAllocator();
        Map<String, List<Sent>> sent = new TreeMap<>();
        Router router = new Router((stamp, port, message, instrument) -> {
            String name = slots.portName(port) + " " + ShortMessage.channel(message);
            sent.computeIfAbsent(name, key -> new ArrayList<>()).add(new Sent(stamp / TICK, message));
            return true;
        });
        router.giveSounds();
        int mark = 0;
        for (int i = 0; i < take.log().size(); i++) {
            while (mark < take.marks().size() && take.marks().get(mark).position() <= i) {
                Take.Mark next = take.marks().get(mark++);
                router.install(RoutingCompiler.compile(next.routing(), slots), next.stamp());
            }
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
        OfflinePlayback rendition = OfflinePlayback.ofTracks(session, Performance.NEW);
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

    /** Exports the tracks, reads the file, and routes each of its tracks to the port and channels that it names. */
    private static Map<String, List<Sent>> exportedAndRouted(Session session) throws Exception {
        Routing own = session.routing(Performance.NEW);
        byte[] written = MidiFileWriter.write(
                TrackExport.type1(session.name(), session.tempo(), List.of(), session.tracks(), own));
        MidiFile file = MidiFileReader.read(written);
        String[] sources = new String[file.tracks().size()];
        List<Source> players = new ArrayList<>();
        List<Instrument> ports = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        for (int track = 1; track < sources.length; track++) {
            String port = port(file.tracks().get(track));
            String id = "track-" + track;
            sources[track] = id;
            players.add(Source.keyboard(id, id, "in-" + id, Range.ALL));
            if (ports.stream().noneMatch(it -> it.port().equals(port))) {
                ports.add(Instrument.of("at-" + port, port, true, port, List.of()));
            }
            zones.add(Zone.of(id, id, id, Range.ALL, new PartRef("at-" + port, "any"))
                    .with()
                    .to(new ZoneTarget.ToSameChannel("at-" + port))
                    .pass(EnumSet.allOf(EventKind.class))
                    .blockControllers(Set.of())
                    .build());
        }
        Routing routing =
                new Routing(players, ports, ChannelPlan.of(ports, Map.of()), zones, List.of(), List.of(), null, null);
        SlotAllocator slots = new SlotAllocator();
        Map<String, List<Sent>> sent = new TreeMap<>();
        FileRouter.route(file, sources, routing, false, slots, new FileRouter.Output() {
            @Override
            public boolean send(long stamp, int port, int message, int instrument) {
                if (stamp >= FIRST) {
                    String name = slots.portName(port) + " " + ShortMessage.channel(message);
                    sent.computeIfAbsent(name, key -> new ArrayList<>()).add(new Sent(stamp, message));
                }
                return true;
            }

            @Override
            public void exclusive(String instrument, MidiTrack track, int at) {}
        });
        return sent;
    }

    private static String port(MidiTrack track) {
        for (int i = 0; i < track.size(); i++) {
            if (track.isMeta(i, MidiTrack.META_DEVICE)) {
                return track.text(i);
            }
        }
        throw new AssertionError("a track without a device name");
    }

    @Property(tries = 300)
    void anExportedFileIsRoutedToWhatWasHeard(@ForAll long seed) throws Exception {
        Recorded recorded = Recorded.random(seed);
        recorded.assertSame(exportedAndRouted(recorded.session), live(recorded.take));
    }

    @Property(tries = 300)
    void tracksOfEveryKindSendWhatWasHeard(@ForAll long seed) {
        Recorded recorded = Recorded.random(seed);
        recorded.assertSame(playedBack(recorded.session), live(recorded.take));
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
        recorded.assertSame(playedBack(moved), expected);
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
            EventStore log = played(random, made, sources);
            Take take = new Take(
                    "take-1",
                    "Take 1",
                    sources,
                    log,
                    marks(random, made, session, log),
                    TEMPO,
                    log.size() == 0 ? FIRST * TICK : log.stamp(log.size() - 1) + TICK,
                    0);
            Set<String> armed = session.tracks().stream().map(Track::id).collect(Collectors.toSet());
            Printer printer = Printer.print(take, session.tracks(), armed);
            return new Recorded(TakeEdits.keep(session, take, printer, PrintMode.REPLACE_ALL), take);
        }

        /** The zones, control maps and scene change while it is played. */
        private static List<Take.Mark> marks(Random random, RandomRouting made, Session session, EventStore log) {
            Routing first = session.routing(Performance.NEW);
            List<Take.Mark> marks = new ArrayList<>(List.of(new Take.Mark(0, 0, first)));
            for (int position = 1 + random.nextInt(40); position < log.size(); position += 1 + random.nextInt(60)) {
                Routing other = made.routing(8);
                Routing next = new Routing(
                        first.sources(),
                        first.instruments(),
                        first.channels(),
                        other.always(),
                        other.controls(),
                        other.scenes(),
                        null,
                        other.activeScene());
                marks.add(new Take.Mark(position, log.stamp(position), next));
            }
            return marks;
        }

        void assertSame(Map<String, List<Sent>> actual, Map<String, List<Sent>> expected) {
            Set<String> channels = new TreeSet<>(actual.keySet());
            channels.addAll(expected.keySet());
            for (String channel : channels) {
                List<Sent> isSent = actual.getOrDefault(channel, List.of());
                List<Sent> wasSent = expected.getOrDefault(channel, List.of());
                PlaybackEqualsLiveTest.assertSame(channel, during(isSent), during(wasSent));
                assertThat(sounding(isSent))
                        .as(channel)
                        .isEqualTo(sounding(wasSent))
                        .isZero();
            }
        }

        /**
         * Returns the audible messages before the end of playback, where voices are reset in any order. Parameters are left
         * out if control maps select them besides the sources, since tracks cannot tell which selection data is for.
         */
        private List<Heard> during(List<Sent> sent) {
            boolean hasMaps = take.marks().size() > 1;
            return PlaybackEqualsLiveTest.during(sent, end()).stream()
                    .filter(it -> !hasMaps || it.lane() < PARAMETERS)
                    .toList();
        }

        /** Returns where playback ends, and comes to rest. */
        long end() {
            return session.tracks().stream()
                    .mapToLong(track -> track.sounding().endTick())
                    .max()
                    .orElse(0);
        }
    }

    /** Compares from the first difference on, so that a failure shows little. */
    private static void assertSame(String channel, List<Heard> actual, List<Heard> expected) {
        int at = 0;
        while (at < Math.min(actual.size(), expected.size()) && actual.get(at).equals(expected.get(at))) {
            at++;
        }
        assertThat(actual.subList(at, Math.min(at + 4, actual.size())))
                .as(channel)
                .isEqualTo(expected.subList(at, Math.min(at + 4, expected.size())));
    }

    /** A message and its lane: a key, the program, a parameter, a controller or a wheel. */
    private record Heard(long tick, int lane, int message) {
        @Override
        public String toString() {
            return tick + " " + lane + " " + Integer.toHexString(message);
        }
    }

    /**
     * Returns the audible messages before the end. Messages of several tracks have no order within a tick, and a wheel that
     * two of them had moved is reset twice. For all lanes but keys, the distinct values of a tick are compared.
     */
    private static List<Heard> during(List<Sent> sent, long end) {
        List<Heard> inOrder = new ArrayList<>();
        Set<Heard> others = new HashSet<>();
        for (Heard it : heard(sent)) {
            if (it.tick() < end && (it.lane() < OTHERS || others.add(it))) {
                inOrder.add(it);
            }
        }
        inOrder.sort(Comparator.comparingLong(Heard::tick)
                .thenComparingInt(Heard::lane)
                .thenComparingInt(it -> it.lane() < OTHERS ? 0 : it.message()));
        return inOrder;
    }

    /** Drops pressure of keys that do not sound, which a control map can send and no track takes, and selections alone. */
    private static List<Heard> heard(List<Sent> sent) {
        BitSet keys = new BitSet();
        int[] selected = new int[128];
        boolean registered = false;
        List<Heard> heard = new ArrayList<>();
        for (Sent it : sent) {
            int message = it.message();
            int number = ShortMessage.data1(message);
            switch (ShortMessage.kind(message)) {
                case ShortMessage.NOTE_ON, ShortMessage.NOTE_OFF -> {
                    keys.set(number, ShortMessage.startsNote(message));
                    heard.add(new Heard(it.tick(), number, message));
                }
                case ShortMessage.KEY_PRESSURE -> {
                    if (keys.get(number)) {
                        heard.add(new Heard(it.tick(), number, message));
                    }
                }
                case ShortMessage.CONTROLLER -> {
                    if (number >= 98 && number <= 101) {
                        selected[number] = ShortMessage.data2(message);
                        registered = number >= 100;
                    } else if (number == 6 || number == 38 || number == 96 || number == 97) {
                        int first = registered ? 100 : 98;
                        int parameter = first << 14 | selected[first + 1] << 7 | selected[first];
                        heard.add(new Heard(it.tick(), PARAMETERS + parameter, message));
                    } else {
                        heard.add(new Heard(it.tick(), OTHERS + number, message));
                    }
                }
                default -> heard.add(new Heard(it.tick(), OTHERS, message));
            }
        }
        return heard;
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
