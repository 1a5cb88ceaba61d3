package dibble.recording;

import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.routing.Router;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.Slots;
import dibble.time.TempoMap;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Makes tracks out of what was played, by the same router that plays. Can follow a recording event by event, so that
 * its tracks fill while it lasts. An off goes to the track of its on, whatever changed in between. One thread prints;
 * any thread may read the logs.
 */
public final class Printer {
    private static final int NO_TRACK = -1;

    private final List<Track> tracks;
    private final EventLog[] logs;
    private final Map<PartRef, Integer> trackOfPart = new HashMap<>();
    private final Map<Track.OfKey, Integer> trackOfKey = new HashMap<>();
    private int rest = NO_TRACK;
    private final Slots slots = new Slots();
    private final Router router = new Router(this::print);
    private int[] trackOfDestination = {};
    private int[] trackOfSounding = {};

    /** Tracks of single notes, by destination and note; few. */
    private final Map<Integer, Integer> trackOfNote = new HashMap<>();

    /**
     * @param tracks the tracks to print; their clips are not looked at
     * @param armed the ids of those that take something
     */
    public Printer(List<Track> tracks, Set<String> armed) {
        this.tracks = List.copyOf(tracks);
        router.giveSounds();
        logs = new EventLog[tracks.size()];
        for (int i = 0; i < logs.length; i++) {
            logs[i] = new EventLog();
            Track track = tracks.get(i);
            if (armed.contains(track.id())) {
                int number = i;
                if (track.input() instanceof Track.OfKey key) {
                    trackOfKey.putIfAbsent(key, number);
                } else {
                    track.part().ifPresent(part -> trackOfPart.putIfAbsent(part, number));
                }
            }
            if (track.takesRest() && rest == NO_TRACK) {
                rest = i;
            }
        }
    }

    /** Prints a whole take with the routings that were in force while it was played: what was heard. */
    public static Printer print(Take take, List<Track> tracks, Set<String> armed) {
        Printer printer = new Printer(tracks, armed);
        int mark = 0;
        for (int i = 0; i < take.log().size(); i++) {
            while (mark < take.marks().size() && take.marks().get(mark).position() <= i) {
                printer.install(
                        take.marks().get(mark).routing(), take.marks().get(mark).stamp());
                mark++;
            }
            int source = take.log().source(i);
            printer.event(
                    take.sources().get(source),
                    take.log().message(i),
                    take.log().stamp(i),
                    take.log().isEcho(i));
        }
        printer.finish(take.length());
        return printer;
    }

    /** Puts a routing in force. */
    public void install(Routing routing, long stamp) {
        router.install(RoutingCompiler.compile(routing, slots), stamp);
        int destinations = slots.portCount() * 16;
        trackOfDestination = new int[destinations];
        Arrays.fill(trackOfDestination, rest);
        trackOfPart.forEach((part, track) -> routing.destination(part)
                .ifPresent(to -> trackOfDestination[slots.port(to.port()) * 16 + to.channel() - 1] = track));
        trackOfNote.clear();
        trackOfKey.forEach((of, track) -> routing.destination(of.part())
                .ifPresent(to ->
                        trackOfNote.put((slots.port(to.port()) * 16 + to.channel() - 1) * 128 + of.key(), track)));
        int old = trackOfSounding.length;
        trackOfSounding = Arrays.copyOf(trackOfSounding, destinations * 128);
        Arrays.fill(trackOfSounding, old, trackOfSounding.length, NO_TRACK);
    }

    /**
     * Routes one event of a source onto the tracks.
     *
     * @param echo whether it came back from a looping device: then it counts only if it ends something
     */
    public void event(String source, int message, long stamp, boolean echo) {
        if (!echo || Router.onlyEnds(message)) {
            router.event(slots.source(source), message, stamp);
        }
    }

    /** Ends all notes that are still held. */
    public void finish(long stamp) {
        router.close(stamp);
    }

    private boolean print(long stamp, int port, int message, int instrument) {
        int destination = port * 16 + ShortMessage.channel(message);
        int track = trackOfDestination[destination];
        int kind = ShortMessage.kind(message);
        if (kind == ShortMessage.NOTE_ON) {
            track = trackOfNote.getOrDefault(destination * 128 + ShortMessage.data1(message), track);
            trackOfSounding[destination * 128 + ShortMessage.data1(message)] = track;
        } else if (kind == ShortMessage.NOTE_OFF || kind == ShortMessage.KEY_PRESSURE) {
            track = trackOfSounding[destination * 128 + ShortMessage.data1(message)];
        }
        if (track != NO_TRACK) {
            logs[track].add(stamp, destination, message);
        }
        return true;
    }

    /** The tracks that are printed, in their order. */
    public List<Track> tracks() {
        return tracks;
    }

    /** Whether track {@code i} was armed, or takes what is left. */
    public boolean takesSomething(int i) {
        return i == rest || trackOfPart.containsValue(i) || trackOfKey.containsValue(i);
    }

    /** What was printed onto track {@code i} so far. */
    public EventLog log(int i) {
        return logs[i];
    }

    /** What was printed onto track {@code i}, in ticks. */
    public MidiTrack clip(int i, TempoMap tempo) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        EventLog log = logs[i];
        int size = log.size();
        for (int e = 0; e < size; e++) {
            clip.add(tempo.ticks(log.stamp(e)), log.message(e));
        }
        return clip.build();
    }
}
