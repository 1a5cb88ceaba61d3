package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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

    /**
     * An event of a clip, or one that was made while clips are cut and merged.
     *
     * @param of which of the given clips it is from
     */
    private record Event(long tick, MidiTrack track, int of, int at, int message, String destination) {
        static Event of(long tick, int message, String destination) {
            return new Event(tick, null, 0, 0, message, destination);
        }

        static Event copyOf(MidiTrack track, int of, int i) {
            return new Event(
                    track.tick(i),
                    track,
                    of,
                    i,
                    track.isChannelMessage(i) ? track.message(i) : 0,
                    track.destination(i));
        }
    }

    /**
     * Returns the part of a clip within some stretches. Where one ends before the clip does, notes end and pedals and
     * wheels return to rest there; where one begins after the clip does, controllers have their values of that position,
     * and only notes that begin there sound. Each destination is cut independently.
     *
     * @param stretches in their order, apart from each other
     */
    public static MidiTrack within(MidiTrack clip, List<Stretch> stretches) {
        return isWhole(clip, stretches) ? clip : build(new Cut(clip).within(stretches), end(clip, stretches));
    }

    /** Cuts a traced clip as {@link #within(MidiTrack, List)} does. */
    static Traced within(Traced traced, List<Stretch> stretches) {
        MidiTrack clip = traced.clip();
        return isWhole(clip, stretches) ? traced : trace(new Cut(clip).within(stretches), end(clip, stretches), traced);
    }

    private static boolean isWhole(MidiTrack clip, List<Stretch> stretches) {
        return stretches.size() == 1
                && (clip.size() == 0 || stretches.get(0).from() <= clip.tick(0))
                && stretches.get(0).to() >= clip.endTick();
    }

    private static long end(MidiTrack clip, List<Stretch> stretches) {
        return stretches.isEmpty()
                ? 0
                : Math.min(stretches.get(stretches.size() - 1).to(), clip.endTick());
    }

    /** The cutting of one clip. */
    private static final class Cut {
        private final MidiTrack clip;
        private final DestinationNumbers destinations = new DestinationNumbers();

        /** By destination: the values of its controllers so far. */
        private final List<Chase> chases = new ArrayList<>();

        private final OpenNotes open = new OpenNotes();
        private final List<Event> events = new ArrayList<>();

        Cut(MidiTrack clip) {
            this.clip = clip;
        }

        List<Event> within(List<Stretch> stretches) {
            int i = 0;
            for (Stretch stretch : stretches) {
                for (; i < clip.size() && clip.tick(i) < stretch.from(); i++) {
                    chase(i);
                }
                sendHeldValues(stretch.from());
                boolean toTheEnd = stretch.to() >= clip.endTick();
                for (; i < clip.size() && (toTheEnd || clip.tick(i) < stretch.to()); i++) {
                    add(i);
                    chase(i);
                }
                for (int edge = i; edge < clip.size() && clip.tick(edge) == stretch.to(); edge++) {
                    addEndAtEdge(edge);
                }
                if (!toTheEnd) {
                    close(stretch.to());
                }
            }
            return events;
        }

        private int destination(int i) {
            int number = destinations.number(clip.destination(i));
            if (number == chases.size()) {
                chases.add(new Chase());
            }
            return number;
        }

        private void chase(int i) {
            if (clip.isChannelMessage(i)) {
                chases.get(destination(i)).add(clip.message(i));
            }
        }

        private void sendHeldValues(long tick) {
            for (int number = 0; number < chases.size(); number++) {
                String destination = destinations.name(number);
                chases.get(number).messages().forEach(message -> events.add(Event.of(tick, message, destination)));
            }
        }

        /** Adds the off of a sounding note at the end of a stretch, so that its velocity is kept. */
        private void addEndAtEdge(int i) {
            int message = clip.isChannelMessage(i) ? clip.message(i) : 0;
            if (ShortMessage.isNote(message) && open.end(destination(i), message) != OpenNotes.NONE) {
                events.add(
                        ShortMessage.endsNote(message)
                                ? Event.copyOf(clip, 0, i)
                                : Event.of(clip.tick(i), OpenNotes.off(message), clip.destination(i)));
            }
        }

        private void add(int i) {
            int message = clip.isChannelMessage(i) ? clip.message(i) : 0;
            int destination = destination(i);
            if (ShortMessage.startsNote(message)) {
                open.begin(destination, message, i);
            } else if (ShortMessage.endsNote(message) && open.end(destination, message) == OpenNotes.NONE
                    || ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE
                            && open.at(destination, message) == OpenNotes.NONE) {
                return;
            }
            events.add(Event.copyOf(clip, 0, i));
        }

        private void close(long tick) {
            open.endAll((number, off) -> events.add(Event.of(tick, off, destinations.name(number))));
            for (int number = 0; number < chases.size(); number++) {
                for (int message : chases.get(number).messages()) {
                    if (NeutralValues.moves(message) && !NeutralValues.isAtRest(message)) {
                        events.add(Event.of(tick, NeutralValues.of(message), destinations.name(number)));
                    }
                }
            }
        }
    }

    /**
     * Returns a track in which every note has its own off: a note that is struck again ends there, and a note without an
     * off lasts to the end of the track.
     */
    public static MidiTrack closed(MidiTrack track) {
        DestinationNumbers destinations = new DestinationNumbers();
        OpenNotes open = new OpenNotes();
        MidiTrack.Builder closed = new MidiTrack.Builder();
        for (int i = 0; i < track.size(); i++) {
            int message = track.isChannelMessage(i) ? track.message(i) : 0;
            int destination = destinations.number(track.destination(i));
            if (ShortMessage.startsNote(message)) {
                if (open.begin(destination, message, i) != OpenNotes.NONE) {
                    closed.add(track.tick(i), OpenNotes.off(message), track.destination(i));
                }
            } else if (ShortMessage.endsNote(message)) {
                open.end(destination, message);
            }
            closed.copy(track, i);
        }
        if (open.count() == 0 && closed.size() == track.size()) {
            return track;
        }
        open.endAll((number, off) -> closed.add(track.endTick(), off, destinations.name(number)));
        return closed.build(track.endTick());
    }

    /**
     * Returns a clip with events at other ticks.
     *
     * @param tick the new tick of a tick; ascending
     */
    public static MidiTrack retimed(MidiTrack clip, LongUnaryOperator tick) {
        MidiTrack.Builder retimed = new MidiTrack.Builder();
        for (int i = 0; i < clip.size(); i++) {
            retimed.copyAt(tick.applyAsLong(clip.tick(i)), clip, i);
        }
        return retimed.build(tick.applyAsLong(clip.endTick()));
    }

    /** Returns a clip without messages that repeat the present state, such as those at cuts. */
    public static MidiTrack plain(MidiTrack clip) {
        Map<Position, Integer> held = new HashMap<>();
        MidiTrack.Builder plain = new MidiTrack.Builder();
        for (int i = 0; i < clip.size(); i++) {
            int message = clip.isChannelMessage(i) ? clip.message(i) : 0;
            boolean holds = message != 0
                    && !ShortMessage.isNote(message)
                    && Integer.valueOf(message)
                            .equals(held.put(new Position(clip.destination(i), place(message)), message));
            if (!holds) {
                plain.copy(clip, i);
            }
        }
        return plain.build(clip.endTick());
    }

    /** A controller, wheel or program of a destination. */
    private record Position(String destination, int place) {}

    /** Returns the slot of a message's value: a controller's number, or a kind. */
    private static int place(int message) {
        int kind = ShortMessage.kind(message);
        boolean numbered = kind == ShortMessage.CONTROLLER || kind == ShortMessage.KEY_PRESSURE;
        return ShortMessage.status(message) << 8 | (numbered ? ShortMessage.data1(message) : 0);
    }

    /**
     * Merges two clips as the router merges two players; at equal ticks, ends and resets come first, then the events of the
     * first clip. A note that begins while the other clip sounds its key ends that, and lasts until both clips have released
     * the key; so does a pedal. Where one clip is empty, the other one is unchanged.
     */
    public static MidiTrack over(MidiTrack first, MidiTrack second) {
        if (first.size() == 0) {
            return second;
        }
        if (second.size() == 0) {
            return first;
        }
        return build(new Merge().merged(first, second), Math.max(first.endTick(), second.endTick()));
    }

    /** Merges traced clips as {@link #over(MidiTrack, MidiTrack)} does. */
    static Traced over(Traced first, Traced second) {
        if (first.clip().size() == 0) {
            return second;
        }
        if (second.clip().size() == 0) {
            return first;
        }
        return trace(
                new Merge().merged(first.clip(), second.clip()),
                Math.max(first.clip().endTick(), second.clip().endTick()),
                first,
                second);
    }

    /** The merge of two clips. */
    private static final class Merge {
        private final DestinationNumbers destinations = new DestinationNumbers();

        /** The clip of the note that sounds. */
        private final OpenNotes sounding = new OpenNotes();

        /** By clip: the notes that it holds. */
        private final List<OpenNotes> held = List.of(new OpenNotes(), new OpenNotes());

        /** By destination, channel and pedal: a bit for each of the two clips that holds it down. */
        private final Map<Integer, Integer> down = new HashMap<>();

        private final List<Event> merged = new ArrayList<>();

        List<Event> merged(MidiTrack first, MidiTrack second) {
            int i = 0;
            int k = 0;
            while (i < first.size() || k < second.size()) {
                if (k == second.size() || i < first.size() && comesFirst(first, i, second, k)) {
                    add(Event.copyOf(first, 0, i++));
                } else {
                    add(Event.copyOf(second, 1, k++));
                }
            }
            return merged;
        }

        /** Ends and resets of one clip precede simultaneous events of the other. */
        private static boolean comesFirst(MidiTrack first, int i, MidiTrack second, int k) {
            return first.tick(i) < second.tick(k)
                    || first.tick(i) == second.tick(k) && (ends(first, i) || !ends(second, k));
        }

        private static boolean ends(MidiTrack clip, int i) {
            if (!clip.isChannelMessage(i)) {
                return false;
            }
            int message = clip.message(i);
            return ShortMessage.endsNote(message) || NeutralValues.isAtRest(message);
        }

        private void add(Event event) {
            int destination = destinations.number(event.destination());
            int whose = event.of();
            int message = event.message();
            if (ShortMessage.startsNote(message)) {
                boolean isOwn = held.get(whose).begin(destination, message, whose) != OpenNotes.NONE;
                int before = sounding.begin(destination, message, whose);
                if (before != OpenNotes.NONE && !(before == whose && isOwn)) {
                    merged.add(Event.of(event.tick(), OpenNotes.off(message), event.destination()));
                }
            } else if (ShortMessage.endsNote(message)) {
                boolean wasHeld = held.get(whose).end(destination, message) != OpenNotes.NONE;
                if (!wasHeld || held.get(1 - whose).at(destination, message) != OpenNotes.NONE) {
                    return;
                }
                sounding.end(destination, message);
            } else if (isPedal(message) && !moves(destination, message, whose)) {
                return;
            }
            merged.add(event);
        }

        private static boolean isPedal(int message) {
            return ShortMessage.kind(message) == ShortMessage.CONTROLLER
                    && NeutralValues.isPedal(ShortMessage.data1(message));
        }

        private boolean moves(int destination, int message, int whose) {
            int pedal = destination << 16 | ShortMessage.channel(message) << 8 | ShortMessage.data1(message);
            int holders = down.getOrDefault(pedal, 0);
            boolean rests = NeutralValues.isAtRest(message);
            int now = rests ? holders & ~(1 << whose) : holders | 1 << whose;
            down.put(pedal, now);
            return !rests || now == 0;
        }
    }

    private static MidiTrack build(List<Event> events, long end) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (Event event : events) {
            if (event.track() == null || event.message() != 0) {
                clip.add(event.tick(), event.message(), event.destination());
            } else {
                clip.copyAt(event.tick(), event.track(), event.at());
            }
        }
        return clip.build(end);
    }

    private static Traced trace(List<Event> events, long end, Traced... of) {
        int[] originals = new int[events.size()];
        int[] numbers = new int[events.size()];
        for (int i = 0; i < originals.length; i++) {
            Event event = events.get(i);
            originals[i] = event.track() == null ? Traced.NONE : of[event.of()].original(event.at());
            numbers[i] = event.track() == null ? Traced.NONE : of[event.of()].number(event.at());
        }
        return new Traced(build(events, end), originals, numbers);
    }

    /** Splits a clip by the destinations that its events name, in the order of their first events. */
    public static Map<String, MidiTrack> byDestination(MidiTrack clip) {
        Map<String, MidiTrack.Builder> parts = new LinkedHashMap<>();
        for (int i = 0; i < clip.size(); i++) {
            parts.computeIfAbsent(clip.destination(i), name -> new MidiTrack.Builder())
                    .copy(clip, i);
        }
        Map<String, MidiTrack> built = new LinkedHashMap<>();
        parts.forEach((name, part) -> built.put(name, part.build(clip.endTick())));
        return built;
    }

    /** Returns a clip all of whose events name one destination. */
    public static MidiTrack withDestination(MidiTrack clip, String destination) {
        MidiTrack.Builder named = new MidiTrack.Builder();
        for (int i = 0; i < clip.size(); i++) {
            named.copyTo(destination, clip, i);
        }
        return named.build(clip.endTick());
    }

    /**
     * Returns a clip whose events name their destinations, read from a track in which a device name with an instrument's
     * id, and an instrument name with a part's where there is one, precede the events for another destination than the
     * last. Events before the first name are for that destination, too.
     */
    public static MidiTrack readDeviceNames(MidiTrack track) {
        int first = 0;
        while (first < track.size() && !track.isMeta(first, MidiTrack.META_DEVICE)) {
            first++;
        }
        if (first == track.size()) {
            return track;
        }
        MidiTrack.Builder clip = new MidiTrack.Builder();
        String destination = destinationAt(track, first);
        for (int i = 0; i < track.size(); i++) {
            if (track.isMeta(i, MidiTrack.META_DEVICE)) {
                destination = destinationAt(track, i);
                i += namesPart(track, i) ? 1 : 0;
            } else {
                clip.copyTo(destination, track, i);
            }
        }
        return clip.build(track.endTick());
    }

    private static String destinationAt(MidiTrack track, int i) {
        return track.text(namesPart(track, i) ? i + 1 : i).intern();
    }

    private static boolean namesPart(MidiTrack track, int i) {
        return i + 1 < track.size()
                && track.isMeta(i + 1, MidiTrack.META_INSTRUMENT)
                && track.text(i + 1).startsWith(track.text(i) + "/");
    }

    /** Returns a track with names between its events, as {@link #readDeviceNames} reads them. */
    public static MidiTrack writeDeviceNames(MidiTrack clip) {
        if (!clip.namesDestinations()) {
            return clip;
        }
        MidiTrack.Builder track = new MidiTrack.Builder();
        String written = null;
        for (int i = 0; i < clip.size(); i++) {
            String text = clip.destination(i);
            if (!text.equals(written)) {
                EventDestination destination = EventDestination.parse(text);
                track.text(clip.tick(i), MidiTrack.META_DEVICE, destination.instrument());
                if (destination.part() != null) {
                    track.text(clip.tick(i), MidiTrack.META_INSTRUMENT, text);
                }
                written = text;
            }
            track.copyTo(MidiTrack.NO_DESTINATION, clip, i);
        }
        return track.build(clip.endTick());
    }
}
