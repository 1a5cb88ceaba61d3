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

    /** By source and channel, and by destination. */
    private final Map<String, Choice> choices = new LinkedHashMap<>();

    private final Map<Destination, Choice> told = new LinkedHashMap<>();

    /** By source and channel: the coarse half of the value that was sent last. */
    private final Map<String, Integer> data = new LinkedHashMap<>();

    private record Key(String source, int channel, int key) {}

    /** A place that a key holds, and whether key pressure goes there. */
    private record Held(Place place, boolean pressure) {}

    private static final class Note {
        int velocity;
        boolean pressure;
        String instrument;
    }

    /** A pending reset: kinds are bend, modulation, pressure and the pedals, in the order of the resets. */
    private record Debt(String source, int channel, String port, int toChannel, int kind) {}

    private static final List<Integer> PEDALS = List.of(64, 65, 66, 67, 68, 69);
    private final Map<Debt, String> debts = new LinkedHashMap<>();
    final List<String> sent = new ArrayList<>();
    private final Map<Key, List<Held>> held = new LinkedHashMap<>();
    private final Map<Place, String> sounding = new TreeMap<>();
    private final SlotAllocator slots;
    private Routing routing;

    /** A send of a control map: of the scene it belongs to (or ""), its map, and its place among the map's sends. */
    private record SendId(String scene, String map, int number) {}

    /** The state of a send. */
    private static final class Done {
        Integer last;
        Place holds;
        String driver;
        final Map<Destination, String> owes = new LinkedHashMap<>();
        final List<Destination> moved = new ArrayList<>();
    }

    private final Map<SendId, Done> done = new LinkedHashMap<>();

    SlowRouter(SlotAllocator slots) {
        this.slots = slots;
    }

    /** The control maps that hold, each with its scene, in their order. */
    private Map<SendId, ControlMap> active(Routing in) {
        Map<SendId, ControlMap> active = new LinkedHashMap<>();
        if (in == null) {
            return active;
        }
        in.controls().forEach(map -> active.put(new SendId("", map.id(), 0), map));
        in.scene(in.activeScene())
                .ifPresent(scene ->
                        scene.controls().forEach(map -> active.put(new SendId(scene.id(), map.id(), 0), map)));
        active.values()
                .removeIf(map -> !map.enabled()
                        || !map.source().equals("*") && in.source(map.source()).isEmpty());
        return active;
    }

    private Done done(SendId map, int number) {
        return done.computeIfAbsent(new SendId(map.scene, map.map, number), id -> new Done());
    }

    String scene() {
        return routing.activeScene();
    }

    /** Sends the output of edits and scene changes. */
    private void change(Routing next) {
        Routing before = routing;
        routing = next;
        Map<SendId, ControlMap> now = active(next);
        Map<SendId, Predicate<Destination>> leaving = new LinkedHashMap<>();
        Map<SendId, ControlMap.Send> old = new LinkedHashMap<>();
        active(before).forEach((id, map) -> {
            boolean gone = !now.containsKey(id) || !now.get(id).nameless().equals(map.nameless());
            for (int i = 0; i < map.sends().size(); i++) {
                ControlMap.Send send = map.sends().get(i);
                SendId sendId = new SendId(id.scene, id.map, i);
                Done did = done(id, i);
                old.put(sendId, send);
                leaving.put(sendId, to -> gone || !aims(next, send, to));
                if (gone && did.holds != null) {
                    Place place = did.holds;
                    did.holds = null;
                    unhold(place, 64);
                }
            }
        });
        List<Payment> payments = new ArrayList<>();
        debts.keySet().stream().filter(this::isDue).forEach(debt -> payments.add(new Payment(debt)));
        leaving.forEach((id, leaves) -> {
            Done did = done.get(id);
            did.owes.keySet().stream()
                    .filter(leaves)
                    .forEach(to -> payments.add(new Payment(id, to, kindOf(message(old.get(id), 127)))));
        });
        payments.sort(Comparator.naturalOrder());
        payments.forEach(this::payOne);
        record Back(Destination to, int controller, SendId id) {}
        List<Back> back = new ArrayList<>();
        leaving.forEach((id, leaves) -> done.get(id).moved.stream()
                .filter(leaves)
                .forEach(to -> back.add(new Back(to, old.get(id).number(), id))));
        back.sort(Comparator.comparing((Back it) -> it.to.port())
                .thenComparing(it -> it.to.channel())
                .thenComparing(Back::controller));
        for (Back it : back) {
            done.get(it.id).moved.remove(it.to);
            Integer rest = rest(before, old.get(it.id), it.to);
            boolean pedal = PEDALS.contains(it.controller);
            boolean heldDown =
                    pedal && rest != null && rest < 64 && someoneHolds(it.to, kindOf(message(old.get(it.id), 127)));
            if (rest != null && !rest.equals(done.get(it.id).last) && !heldDown) {
                tell(
                        it.to,
                        ShortMessage.controller(it.to.channel() - 1, it.controller, rest),
                        instrument(before, old.get(it.id), it.to));
            }
        }
        active(before).forEach((id, map) -> {
            if (!now.containsKey(id) || !now.get(id).nameless().equals(map.nameless())) {
                for (int i = 0; i < map.sends().size(); i++) {
                    done(id, i).last = null;
                }
            }
        });
    }

    /** A debt of a source or of a send, in the order of payment. */
    private final class Payment implements Comparable<Payment> {
        final Debt debt;
        final SendId send;
        final Destination to;
        final int kind;

        /** Among sends: the order of the file for an edit, that in which they first came where everything ends. */
        int order;

        Payment(Debt debt) {
            this.debt = debt;
            send = null;
            to = new Destination(debt.port, debt.toChannel);
            kind = debt.kind;
        }

        Payment(SendId send, Destination to, int kind) {
            debt = null;
            this.send = send;
            this.to = to;
            this.kind = kind;
        }

        Payment inOrderOfSlots() {
            order = slot(send);
            return this;
        }

        @Override
        public int compareTo(Payment other) {
            return Comparator.comparing((Payment it) -> it.to.port())
                    .thenComparing(it -> it.to.channel())
                    .thenComparing(it -> it.kind)
                    .thenComparing(it -> it.send != null)
                    .thenComparing(it -> it.order)
                    .thenComparing(it -> it.debt == null ? 0 : slots.source(it.debt.source))
                    .thenComparing(it -> it.debt == null ? 0 : it.debt.channel)
                    .compare(this, other);
        }
    }

    private void payOne(Payment payment) {
        if (payment.debt != null) {
            pay(payment.debt);
            return;
        }
        Done did = done.get(payment.send);
        String instrument = did.owes.remove(payment.to);
        did.last = null;
        if (payment.kind < 3 || !someoneHolds(payment.to, payment.kind)) {
            sent.add(line(
                    payment.to.port(),
                    payment.to.channel(),
                    payment(payment.kind, payment.to.channel() - 1),
                    instrument));
        }
    }

    private boolean someoneHolds(Destination to, int kind) {
        boolean send = done.entrySet().stream()
                .anyMatch(entry ->
                        entry.getValue().owes.containsKey(to) && kindOfSend.getOrDefault(entry.getKey(), -1) == kind);
        return send
                || debts.keySet().stream()
                        .anyMatch(it -> it.kind == kind && it.port.equals(to.port()) && it.toChannel == to.channel());
    }

    private final Map<SendId, Integer> kindOfSend = new LinkedHashMap<>();

    /** Returns the targets of a send for an event on a channel, with the instrument of each destination. */
    private Map<Destination, String> aims(Routing in, ControlMap.Send send, int channel) {
        Map<Destination, String> aims = new LinkedHashMap<>();
        boolean mode = send.kind() == ControlKind.CONTROLLER && (send.number() == 122 || send.number() >= 124);
        if (mode || send.to() instanceof SendTarget.ToScene) {
            return aims;
        }
        if (send.to() instanceof ZoneTarget target) {
            Destination to = destination(in, target, channel);
            if (to != null) {
                aims.put(to, target.instrument());
            }
            return aims;
        }
        in.instruments()
                .forEach(instrument -> instrument
                        .parts()
                        .forEach(part -> in.destination(instrument.ref(part))
                                .ifPresent(to -> aims.putIfAbsent(to, instrument.id()))));
        return aims;
    }

    private boolean aims(Routing in, ControlMap.Send send, Destination to) {
        for (int channel = 0; channel < 16; channel++) {
            if (aims(in, send, channel).containsKey(to)) {
                return true;
            }
        }
        return false;
    }

    private String instrument(Routing in, ControlMap.Send send, Destination to) {
        for (int channel = 0; channel < 16; channel++) {
            if (aims(in, send, channel).containsKey(to)) {
                return aims(in, send, channel).get(to);
            }
        }
        throw new AssertionError("moved where it never led");
    }

    private Integer rest(Routing in, ControlMap.Send send, Destination to) {
        if (send.rest() != null || send.number() == 11) {
            return send.rest() != null ? send.rest() : (Integer) 127;
        }
        if (send.to() instanceof ZoneTarget.ToPart part) {
            var sound = in.part(part.part()).orElseThrow().sound();
            return send.number() == 7 ? sound.volume() : send.number() == 10 ? sound.pan() : null;
        }
        if (send.to() instanceof SendTarget.AllParts) {
            for (var instrument : in.instruments()) {
                for (var part : instrument.parts()) {
                    if (in.destination(instrument.ref(part)).filter(to::equals).isPresent()) {
                        return send.number() == 7 ? part.volume() : send.number() == 10 ? part.pan() : null;
                    }
                }
            }
        }
        return null;
    }

    private static int message(ControlMap.Send send, int value) {
        return switch (send.kind()) {
            case CONTROLLER -> ShortMessage.controller(0, send.number(), value);
            case KEY_PRESSURE -> ShortMessage.of(ShortMessage.KEY_PRESSURE, 0, send.number(), value);
            case PITCH_BEND -> ShortMessage.of(ShortMessage.PITCH_BEND, 0, value % 128, value / 128);
            case CHANNEL_PRESSURE -> ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, 0, value, 0);
            case PROGRAM_CHANGE -> ShortMessage.programChange(0, value);
            case RPN, NRPN -> ShortMessage.controller(0, 6, value / 128);
            case CONTROLLER_14 -> ShortMessage.controller(0, send.number(), value / 128);
            case NOTE, SCENE -> ShortMessage.noteOn(0, send.number(), value);
        };
    }

    /** Received selections of parameters by source and channel, and values by controller. */
    private final Map<String, Choice> heardChoices = new LinkedHashMap<>();

    private final Map<String, Map<Integer, Integer>> heardValues = new LinkedHashMap<>();

    private static String player(String source, int message) {
        return source + " " + ShortMessage.channel(message);
    }

    private void hear(String sourceId, int message) {
        Source source = routing.source(sourceId).orElse(null);
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER
                || source == null
                || !source.listen().holds(ShortMessage.channel(message))
                || !source.accept().contains(EventKind.CONTROLLERS)) {
            return;
        }
        String player = player(sourceId, message);
        Map<Integer, Integer> values = heardValues.computeIfAbsent(player, it -> new LinkedHashMap<>());
        Choice before = heardChoices.getOrDefault(player, Choice.NOTHING);
        Choice now = before.after(message);
        heardChoices.put(player, now);
        int number = ShortMessage.data1(message);
        if (!now.equals(before)) {
            values.put(1006, 0);
        } else if (number == 6) {
            values.put(1006, ShortMessage.data2(message));
        }
        values.put(number, ShortMessage.data2(message));
    }

    private boolean answersJoined(ControlMap map, String source, int message) {
        int number = ShortMessage.data1(message);
        Choice chosen = heardChoices.getOrDefault(player(source, message), Choice.NOTHING);
        boolean controller = ShortMessage.kind(message) == ShortMessage.CONTROLLER;
        if (map.when().kind() == ControlKind.CONTROLLER_14) {
            return controller
                    && (number == map.when().number() || number == map.when().number() + 32);
        }
        return controller
                && (number == 6 || number == 38)
                && chosen.isWhole()
                && chosen.nrpn() == (map.when().kind() == ControlKind.NRPN)
                && chosen.coarse() * 128 + chosen.fine() == map.when().number()
                && map.when().number() != 16383;
    }

    /** Returns the value of an event for a matching map; null if its MSB was never received. */
    private Integer value(ControlMap map, String source, int message) {
        int number = ShortMessage.data1(message);
        Map<Integer, Integer> values = heardValues.getOrDefault(player(source, message), Map.of());
        return switch (map.when().kind()) {
            case RPN, NRPN -> values.get(1006) * 128 + (number == 38 ? ShortMessage.data2(message) : 0);
            case CONTROLLER_14 -> {
                Integer coarse = values.get(map.when().number());
                yield coarse == null
                        ? null
                        : (Integer) (coarse * 128 + (number >= 32 ? ShortMessage.data2(message) : 0));
            }
            default -> value(message);
        };
    }

    private boolean answers(ControlMap map, String source, int message) {
        if (map.when().kind() == ControlKind.CONTROLLER_14 || map.when().kind().isParameter()) {
            return map.isPlayedBy(source)
                    && map.channels().holds(ShortMessage.channel(message))
                    && answersJoined(map, source, message);
        }
        boolean number = !map.when().kind().isNumbered() || map.when().number() == ShortMessage.data1(message);
        return map.isPlayedBy(source)
                && map.channels().holds(ShortMessage.channel(message))
                && number
                && switch (ShortMessage.kind(message)) {
                    case ShortMessage.CONTROLLER -> map.when().kind() == ControlKind.CONTROLLER;
                    case ShortMessage.NOTE_ON, ShortMessage.NOTE_OFF ->
                        map.when().kind() == ControlKind.NOTE;
                    case ShortMessage.KEY_PRESSURE -> map.when().kind() == ControlKind.KEY_PRESSURE;
                    case ShortMessage.PITCH_BEND -> map.when().kind() == ControlKind.PITCH_BEND;
                    case ShortMessage.CHANNEL_PRESSURE -> map.when().kind() == ControlKind.CHANNEL_PRESSURE;
                    default -> map.when().kind() == ControlKind.PROGRAM_CHANGE;
                };
    }

    private static int value(int message) {
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.PITCH_BEND -> ShortMessage.data1(message) + 128 * ShortMessage.data2(message);
            case ShortMessage.CHANNEL_PRESSURE, ShortMessage.PROGRAM_CHANGE -> ShortMessage.data1(message);
            case ShortMessage.NOTE_OFF -> 0;
            default -> ShortMessage.data2(message);
        };
    }

    /** The control maps that match an event; none for an event that the gate stops. */
    private Map<SendId, ControlMap> matching(String sourceId, int message) {
        Map<SendId, ControlMap> matching = active(routing);
        Source source = routing.source(sourceId).orElse(null);
        boolean letIn = source != null
                && source.listen().holds(ShortMessage.channel(message))
                && source.accept().contains(EventKind.of(message));
        matching.values().removeIf(map -> !letIn || !answers(map, sourceId, message));
        return matching;
    }

    private boolean isTaken(String source, int message) {
        return matching(source, message).values().stream().anyMatch(map -> !map.keep());
    }

    /** One message of a send that leaves, or a note of it that begins or ends. */
    private record Making(SendId id, ControlMap.Send send, int value) {}

    private String called;

    private List<Making> makings(String source, int message) {
        List<Making> makings = new ArrayList<>();
        called = null;
        boolean off = ShortMessage.endsNote(message);
        matching(source, message).forEach((id, map) -> {
            Integer read = value(map, source, message);
            if (read == null) {
                return;
            }
            int v = read;
            for (int i = 0; i < map.sends().size(); i++) {
                ControlMap.Send send = map.sends().get(i);
                SendId sendId = new SendId(id.scene, id.map, i);
                Done did = done(id, i);
                boolean inside = v >= map.when().low() && v <= map.when().high();
                Integer out;
                if (off) {
                    out = send.kind() == ControlKind.NOTE ? (Integer) 0 : inside ? scaled(map, send, v) : null;
                } else if (inside) {
                    out = scaled(map, send, v);
                } else {
                    int end =
                            v < map.when().low() ? map.when().low() : map.when().high();
                    out = map.ignoreOutside() ? null : (Integer) scaled(map, send, end);
                    out = out != null && out.equals(did.last) ? null : out;
                }
                if (out == null) {
                    continue;
                }
                boolean wasOver = did.last != null && did.last > 0;
                did.last = out;
                did.driver = source;
                if (send.kind() == ControlKind.SCENE) {
                    if (out > 0 && !wasOver) {
                        called = sceneOf(((SendTarget.ToScene) send.to()).scene());
                    }
                } else if (send.kind() != ControlKind.NOTE || out > 0 == (did.holds == null)) {
                    makings.add(new Making(sendId, send, out));
                }
            }
        });
        return makings;
    }

    private String sceneOf(String name) {
        List<String> ids = routing.scenes().stream().map(Scene::id).toList();
        int from = ids.indexOf(called != null ? called : routing.activeScene());
        int to = switch (name) {
            case "next" -> from + 1;
            case "previous" -> from - 1;
            default -> ids.indexOf(name);
        };
        return to >= 0 && to < ids.size() ? ids.get(to) : called;
    }

    private static int scaled(ControlMap map, ControlMap.Send send, int v) {
        double a = map.when().low();
        double b = map.when().high();
        double c = send.first();
        double d = send.last();
        return (int) (a == b ? c : c + Math.floor((v - a) * (d - c) / (b - a) + 0.5));
    }

    private Place notePlace(Making making, int channel) {
        Destination to = destination(routing, (ZoneTarget) making.send.to(), channel);
        return to == null ? null : new Place(to.port(), to.channel(), making.send.number());
    }

    private void make(Making making, int channel) {
        Done did = done.get(making.id);
        if (making.send.kind() == ControlKind.NOTE) {
            Place place = making.value == 0 ? did.holds : notePlace(making, channel);
            did.holds = making.value == 0 ? null : place;
            if (making.value == 0) {
                unhold(place, 64);
            } else if (place != null) {
                stop(place, 64);
                String instrument = ((ZoneTarget) making.send.to()).instrument();
                send(place, ShortMessage.NOTE_ON, making.value, instrument);
                sounding.put(place, instrument);
            }
            return;
        }
        int message = message(making.send, making.value);
        int kind = kindOf(message);
        aims(routing, making.send, channel).forEach((to, instrument) -> {
            if (kind >= 0) {
                did.owes.remove(to);
                kindOfSend.put(making.id, kind);
                if (isRest(message) && kind >= 3 && someoneHolds(to, kind)) {
                    return;
                }
                if (!isRest(message)) {
                    did.owes.put(to, instrument);
                }
            }
            if (making.send.kind() == ControlKind.RPN || making.send.kind() == ControlKind.NRPN) {
                boolean nrpn = making.send.kind() == ControlKind.NRPN;
                Choice choice = new Choice(nrpn, making.send.number() / 128, making.send.number() % 128);
                if (!choice.equals(told.get(to))) {
                    tell(to, ShortMessage.controller(0, nrpn ? 99 : 101, choice.coarse), instrument);
                    tell(to, ShortMessage.controller(0, nrpn ? 98 : 100, choice.fine), instrument);
                }
            }
            tell(to, message, instrument);
            if (making.send.kind() == ControlKind.CONTROLLER_14) {
                tell(to, ShortMessage.controller(0, making.send.number() + 32, making.value % 128), instrument);
            } else if (making.send.kind() == ControlKind.RPN || making.send.kind() == ControlKind.NRPN) {
                tell(to, ShortMessage.controller(0, 38, making.value % 128), instrument);
            }
            if (making.send.kind() == ControlKind.CONTROLLER && !did.moved.contains(to)) {
                did.moved.add(to);
            }
        });
    }

    private void unhold(Place place, int velocity) {
        boolean other = held.values().stream().anyMatch(list -> list.stream().anyMatch(it -> it.place.equals(place)))
                || done.values().stream().anyMatch(it -> place.equals(it.holds));
        if (!other) {
            stop(place, velocity);
        }
    }

    /** Makes a scene active, as an event does. */
    private void callScene(String id) {
        if (!id.equals(routing.activeScene())) {
            change(routing.withScene(id));
            routing.scene(id).orElseThrow().sounds().forEach(this::giveSound);
        }
    }

    /** The last values of each channel: bank 0, bank 32, program, volume and pan, by their indexes. */
    private final Map<String, Integer> given = new LinkedHashMap<>();

    private void giveSound(SceneSound scene) {
        Destination to = routing.destination(scene.part()).orElse(null);
        if (to == null) {
            return;
        }
        remember();
        int channel = to.channel() - 1;
        List<Integer> bank = scene.sound().bank();
        List<Integer> messages = new ArrayList<>();
        boolean newBank = bank != null
                && !(bank.get(0).equals(given.get(to + "0")) && bank.get(1).equals(given.get(to + "32")));
        if (newBank) {
            messages.add(ShortMessage.controller(channel, 0, bank.get(0)));
            messages.add(ShortMessage.controller(channel, 32, bank.get(1)));
        }
        Integer program = scene.sound().program();
        if (program != null && (newBank || !program.equals(given.get(to + "program")))) {
            messages.add(ShortMessage.programChange(channel, program));
        }
        Integer volume = scene.sound().volume();
        if (volume != null && !volume.equals(given.get(to + "7"))) {
            messages.add(ShortMessage.controller(channel, 7, volume));
        }
        Integer pan = scene.sound().pan();
        if (pan != null && !pan.equals(given.get(to + "10"))) {
            messages.add(ShortMessage.controller(channel, 10, pan));
        }
        messages.forEach(message ->
                sent.add(line(to.port(), to.channel(), message, scene.part().instrument())));
        remember();
    }

    private int remembered;

    /** Updates the values of each channel from the output. */
    private void remember() {
        for (; remembered < sent.size(); remembered++) {
            String text = sent.get(remembered);
            String[] words = text.substring(text.indexOf('@') + 1).split("[: ]");
            int message = Integer.parseInt(words[2], 16);
            Destination to = new Destination(words[0], Integer.parseInt(words[1]));
            if (ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE) {
                given.put(to + "program", ShortMessage.data1(message));
            } else if (ShortMessage.kind(message) == ShortMessage.CONTROLLER) {
                given.put(to + "" + ShortMessage.data1(message), ShortMessage.data2(message));
            }
        }
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
                    letGoOfSends(source.id());
                }
            }
        }
        boolean otherScene = routing != null && !routing.activeScene().equals(next.activeScene());
        change(next);
        if (otherScene) {
            next.scene(next.activeScene()).orElseThrow().sounds().forEach(this::giveSound);
        }
        remember();
    }

    /** Sends the resets of a removed source, and releases the effects of its events on sends. */
    private void letGoOfSends(String source) {
        // In the order in which the sends first came.
        done.entrySet().stream()
                .filter(entry -> source.equals(entry.getValue().driver) && entry.getValue().holds != null)
                .sorted(Comparator.comparing(entry -> slot(entry.getKey())))
                .toList()
                .forEach(entry -> {
                    Place place = entry.getValue().holds;
                    entry.getValue().holds = null;
                    unhold(place, 64);
                });
        List<Payment> payments = new ArrayList<>();
        debts.keySet().stream()
                .filter(debt -> debt.source.equals(source))
                .forEach(debt -> payments.add(new Payment(debt)));
        done.forEach((id, did) -> {
            if (source.equals(did.driver)) {
                did.owes.keySet().forEach(to -> payments.add(new Payment(id, to, kindOfSend.get(id)).inOrderOfSlots()));
            }
        });
        payments.sort(Comparator.naturalOrder());
        payments.forEach(this::payOne);
        done.values().stream().filter(did -> source.equals(did.driver)).forEach(did -> did.last = null);
    }

    private int slot(SendId send) {
        return slots.send(send.scene + "/" + send.map + "#" + send.number);
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
        return someoneHolds(new Destination(pedal.port, pedal.toChannel), pedal.kind);
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
                || controller && (number == 122 || number >= 124)
                || isTaken(sourceId, message)) {
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
        hear(sourceId, message);
        Key key = new Key(sourceId, ShortMessage.channel(message), ShortMessage.data1(message));
        boolean ends = ShortMessage.endsNote(message);
        if (ends) {
            boolean on = ShortMessage.kind(message) == ShortMessage.NOTE_ON;
            release(key, on ? 64 : ShortMessage.data2(message));
        } else if (ShortMessage.startsNote(message)) {
            release(key, 64);
            payWhere(this::isDue);
        }
        int owing = kindOf(message);
        if (owing >= 3 && isRest(message)) {
            Map<Destination, String> given = given(sourceId, message);
            payWhere(debt -> debt.kind == owing
                    && debt.source.equals(sourceId)
                    && debt.channel == key.channel
                    && !given.containsKey(new Destination(debt.port, debt.toChannel)));
        }
        String byProgram = sceneByProgram(sourceId, message);
        if (byProgram != null) {
            callScene(byProgram);
        } else {
            boolean taken = isTaken(sourceId, message);
            List<Making> makings = makings(sourceId, message);
            for (Making making : makings) {
                if (making.send.kind() == ControlKind.NOTE && making.value > 0) {
                    Place place = notePlace(making, key.channel);
                    if (place != null) {
                        stop(place, 64);
                    }
                }
            }
            Map<Place, Note> notes = taken || ends ? Map.of() : notes(sourceId, key, message);
            notes.keySet().forEach(place -> stop(place, 64));
            makings.forEach(making -> make(making, key.channel));
            if (!taken && !ends) {
                pass(sourceId, key, message, notes);
            }
            if (called != null) {
                callScene(called);
            }
        }
        payWhere(this::isDue);
        remember();
    }

    private String sceneByProgram(String sourceId, int message) {
        SceneSwitch by = routing.sceneSwitch();
        Source source = routing.source(sourceId).orElse(null);
        if (by == null
                || source == null
                || ShortMessage.kind(message) != ShortMessage.PROGRAM_CHANGE
                || !by.source().equals(sourceId)
                || by.channel() != ShortMessage.channel(message) + 1
                || !source.listen().holds(ShortMessage.channel(message))
                || !source.accept().contains(EventKind.PROGRAM_CHANGE)) {
            return null;
        }
        return routing.scenes().stream()
                .filter(scene -> scene.program() != null && scene.program() == ShortMessage.data1(message))
                .map(Scene::id)
                .findFirst()
                .orElse(null);
    }

    private void pass(String sourceId, Key key, int message, Map<Place, Note> notes) {
        Source source = routing.source(sourceId).orElse(null);
        EventKind kind = EventKind.of(message);
        if (source == null
                || !source.listen().holds(key.channel)
                || !source.accept().contains(kind)) {
            return;
        }
        switch (kind) {
            case NOTES -> noteOn(key, notes);
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
        String player = key.source + " " + key.channel;
        boolean isData = ShortMessage.kind(message) == ShortMessage.CONTROLLER
                && List.of(6, 38, 96, 97).contains(ShortMessage.data1(message));
        Choice chosen = choices.getOrDefault(player, Choice.NOTHING);
        if (isData && chosen.isWhole() && !chosen.equals(told.getOrDefault(to, Choice.NOTHING))) {
            tell(to, ShortMessage.controller(0, chosen.nrpn ? 99 : 101, chosen.coarse), instrument);
            tell(to, ShortMessage.controller(0, chosen.nrpn ? 98 : 100, chosen.fine), instrument);
            if (ShortMessage.data1(message) == 38 && data.containsKey(player)) {
                tell(to, ShortMessage.controller(0, 6, data.get(player)), instrument);
            }
        }
        Choice next = chosen.after(message);
        if (!next.equals(chosen)) {
            data.remove(player);
        }
        choices.put(player, next);
        if (isData && ShortMessage.data1(message) == 6) {
            data.put(player, ShortMessage.data2(message));
        }
        tell(to, message, instrument);
    }

    /** A parameter that is chosen, registered or not; -1 where a half was not said. */
    private record Choice(boolean nrpn, int coarse, int fine) {
        static final Choice NOTHING = new Choice(false, -1, -1);

        boolean isWhole() {
            return coarse >= 0 && fine >= 0;
        }

        Choice after(int message) {
            if (ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
                return this;
            }
            int value = ShortMessage.data2(message);
            return switch (ShortMessage.data1(message)) {
                case 101 -> new Choice(false, value, nrpn ? -1 : fine);
                case 100 -> new Choice(false, nrpn ? -1 : coarse, value);
                case 99 -> new Choice(true, value, nrpn ? fine : -1);
                case 98 -> new Choice(true, nrpn ? coarse : -1, value);
                default -> this;
            };
        }
    }

    private void tell(Destination to, int message, String instrument) {
        told.put(to, told.getOrDefault(to, Choice.NOTHING).after(message));
        sent.add(line(to.port(), to.channel(), ShortMessage.onChannel(message, to.channel() - 1), instrument));
    }

    /** Returns the notes of zones for a note-on that passes the gate. */
    private Map<Place, Note> notes(String sourceId, Key key, int message) {
        Map<Place, Note> notes = new LinkedHashMap<>();
        Source source = routing.source(sourceId).orElse(null);
        if (source == null
                || !ShortMessage.startsNote(message)
                || !source.listen().holds(key.channel)
                || !source.accept().contains(EventKind.NOTES)) {
            return notes;
        }
        int velocity = ShortMessage.data2(message);
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
        return notes;
    }

    private void noteOn(Key key, Map<Place, Note> notes) {
        List<Held> holds = new ArrayList<>();
        notes.forEach((place, note) -> {
            stop(place, 64);
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
        return destination(routing, zone.to(), channel);
    }

    private static Destination destination(Routing in, ZoneTarget target, int channel) {
        if (target instanceof ZoneTarget.ToPart part) {
            return in.destination(part.part()).orElse(null);
        }
        String port = in.instrument(target.instrument())
                .map(instrument -> instrument.port())
                .orElse(null);
        if (port == null) {
            return null;
        }
        return target instanceof ZoneTarget.ToChannel bare
                ? new Destination(port, bare.channel())
                : new Destination(port, channel + 1);
    }

    private void release(Key key, int velocity) {
        List<Held> holds = held.remove(key);
        if (holds != null) {
            for (Held hold : holds) {
                unhold(hold.place, velocity);
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
        List<Payment> payments = new ArrayList<>();
        debts.keySet().forEach(debt -> payments.add(new Payment(debt)));
        done.forEach((id, did) -> {
            did.holds = null;
            did.owes.keySet().forEach(to -> payments.add(new Payment(id, to, kindOfSend.get(id)).inOrderOfSlots()));
        });
        payments.sort(Comparator.naturalOrder());
        payments.forEach(this::payOne);
    }

    private void send(Place place, int kind, int data2, String instrument) {
        sent.add(line(
                place.port, place.channel, ShortMessage.of(kind, place.channel - 1, place.note, data2), instrument));
    }

    static String line(String port, int channel, int message, String instrument) {
        return instrument + "@" + port + ":" + channel + " " + Integer.toHexString(message);
    }
}
