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
import java.util.function.Predicate;

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

    /** Who owes what where: kinds are bend, modulation, pressure and the pedals, in the order of payment. */
    private record Debt(String source, int channel, String port, int toChannel, int kind) {}

    private static final List<Integer> PEDALS = List.of(64, 66, 67);
    private final Map<Debt, String> debts = new LinkedHashMap<>();
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
                    payWhere(debt -> debt.source.equals(source.id()));
                }
            }
        }
        routing = next;
        payWhere(this::isDue);
    }

    private void payWhere(Predicate<Debt> which) {
        debts.keySet().stream()
                .filter(which)
                .sorted(Comparator.comparing(Debt::port)
                        .thenComparing(Debt::toChannel)
                        .thenComparing(Debt::kind)
                        .thenComparing(debt -> slots.source(debt.source))
                        .thenComparing(Debt::channel))
                .toList()
                .forEach(this::pay);
    }

    private void pay(Debt debt) {
        String instrument = debts.remove(debt);
        if (debt.kind < 3 || !someoneOwes(debt)) {
            sent.add(line(debt.port, debt.toChannel, payment(debt.kind, debt.toChannel - 1), instrument));
        }
    }

    private boolean someoneOwes(Debt pedal) {
        return debts.keySet().stream()
                .anyMatch(it -> it.kind == pedal.kind && it.port.equals(pedal.port) && it.toChannel == pedal.toChannel);
    }

    private static int payment(int kind, int channel) {
        return switch (kind) {
            case 0 -> ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, 64);
            case 1 -> ShortMessage.controller(channel, 1, 0);
            case 2 -> ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, channel, 0, 0);
            default -> ShortMessage.controller(channel, PEDALS.get(kind - 3), 0);
        };
    }

    /** A wheel's debt is due where the wheel does not reach, and its player holds no note and no pedal there. */
    private boolean isDue(Debt debt) {
        if (debt.kind >= 3) {
            return false;
        }
        boolean pedal = debts.keySet().stream()
                .anyMatch(it -> it.kind >= 3
                        && it.source.equals(debt.source)
                        && it.channel == debt.channel
                        && it.port.equals(debt.port)
                        && it.toChannel == debt.toChannel);
        boolean note = held.entrySet().stream()
                .anyMatch(entry -> entry.getKey().source.equals(debt.source)
                        && entry.getKey().channel == debt.channel
                        && entry.getValue().stream()
                                .anyMatch(it -> it.place.port.equals(debt.port) && it.place.channel == debt.toChannel));
        return !pedal
                && !note
                && !given(debt.source, payment(debt.kind, debt.channel))
                        .containsKey(new Destination(debt.port, debt.toChannel));
    }

    /** The destinations to which zones give a message now, in their order, with their instruments. */
    private Map<Destination, String> given(String sourceId, int message) {
        Map<Destination, String> given = new LinkedHashMap<>();
        EventKind kind = EventKind.of(message);
        int channel = ShortMessage.channel(message);
        Source source = routing.source(sourceId).orElse(null);
        int number = ShortMessage.data1(message);
        boolean controller = ShortMessage.kind(message) == ShortMessage.CONTROLLER;
        if (source == null
                || !source.listen().holds(channel)
                || !source.accept().contains(kind)
                || controller && (number == 122 || number >= 124)) {
            return given;
        }
        for (Zone zone : routing.zones()) {
            Destination to = destination(zone, channel);
            if (zone.enabled()
                    && zone.isPlayedBy(sourceId)
                    && zone.channels().holds(channel)
                    && zone.pass().contains(kind)
                    && !(controller && zone.blockControllers().contains(number))
                    && to != null) {
                given.putIfAbsent(to, zone.to().instrument());
            }
        }
        return given;
    }

    private static int kindOf(int message) {
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.PITCH_BEND -> 0;
            case ShortMessage.CHANNEL_PRESSURE -> 2;
            case ShortMessage.CONTROLLER ->
                ShortMessage.data1(message) == 1
                        ? 1
                        : PEDALS.contains(ShortMessage.data1(message))
                                ? 3 + PEDALS.indexOf(ShortMessage.data1(message))
                                : -1;
            default -> -1;
        };
    }

    private static boolean isRest(int message) {
        int kind = kindOf(message);
        return kind >= 3 ? ShortMessage.data2(message) < 64 : ShortMessage.onChannel(message, 0) == payment(kind, 0);
    }

    void event(String sourceId, int message) {
        Key key = new Key(sourceId, ShortMessage.channel(message), ShortMessage.data1(message));
        if (ShortMessage.endsNote(message)) {
            boolean on = ShortMessage.kind(message) == ShortMessage.NOTE_ON;
            release(key, on ? 64 : ShortMessage.data2(message));
        } else {
            if (ShortMessage.startsNote(message)) {
                release(key, 64);
            }
            int owing = kindOf(message);
            if (owing >= 3 && isRest(message)) {
                Map<Destination, String> given = given(sourceId, message);
                payWhere(debt -> debt.kind == owing
                        && debt.source.equals(sourceId)
                        && debt.channel == key.channel
                        && !given.containsKey(new Destination(debt.port, debt.toChannel)));
            }
            pass(sourceId, key, message);
        }
        payWhere(this::isDue);
    }

    private void pass(String sourceId, Key key, int message) {
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
            default -> given(sourceId, message).forEach((to, instrument) -> give(key, to, instrument, message));
        }
    }

    private void give(Key key, Destination to, String instrument, int message) {
        int kind = kindOf(message);
        if (kind >= 0) {
            Debt debt = new Debt(key.source, key.channel, to.port(), to.channel(), kind);
            debts.remove(debt);
            if (!isRest(message)) {
                debts.put(debt, instrument);
            } else if (kind >= 3 && someoneOwes(debt)) {
                return;
            }
        }
        sent.add(line(to.port(), to.channel(), ShortMessage.onChannel(message, to.channel() - 1), instrument));
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
        payWhere(debt -> true);
    }

    private void send(Place place, int kind, int data2, String instrument) {
        sent.add(line(
                place.port, place.channel, ShortMessage.of(kind, place.channel - 1, place.note, data2), instrument));
    }

    static String line(String port, int channel, int message, String instrument) {
        return instrument + "@" + port + ":" + channel + " " + Integer.toHexString(message);
    }
}
