package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.Rest;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongUnaryOperator;

/** Clips cut and brought together, so that no note hangs where they were cut. Functions of clips. */
public final class Clips {
    private Clips() {}

    /**
     * A stretch of a clip.
     *
     * @param from its first tick
     * @param to the tick behind it
     */
    public record Stretch(long from, long to) {}

    /** An event with its place, while clips are brought together. */
    private record Event(long tick, MidiTrack track, int at, int message) {
        static Event of(long tick, int message) {
            return new Event(tick, null, 0, message);
        }
    }

    /**
     * What a clip has within some stretches. Where one ends before the clip does, notes end and pedals and wheels come to
     * rest there; where one begins after the clip does, controllers are what they were, and only notes that begin there
     * sound.
     *
     * @param stretches in their order, apart from each other
     */
    public static MidiTrack within(MidiTrack clip, List<Stretch> stretches) {
        boolean whole = stretches.size() == 1
                && (clip.size() == 0 || stretches.get(0).from() <= clip.tick(0))
                && stretches.get(0).to() >= clip.endTick();
        if (whole) {
            return clip;
        }
        if (!hasDevices(clip)) {
            return cut(clip, stretches);
        }
        MidiTrack made = Track.NOTHING;
        for (Map.Entry<String, MidiTrack> device : byDevice(clip).entrySet()) {
            MidiTrack part = forDevice(device.getKey(), cut(device.getValue(), stretches));
            made = over(made, part);
        }
        return made;
    }

    private static MidiTrack cut(MidiTrack clip, List<Stretch> stretches) {
        List<Event> events = new ArrayList<>();
        Chase chase = new Chase();
        OpenNotes open = new OpenNotes();
        int i = 0;
        long end = 0;
        for (Stretch stretch : stretches) {
            for (; i < clip.size() && clip.tick(i) < stretch.from(); i++) {
                chase(chase, clip, i);
            }
            if (i > 0) {
                chase.messages().forEach(message -> events.add(Event.of(stretch.from(), message)));
            }
            boolean toTheEnd = stretch.to() >= clip.endTick();
            for (; i < clip.size() && (toTheEnd || clip.tick(i) <= stretch.to()); i++) {
                boolean onTheEdge = !toTheEnd && clip.tick(i) == stretch.to();
                if (onTheEdge && !endsOpen(clip, i, open)) {
                    break;
                }
                add(clip, i, open, events);
                chase(chase, clip, i);
            }
            end = Math.min(stretch.to(), clip.endTick());
            if (!toTheEnd) {
                close(stretch.to(), open, chase, events);
            }
        }
        return build(events, end);
    }

    private static void chase(Chase chase, MidiTrack clip, int i) {
        if (clip.isChannelMessage(i)) {
            chase.add(clip.message(i));
        }
    }

    /** Whether an event is the off of a note that sounds: one that is right on the edge keeps its velocity. */
    private static boolean endsOpen(MidiTrack clip, int i, OpenNotes open) {
        return clip.isChannelMessage(i)
                && ShortMessage.endsNote(clip.message(i))
                && open.at(0, clip.message(i)) != OpenNotes.NONE;
    }

    private static void add(MidiTrack clip, int i, OpenNotes open, List<Event> events) {
        int message = clip.isChannelMessage(i) ? clip.message(i) : 0;
        if (ShortMessage.startsNote(message)) {
            open.begin(0, message, i);
        } else if (ShortMessage.endsNote(message) && open.end(0, message) == OpenNotes.NONE
                || ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE && open.at(0, message) == OpenNotes.NONE) {
            return;
        }
        events.add(new Event(clip.tick(i), clip, i, message));
    }

    private static void close(long tick, OpenNotes open, Chase chase, List<Event> events) {
        open.endAll((whose, off) -> events.add(Event.of(tick, off)));
        for (int message : chase.messages()) {
            if (Rest.moves(message) && !Rest.isAtRest(message)) {
                events.add(Event.of(tick, Rest.of(message)));
            }
        }
    }

    /** A track whose notes all end: one that has no off lasts to the end of the track. */
    public static MidiTrack closed(MidiTrack track) {
        OpenNotes open = new OpenNotes();
        for (int i = 0; i < track.size(); i++) {
            if (track.isChannelMessage(i) && ShortMessage.startsNote(track.message(i))) {
                open.begin(0, track.message(i), i);
            } else if (track.isChannelMessage(i) && ShortMessage.endsNote(track.message(i))) {
                open.end(0, track.message(i));
            }
        }
        if (open.count() == 0) {
            return track;
        }
        MidiTrack.Builder closed = new MidiTrack.Builder();
        for (int i = 0; i < track.size(); i++) {
            closed.copy(track, i);
        }
        open.endAll((whose, off) -> closed.add(track.endTick(), off));
        return closed.build();
    }

    /** A clip whose events come at other ticks. @param tick what a tick becomes; rising */
    public static MidiTrack retimed(MidiTrack clip, LongUnaryOperator tick) {
        MidiTrack.Builder retimed = new MidiTrack.Builder();
        for (int i = 0; i < clip.size(); i++) {
            retimed.copyAt(tick.applyAsLong(clip.tick(i)), clip, i);
        }
        return retimed.build(tick.applyAsLong(clip.endTick()));
    }

    /** A clip without messages that say what holds already, as they stand where it was cut. */
    public static MidiTrack plain(MidiTrack clip) {
        Map<Integer, Integer> held = new HashMap<>();
        MidiTrack.Builder plain = new MidiTrack.Builder();
        for (int i = 0; i < clip.size(); i++) {
            int message = clip.isChannelMessage(i) ? clip.message(i) : 0;
            boolean holds = message != 0
                    && !ShortMessage.isNote(message)
                    && Integer.valueOf(message).equals(held.put(place(message), message));
            if (!holds) {
                plain.copy(clip, i);
            }
        }
        return plain.build(clip.endTick());
    }

    /** Where a message holds until the next comes there: a controller's number, or a kind alone. */
    private static int place(int message) {
        int kind = ShortMessage.kind(message);
        boolean numbered = kind == ShortMessage.CONTROLLER || kind == ShortMessage.KEY_PRESSURE;
        return ShortMessage.status(message) << 8 | (numbered ? ShortMessage.data1(message) : 0);
    }

    /**
     * Two clips over each other; at equal ticks the first one comes first. A note of the one that begins while the other
     * sounds it ends that, and a pedal that both hold down comes up with the last. Where one has nothing in it, the other
     * is as it was.
     */
    public static MidiTrack over(MidiTrack first, MidiTrack second) {
        if (first.size() == 0) {
            return second;
        }
        if (second.size() == 0) {
            return first;
        }
        List<Event> events = new ArrayList<>();
        for (MidiTrack track : List.of(first, second)) {
            for (int i = 0; i < track.size(); i++) {
                events.add(new Event(track.tick(i), track, i, track.isChannelMessage(i) ? track.message(i) : 0));
            }
        }
        return build(
                new Merge(first, hasDevices(first) || hasDevices(second)).merged(events),
                Math.max(first.endTick(), second.endTick()));
    }

    private static boolean hasDevices(MidiTrack track) {
        for (int i = 0; i < track.size(); i++) {
            if (track.isMeta(i, MidiTrack.META_DEVICE)) {
                return true;
            }
        }
        return false;
    }

    /** The bringing together of two clips. Where they are for several devices, names are said again where they change. */
    private static final class Merge {
        private static final Comparator<Event> ORDER = Comparator.comparingLong(Event::tick);

        private final MidiTrack first;
        private final boolean devices;
        private final Map<String, Integer> numbers = new HashMap<>();
        private final OpenNotes open = new OpenNotes();

        /** By device, channel and pedal: a bit for each of the two that holds it down. */
        private final Map<Integer, Integer> down = new HashMap<>();

        private final List<Event> merged = new ArrayList<>();

        Merge(MidiTrack first, boolean devices) {
            this.first = first;
            this.devices = devices;
        }

        List<Event> merged(List<Event> events) {
            Map<Event, Event> deviceOf = devices ? takeDevices(events) : Map.of();
            // Sorting is stable: what is at one tick keeps its order.
            events.sort(ORDER);
            String said = null;
            for (Event event : events) {
                Event device = deviceOf.get(event);
                String name = device == null ? "" : device.track().text(device.at());
                int before = merged.size();
                add(event, numbers.computeIfAbsent(name, key -> numbers.size()));
                if (merged.size() > before && device != null && !name.equals(said)) {
                    merged.add(before, new Event(event.tick(), device.track(), device.at(), 0));
                    said = name;
                }
            }
            return merged;
        }

        private static Map<Event, Event> takeDevices(List<Event> events) {
            Map<Event, Event> deviceOf = new IdentityHashMap<>();
            Map<MidiTrack, Event> now = new IdentityHashMap<>();
            for (Event event : events) {
                if (event.track().isMeta(event.at(), MidiTrack.META_DEVICE)) {
                    now.put(event.track(), event);
                } else {
                    Optional.ofNullable(now.get(event.track())).ifPresent(device -> deviceOf.put(event, device));
                }
            }
            events.removeIf(event -> event.track().isMeta(event.at(), MidiTrack.META_DEVICE));
            return deviceOf;
        }

        private void add(Event event, int device) {
            int whose = event.track() == first ? 0 : 1;
            int message = event.message();
            if (ShortMessage.startsNote(message)) {
                int before = open.begin(device, message, whose);
                if (before != OpenNotes.NONE && before != whose) {
                    merged.add(Event.of(
                            event.tick(),
                            ShortMessage.noteOff(
                                    ShortMessage.channel(message),
                                    ShortMessage.data1(message),
                                    ShortMessage.DEFAULT_RELEASE)));
                }
            } else if (ShortMessage.endsNote(message)) {
                if (open.at(device, message) != whose) {
                    return;
                }
                open.end(device, message);
            } else if (isPedal(message) && !moves(device, message, whose)) {
                return;
            }
            merged.add(event);
        }

        private static boolean isPedal(int message) {
            return ShortMessage.kind(message) == ShortMessage.CONTROLLER && Rest.isPedal(ShortMessage.data1(message));
        }

        private boolean moves(int device, int message, int whose) {
            int pedal = device << 16 | ShortMessage.channel(message) << 8 | ShortMessage.data1(message);
            int holders = down.getOrDefault(pedal, 0);
            boolean rests = Rest.isAtRest(message);
            int now = rests ? holders & ~(1 << whose) : holders | 1 << whose;
            down.put(pedal, now);
            return !rests || now == 0;
        }
    }

    private static MidiTrack build(List<Event> events, long end) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (Event event : events) {
            if (event.track() == null || event.message() != 0) {
                clip.add(event.tick(), event.message());
            } else {
                clip.copyAt(event.tick(), event.track(), event.at());
            }
        }
        return clip.build(end);
    }

    /**
     * A track's clip, taken apart by the instruments that it is for, by their ids; under an empty id what no device's
     * name comes before.
     */
    public static Map<String, MidiTrack> byDevice(MidiTrack clip) {
        Map<String, MidiTrack.Builder> parts = new LinkedHashMap<>();
        String device = "";
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isMeta(i, MidiTrack.META_DEVICE)) {
                device = clip.text(i);
            } else {
                parts.computeIfAbsent(device, name -> new MidiTrack.Builder()).copy(clip, i);
            }
        }
        Map<String, MidiTrack> built = new LinkedHashMap<>();
        parts.forEach((name, part) -> built.put(name, part.build(clip.endTick())));
        return built;
    }

    /** The clip for one instrument: with its id before all events. */
    public static MidiTrack forDevice(String instrument, MidiTrack clip) {
        MidiTrack.Builder named = new MidiTrack.Builder();
        if (clip.size() > 0 && !instrument.isEmpty()) {
            named.text(clip.tick(0), MidiTrack.META_DEVICE, instrument);
        }
        for (int i = 0; i < clip.size(); i++) {
            named.copy(clip, i);
        }
        return named.build(clip.endTick());
    }
}
