package dibble.programs;

import static dibble.text.CoreText.say;

import dibble.files.SingleLineText;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.gear.StripRef;
import dibble.levels.SoundPlan;
import dibble.levels.StripPlan;
import dibble.midi.PortId;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Performance;
import dibble.session.Session;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * The ports of a session among other applications, by their purpose. A source or an instrument whose port is a {@link
 * PortId.Program} is another application. Immutable.
 *
 * @param notes the MIDI ports
 * @param sound the pairs of sound ports: outputs, then strips
 */
public record OwnPorts(List<NotesPort> notes, List<SoundPair> sound) {
    /** None at all. */
    public static final OwnPorts NONE = new OwnPorts(List.of(), List.of());

    /** As long a name as every server of ports takes, in letters and in bytes, less the side of a pair. */
    private static final int LONGEST = 120;

    private static final int MAX_BYTES = 240;

    public OwnPorts {
        notes = List.copyOf(notes);
        sound = List.copyOf(sound);
    }

    /** Returns true if a port of a session leads to another program. */
    public static boolean isOwn(String port) {
        return PortId.isProgram(port);
    }

    /** The ports of a session, each with a name that no other one has. */
    public static OwnPorts of(Session session, Performance performance) {
        Set<String> names = new HashSet<>();
        SoundPlan plan = SoundPlan.of(session, performance);
        List<NotesPort> notes = new ArrayList<>();
        Map<String, Source> players = new LinkedHashMap<>();
        session.sources().stream()
                .filter(source -> isOwn(source.port()))
                .forEach(source -> players.putIfAbsent(source.port(), source));
        players.forEach((port, source) ->
                notes.add(new NotesPort("in/" + bare(port), free(source.name(), names), true, port, 0, false)));
        Map<String, List<Instrument>> hearers = new LinkedHashMap<>();
        session.instruments().stream()
                .filter(instrument -> isOwn(instrument.port()))
                .forEach(instrument -> hearers.computeIfAbsent(instrument.port(), port -> new ArrayList<>())
                        .add(instrument));
        hearers.forEach((port, instruments) -> notes.addAll(out(session, plan, port, instruments, names)));
        return new OwnPorts(notes, sound(session, plan, names));
    }

    /** The ports of all instruments on one port of the session: those of parts that have their own, then one for the rest. */
    private static List<NotesPort> out(
            Session session, SoundPlan plan, String port, List<Instrument> instruments, Set<String> names) {
        List<NotesPort> ports = new ArrayList<>();
        int alone = 0;
        for (Instrument instrument : instruments) {
            for (Part part : instrument.partPorts() ? instrument.parts() : List.<Part>of()) {
                int channel = channel(plan, instrument.ref(part));
                if (channel != 0) {
                    int mask = 1 << channel - 1 & ~alone;
                    alone |= mask;
                    String id = "out/" + bare(port) + "/" + instrument.id() + "/" + part.id();
                    ports.add(new NotesPort(id, free(part.name(), names), false, port, mask, true));
                }
            }
        }
        boolean hasRest = instruments.stream().anyMatch(it -> !it.partPorts() || isSentBareChannels(session, it));
        if (hasRest) {
            String name = free(instruments.get(0).name(), names);
            ports.add(new NotesPort("out/" + bare(port), name, false, port, NotesPort.ALL & ~alone, false));
        }
        return ports;
    }

    private static int channel(SoundPlan plan, PartRef part) {
        return plan.strips().stream()
                .filter(strip -> strip.ref().equals(StripRef.of(part)))
                .mapToInt(StripPlan::channel)
                .findFirst()
                .orElse(0);
    }

    private static boolean isSentBareChannels(Session session, Instrument instrument) {
        return session.allZones().stream()
                .map(Zone::to)
                .anyMatch(to ->
                        !(to instanceof ZoneTarget.ToPart) && instrument.id().equals(to.instrument()));
    }

    private static List<SoundPair> sound(Session session, SoundPlan plan, Set<String> names) {
        List<StripPlan> heard =
                plan.strips().stream().filter(StripPlan::builtIn).toList();
        Set<Integer> outputs = new TreeSet<>(session.outputs().keySet());
        outputs.add(1);
        heard.forEach(strip -> outputs.add(strip.strip().output()));
        List<SoundPair> pairs = new ArrayList<>();
        for (int number : outputs) {
            String given = session.outputs().getOrDefault(number, "");
            String name = given.isEmpty() ? say("own-ports.output", number) : given;
            pairs.add(new SoundPair("sound/" + number, pair(name, names), number, null, 0, StripRef.ALL));
        }
        for (StripPlan strip : heard) {
            StripRef ref = strip.ref();
            String id =
                    "sound/" + ref.part().instrument() + "/" + ref.part().part() + (ref.isKey() ? "/" + ref.key() : "");
            pairs.add(new SoundPair(id, pair(strip.name(), names), 0, strip.port(), strip.channel(), ref.key()));
        }
        return pairs;
    }

    private static String bare(String port) {
        return ((PortId.Program) PortId.parse(port)).id();
    }

    private static String pair(String name, Set<String> taken) {
        String left = say("own-ports.left", "");
        String named = free(name, taken, left);
        return named.substring(0, named.length() - left.length());
    }

    private static String free(String name, Set<String> taken) {
        return free(name, taken, "");
    }

    /** Returns an unused name, with a number appended if necessary. A colon would end the name of the application. */
    private static String free(String name, Set<String> taken, String side) {
        String plain = SingleLineText.plain(name.replace(':', ' '));
        String base = plain.isEmpty() ? say("own-ports.port") : cut(plain);
        String free = base + side;
        for (int n = 2; !taken.add(free); n++) {
            free = base + " " + n + side;
        }
        return free;
    }

    private static String cut(String name) {
        int letters = Math.min(LONGEST, name.codePointCount(0, name.length()));
        String cut = name.substring(0, name.offsetByCodePoints(0, letters));
        while (cut.getBytes(StandardCharsets.UTF_8).length > MAX_BYTES) {
            letters--;
            cut = name.substring(0, name.offsetByCodePoints(0, letters));
        }
        return cut.strip();
    }
}
