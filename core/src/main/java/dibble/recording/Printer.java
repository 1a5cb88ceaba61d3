package dibble.recording;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.EventKind;
import dibble.midi.MidiTrack;
import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import dibble.routing.Destination;
import dibble.routing.Router;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.RoutingQueries;
import dibble.routing.SlotAllocator;
import dibble.routing.Zone;
import dibble.work.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Prints played events onto tracks, with the router of live playing. It can follow a recording event by event. A sent
 * event goes onto every armed track that takes it, or else onto the track for everything else; an off goes to the
 * tracks of its on, whatever changed in between. One thread prints; any thread may read the logs.
 */
public final class Printer {
    private static final int NOWHERE = -1;

    /** Events from one word about the progress to the next, less one. */
    private static final int EVERY = 0xFFF;

    private static final int[] NONE = {};

    private final List<Track> tracks;
    private final EventStore[] logs;
    private final boolean[] takes;
    private final Map<PartRef, Integer> trackOfPart = new HashMap<>();
    private final Map<Track.OfKey, Integer> trackOfKey = new HashMap<>();

    /** The tracks of sources, channels and zones, and for each what pedals and wheels have left away from rest there. */
    private final List<Integer> others = new ArrayList<>();

    private final BitSet[] owed;
    private int rest = NOWHERE;
    private final SlotAllocator slots = new SlotAllocator();
    private final Router router = new Router(this::print);
    private Routing routing;
    private int[] trackOfDestination = {};

    /** By destination and note: the tracks that have its on, and the destination that it names there. */
    private int[][] tracksOfSounding = {};

    private int[] namesOfSounding = {};

    /** The destinations that printed events name, by the numbers that the logs have. */
    private final DestinationNumbers names = new DestinationNumbers();

    /** By destination: the number of its part's name, or {@link #NOWHERE} where no part, or more than one, is there. */
    private int[] nameOfDestination = {};

    /** By pedal or wheel: the target of the message that moved it last, which also gets the message that resets it. */
    private final Map<Integer, Printed> movedWheels = new HashMap<>();

    /**
     * The target of a printed message.
     *
     * @param own the track of its part, or {@link #NOWHERE}
     * @param name the number of the destination that it names
     */
    private record Printed(int own, int name) {}

    /** Tracks of single notes, by destination and note; few. */
    private final Map<Integer, Integer> trackOfNote = new HashMap<>();

    /** For each track the row that has it alone, so that the usual event makes none. */
    private final int[][] alone;

    /** The source of the event that is being routed, and so of everything sent now; null between events. */
    private String cause;

    private int causeMessage;

    /** The zones that hold in a scene; looked up again after an event called another scene. */
    private int zonesOfScene = NOWHERE;

    private List<Zone> zones = List.of();
    private RoutingQueries reach;

    /**
     * @param tracks the tracks to print; their clips are not looked at
     * @param armed the ids of those that take something
     */
    public Printer(List<Track> tracks, Set<String> armed) {
        this.tracks = List.copyOf(tracks);
        router.giveSounds();
        logs = new EventStore[tracks.size()];
        takes = new boolean[tracks.size()];
        owed = new BitSet[tracks.size()];
        alone = new int[tracks.size()][];
        for (int i = 0; i < logs.length; i++) {
            logs[i] = new EventStore();
            alone[i] = new int[] {i};
            owed[i] = new BitSet();
            Track track = tracks.get(i);
            if (track.takesRest()) {
                takes[i] = rest == NOWHERE;
                rest = takes[i] ? i : rest;
            } else if (armed.contains(track.id())) {
                arm(i, track);
            }
        }
    }

    private void arm(int number, Track track) {
        if (track.input() instanceof Track.OfKey key) {
            takes[number] = trackOfKey.putIfAbsent(key, number) == null;
        } else if (track.input() instanceof Track.OfPart of) {
            takes[number] = trackOfPart.putIfAbsent(of.part(), number) == null;
        } else if (track.takesSeveral()) {
            takes[number] = true;
            others.add(number);
        }
    }

    /** Prints a whole take with the routings of its time: as it was heard. */
    public static Printer print(Take take, List<Track> tracks, Set<String> armed) {
        return print(take, tracks, armed, Progress.NONE);
    }

    /** The same, for who waits for it. */
    public static Printer print(Take take, List<Track> tracks, Set<String> armed, Progress progress) {
        Printer printer = new Printer(tracks, armed);
        int mark = 0;
        for (int i = 0; i < take.log().size(); i++) {
            if ((i & EVERY) == 0) {
                progress.at((double) i / take.log().size());
            }
            while (mark < take.marks().size() && take.marks().get(mark).position() <= i) {
                printer.install(
                        take.marks().get(mark).routing(), take.marks().get(mark).stamp());
                mark++;
            }
            String source = take.sources().get(take.log().source(i));
            byte[] exclusive = take.log().exclusive(i);
            if (exclusive != null) {
                printer.exclusive(source, exclusive, take.log().stamp(i));
            } else {
                printer.event(
                        source,
                        take.log().message(i),
                        take.log().stamp(i),
                        take.log().isEcho(i));
            }
        }
        printer.finish(take.length());
        return printer;
    }

    /** Puts a routing in force. */
    public void install(Routing next, long stamp) {
        router.install(RoutingCompiler.compile(next, slots), stamp);
        routing = next;
        reach = null;
        zonesOfScene = NOWHERE;
        int destinations = slots.portCount() * 16;
        trackOfDestination = new int[destinations];
        Arrays.fill(trackOfDestination, NOWHERE);
        trackOfPart.forEach(
                (part, track) -> next.destination(part).ifPresent(to -> trackOfDestination[number(to)] = track));
        nameParts(next, destinations);
        trackOfNote.clear();
        trackOfKey.forEach((of, track) ->
                next.destination(of.part()).ifPresent(to -> trackOfNote.put(number(to) * 128 + of.key(), track)));
        int old = tracksOfSounding.length;
        tracksOfSounding = Arrays.copyOf(tracksOfSounding, destinations * 128);
        Arrays.fill(tracksOfSounding, old, tracksOfSounding.length, NONE);
        namesOfSounding = Arrays.copyOf(namesOfSounding, destinations * 128);
    }

    private void nameParts(Routing next, int destinations) {
        nameOfDestination = new int[destinations];
        Arrays.fill(nameOfDestination, NOWHERE);
        BitSet shared = new BitSet();
        for (Instrument instrument : next.instruments()) {
            for (Part part : instrument.parts()) {
                PartRef ref = instrument.ref(part);
                next.destination(ref).map(this::number).ifPresent(number -> {
                    shared.set(number, shared.get(number) || nameOfDestination[number] != NOWHERE);
                    nameOfDestination[number] = nameNumber(EventDestination.of(ref));
                });
            }
        }
        shared.stream().forEach(number -> nameOfDestination[number] = NOWHERE);
    }

    private int nameNumber(EventDestination destination) {
        return names.number(destination.text());
    }

    private int number(Destination to) {
        return slots.port(to.port()) * 16 + to.channel() - 1;
    }

    /**
     * Routes one event of a source onto the tracks.
     *
     * @param echo whether it came back from a looping device: then it counts only if it ends something
     */
    public void event(String source, int message, long stamp, boolean echo) {
        if (!echo || Router.onlyEnds(message)) {
            cause = source;
            causeMessage = message;
            router.event(slots.source(source), message, stamp);
            cause = null;
        }
    }

    /**
     * Prints a system exclusive message of a source for each instrument that it goes to: onto the first track that takes
     * a part of it, else onto one of the source, else onto the one for everything else.
     */
    public void exclusive(String source, byte[] message, long stamp) {
        if (routing == null) {
            return;
        }
        for (String instrument : routing.source(source).map(Source::sysexTo).orElse(List.of())) {
            if (routing.instrument(instrument).isPresent()) {
                int track = exclusiveTrack(source, instrument);
                if (track != NOWHERE) {
                    logs[track].addExclusive(stamp, nameNumber(EventDestination.of(instrument)), message);
                }
            }
        }
    }

    private int exclusiveTrack(String source, String instrument) {
        for (int i = 0; i < takes.length; i++) {
            if (takes[i]
                    && tracks.get(i).input() instanceof Track.OfPart of
                    && of.part().instrument().equals(instrument)) {
                return i;
            }
        }
        return others.stream()
                .filter(i -> tracks.get(i).input() instanceof Track.OfSource of
                        && of.source().equals(source))
                .findFirst()
                .orElse(rest);
    }

    /** Ends all notes that are still held. */
    public void finish(long stamp) {
        router.close(stamp);
    }

    private boolean print(long stamp, int port, int message, int instrument) {
        int destination = port * 16 + ShortMessage.channel(message);
        int kind = ShortMessage.kind(message);
        int place = destination * 128 + ShortMessage.data1(message);
        int[] onto;
        int name;
        if (kind == ShortMessage.NOTE_OFF || kind == ShortMessage.KEY_PRESSURE) {
            onto = tracksOfSounding[place];
            name = namesOfSounding[place];
        } else {
            Printed now = new Printed(trackOfDestination[destination], name(destination, instrument));
            Printed where = NeutralValues.moves(message) ? followWheel(destination, message, now) : now;
            onto = onto(destination, where.own, message);
            name = where.name;
            if (kind == ShortMessage.NOTE_ON) {
                tracksOfSounding[place] = onto;
                namesOfSounding[place] = name;
            }
        }
        for (int track : onto) {
            logs[track].add(stamp, name, message);
        }
        return true;
    }

    private int name(int destination, int instrument) {
        String id = slots.instrumentId(instrument);
        int part = nameOfDestination[destination];
        boolean isOfInstrument = part != NOWHERE && names.name(part).startsWith(id + "/");
        return isOfInstrument ? part : nameNumber(EventDestination.of(id));
    }

    /** Returns where a pedal or wheel that comes to rest was moved, though its part may be on another channel by now. */
    private Printed followWheel(int destination, int message, Printed now) {
        int wheel = debt(destination, message);
        if (NeutralValues.isAtRest(message)) {
            Printed before = movedWheels.remove(wheel);
            return before == null ? now : before;
        }
        movedWheels.put(wheel, now);
        return now;
    }

    private int[] onto(int destination, int partTrack, int message) {
        int own = partTrack;
        if (ShortMessage.kind(message) == ShortMessage.NOTE_ON && !trackOfNote.isEmpty()) {
            own = trackOfNote.getOrDefault(destination * 128 + ShortMessage.data1(message), own);
        }
        if (others.isEmpty()) {
            int only = own == NOWHERE ? rest : own;
            return only == NOWHERE ? NONE : alone[only];
        }
        int debt = debt(destination, message);
        boolean rests = NeutralValues.isAtRest(message);
        boolean owes = NeutralValues.moves(message) && !rests;
        int count = own == NOWHERE ? 0 : 1;
        int[] onto = new int[others.size() + 2];
        onto[0] = own;
        for (int other : others) {
            // A reset goes to every track that had moved the controller, regardless of the source that caused it.
            if (rests && owed[other].get(debt) || takes(other, destination, message)) {
                owed[other].set(debt, owes);
                onto[count++] = other;
            }
        }
        boolean isOfRest = rest != NOWHERE && (count == 0 || rests && owed[rest].get(debt));
        if (isOfRest) {
            owed[rest].set(debt, owes);
            onto[count++] = rest;
        }
        return count == 0 ? NONE : Arrays.copyOf(onto, count);
    }

    /** A number for a controller, or another kind of message without a key, of a destination. */
    private static int debt(int destination, int message) {
        int kind = ShortMessage.kind(message);
        return destination << 8 | (kind == ShortMessage.CONTROLLER ? ShortMessage.data1(message) : kind);
    }

    /** Returns true if a track of a source, a channel or a zone takes what leaves now. */
    private boolean takes(int number, int destination, int message) {
        boolean starts = ShortMessage.kind(message) == ShortMessage.NOTE_ON;
        boolean pays = !starts && (cause == null || EventKind.of(causeMessage) != EventKind.of(message));
        if (pays) {
            // A reset of a wheel or pedal goes to the tracks of the source that moved it.
            return owed[number].get(debt(destination, message));
        }
        Track.Input input = tracks.get(number).input();
        if (input instanceof Track.OfSource of) {
            return of.source().equals(cause);
        }
        if (input instanceof Track.OfChannel of) {
            return of.source().equals(cause) && of.channel() == ShortMessage.channel(causeMessage) + 1;
        }
        return input instanceof Track.OfZone of && cause != null && sends(of.zone(), destination, message, starts);
    }

    /** Returns true if a zone that holds now makes of the present event what leaves now. */
    private boolean sends(String id, int destination, int message, boolean starts) {
        if (router.scene() != zonesOfScene || reach == null) {
            zonesOfScene = router.scene();
            Routing inScene = zonesOfScene == NOWHERE ? routing : routing.withScene(slots.sceneId(zonesOfScene));
            zones = inScene.zones();
            reach = new RoutingQueries(inScene);
        }
        int channel = ShortMessage.channel(causeMessage);
        int key = ShortMessage.data1(causeMessage);
        for (int i = 0; i < zones.size(); i++) {
            int place = i;
            Zone zone = zones.get(i);
            if (zone.id().equals(id)
                    && zone.enabled()
                    && zone.isPlayedBy(cause)
                    && zone.channels().holds(channel)
                    && reach.destination(i, channel)
                            .filter(to -> number(to) == destination)
                            .isPresent()) {
                if (!starts) {
                    EventKind kind = EventKind.of(causeMessage);
                    return zone.pass().contains(kind)
                            && !(kind == EventKind.CONTROLLERS
                                    && zone.blockControllers().contains(key));
                }
                return ShortMessage.startsNote(causeMessage)
                        && zone.keys().holds(key)
                        && zone.velocity().holds(ShortMessage.data2(causeMessage))
                        && routing.source(cause)
                                .filter(source ->
                                        reach.notes(place, source, key).contains(ShortMessage.data1(message)))
                                .isPresent();
            }
        }
        return false;
    }

    /** The tracks that are printed, in their order. */
    public List<Track> tracks() {
        return tracks;
    }

    /** Returns true if track {@code i} was armed, or takes everything else. */
    public boolean takesSomething(int i) {
        return takes[i];
    }

    /** Returns the events on track {@code i} so far, in nanoseconds since the start of the take. */
    public EventStore log(int i) {
        return logs[i];
    }

    /** Returns the events on track {@code i} of a take, in ticks of the music. */
    public MidiTrack clip(int i, Take take) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        EventStore log = logs[i];
        int size = log.size();
        boolean several = tracks.get(i).takesSeveral();
        for (int e = 0; e < size; e++) {
            long tick = take.tick(log.stamp(e));
            String destination = several ? names.name(log.source(e)) : MidiTrack.NO_DESTINATION;
            byte[] exclusive = log.exclusive(e);
            if (exclusive == null) {
                clip.add(tick, log.message(e), destination);
            } else {
                clip.exclusive(
                        tick, exclusive[0] & 0xFF, Arrays.copyOfRange(exclusive, 1, exclusive.length), destination);
            }
        }
        return clip.build();
    }
}
