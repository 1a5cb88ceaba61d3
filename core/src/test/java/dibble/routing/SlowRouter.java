package dibble.routing;

import dibble.gear.Source;
import dibble.midi.EventKind;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** The routing contract written down as plainly as possible, to hold the real router against. */
final class SlowRouter {
    /** A note somewhere. */
    private record Place(String port, int channel, int note) implements Comparable<Place> {
        @Override
        public int compareTo(Place other) {
            int byPort = port.compareTo(other.port);
            int byChannel = Integer.compare(channel, other.channel);
            return byPort != 0 ? byPort : byChannel != 0 ? byChannel : Integer.compare(note, other.note);
        }
    }

    private record Key(String source, int channel, int key) {}

    /** What a key holds: where, and whether key pressure goes there. */
    private record Held(Place place, boolean pressure) {}

    private static final class Note {
        int velocity;
        boolean pressure;
        String instrument;
    }

    final List<String> sent = new ArrayList<>();
    private final Map<Key, List<Held>> held = new LinkedHashMap<>();
    private final Map<Place, String> sounding = new TreeMap<>();
    private final Slots slots;
    private Routing routing;

    SlowRouter(Slots slots) {
        this.slots = slots;
    }

    private List<Source> inOrderOfSlots(List<Source> sources) {
        return sources.stream()
                .sorted(Comparator.comparingInt(source -> slots.source(source.id())))
                .toList();
    }

    void install(Routing next) {
        if (routing != null) {
            // Two sources that go in one edit let go in the order in which they first came.
            for (Source source : inOrderOfSlots(routing.sources())) {
                if (next.source(source.id()).isEmpty()) {
                    for (int channel = 0; channel < 16; channel++) {
                        for (int key = 0; key < 128; key++) {
                            release(new Key(source.id(), channel, key), 64);
                        }
                    }
                }
            }
        }
        routing = next;
    }

    void event(String sourceId, int message) {
        Key key = new Key(sourceId, ShortMessage.channel(message), ShortMessage.data1(message));
        if (ShortMessage.endsNote(message)) {
            boolean on = ShortMessage.kind(message) == ShortMessage.NOTE_ON;
            release(key, on ? 64 : ShortMessage.data2(message));
            return;
        }
        if (ShortMessage.startsNote(message)) {
            release(key, 64);
        }
        Source source = routing.source(sourceId).orElse(null);
        EventKind kind = EventKind.of(message);
        if (source == null
                || !source.listen().holds(key.channel)
                || !source.accept().contains(kind)) {
            return;
        }
        switch (kind) {
            case NOTES -> noteOn(source, key, ShortMessage.data2(message));
            case KEY_PRESSURE ->
                held.getOrDefault(key, List.of()).stream()
                        .filter(it -> it.pressure && sounding.containsKey(it.place))
                        .forEach(it -> send(
                                it.place,
                                ShortMessage.KEY_PRESSURE,
                                ShortMessage.data2(message),
                                sounding.get(it.place)));
            default -> pass(source, kind, message);
        }
    }

    private void noteOn(Source source, Key key, int velocity) {
        Map<Place, Note> notes = new LinkedHashMap<>();
        for (Zone zone : routing.zones()) {
            Destination to = destination(zone, key.channel);
            boolean matches = zone.enabled()
                    && zone.isPlayedBy(source.id())
                    && zone.channels().holds(key.channel)
                    && zone.keys().holds(key.key)
                    && zone.velocity().holds(velocity);
            if (matches && to != null) {
                for (int note : notesOut(zone, source, key.key)) {
                    Note out = notes.computeIfAbsent(new Place(to.port(), to.channel(), note), place -> {
                        Note fresh = new Note();
                        fresh.instrument = zone.to().instrument();
                        return fresh;
                    });
                    out.velocity = Math.max(out.velocity, velocityOut(zone, velocity));
                    out.pressure |= zone.pass().contains(EventKind.KEY_PRESSURE);
                }
            }
        }
        notes.keySet().forEach(place -> stop(place, 64));
        List<Held> holds = new ArrayList<>();
        notes.forEach((place, note) -> {
            send(place, ShortMessage.NOTE_ON, note.velocity, note.instrument);
            sounding.put(place, note.instrument);
            holds.add(new Held(place, note.pressure));
        });
        held.put(key, holds);
    }

    private static List<Integer> notesOut(Zone zone, Source source, int key) {
        if (zone.noteMap().containsKey(key)) {
            return zone.noteMap().get(key);
        }
        if (zone.dropUnmapped()) {
            return List.of();
        }
        int note = key + source.transpose() + zone.transpose();
        while (zone.fold() && note < 0) {
            note += 12;
        }
        while (zone.fold() && note > 127) {
            note -= 12;
        }
        return note < 0 || note > 127 ? List.of() : List.of(note);
    }

    private static int velocityOut(Zone zone, int v) {
        if (zone.velocityTo() == null) {
            return v;
        }
        double a = zone.velocity().low();
        double b = zone.velocity().high();
        double c = zone.velocityTo().first();
        double d = zone.velocityTo().last();
        double out = a == b ? c : c + Math.floor((v - a) * (d - c) / (b - a) + 0.5);
        return (int) Math.max(1, Math.min(127, out));
    }

    private Destination destination(Zone zone, int channel) {
        if (zone.to() instanceof Target.ToPart part) {
            return routing.destination(part.part()).orElse(null);
        }
        String port = routing.instrument(zone.to().instrument())
                .map(instrument -> instrument.port())
                .orElse(null);
        if (port == null) {
            return null;
        }
        return zone.to() instanceof Target.ToChannel bare
                ? new Destination(port, bare.channel())
                : new Destination(port, channel + 1);
    }

    private void pass(Source source, EventKind kind, int message) {
        int number = ShortMessage.data1(message);
        boolean controller = ShortMessage.kind(message) == ShortMessage.CONTROLLER;
        if (controller && (number == 122 || number >= 124)) {
            return;
        }
        List<Destination> reached = new ArrayList<>();
        for (Zone zone : routing.zones()) {
            Destination to = destination(zone, ShortMessage.channel(message));
            if (zone.enabled()
                    && zone.isPlayedBy(source.id())
                    && zone.channels().holds(ShortMessage.channel(message))
                    && zone.pass().contains(kind)
                    && !(controller && zone.blockControllers().contains(number))
                    && to != null
                    && !reached.contains(to)) {
                reached.add(to);
                sent.add(line(
                        to.port(),
                        to.channel(),
                        ShortMessage.onChannel(message, to.channel() - 1),
                        zone.to().instrument()));
            }
        }
    }

    private void release(Key key, int velocity) {
        List<Held> holds = held.remove(key);
        if (holds != null) {
            for (Held hold : holds) {
                boolean other = held.values().stream()
                        .anyMatch(list -> list.stream().anyMatch(it -> it.place.equals(hold.place)));
                if (!other) {
                    stop(hold.place, velocity);
                }
            }
        }
    }

    private void stop(Place place, int velocity) {
        String instrument = sounding.remove(place);
        if (instrument != null) {
            send(place, ShortMessage.NOTE_OFF, velocity, instrument);
        }
    }

    void close() {
        new ArrayList<>(sounding.keySet()).forEach(place -> stop(place, 64));
        held.clear();
    }

    private void send(Place place, int kind, int data2, String instrument) {
        sent.add(line(
                place.port, place.channel, ShortMessage.of(kind, place.channel - 1, place.note, data2), instrument));
    }

    static String line(String port, int channel, int message, String instrument) {
        return instrument + "@" + port + ":" + channel + " " + Integer.toHexString(message);
    }
}
