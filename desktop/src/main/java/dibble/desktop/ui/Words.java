package dibble.desktop.ui;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.ports.MachineDevices;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.routing.Target;
import dibble.routing.Zone;
import dibble.session.Session;
import dibble.standins.StandIns;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** How things are said in the interface, in one place. Imports no nodes. */
public final class Words {
    private static final String LOOPER = "Clover looper";

    private Words() {}

    /** {@code F3–C6}. */
    public static String keys(Range keys, MiddleC middleC) {
        return NoteNames.name(keys.low(), middleC) + "–" + NoteNames.name(keys.high(), middleC);
    }

    /** {@code ↑12}, {@code ↓7}, or nothing for 0. */
    public static String transpose(int semitones) {
        return semitones == 0 ? "" : semitones > 0 ? "↑" + semitones : "↓" + -semitones;
    }

    /** What a source lets in: {@code lets in all channels}. */
    public static String letIn(Source source) {
        if (source.listen().isAll()) {
            return "lets in all channels";
        }
        List<Integer> numbers = source.listen().numbers();
        return numbers.isEmpty()
                ? "lets in nothing"
                : (numbers.size() == 1 ? "channel " : "channels ")
                        + numbers.stream().map(String::valueOf).collect(Collectors.joining(" "));
    }

    /** The name of a zone: its own, else its part's, else what it points to. */
    public static String zone(Zone zone, Session session) {
        return zone.name().isEmpty() ? target(zone.to(), session) : zone.name();
    }

    /** Where a zone leads. */
    public static String target(Target target, Session session) {
        if (target instanceof Target.ToPart to) {
            return session.part(to.part()).map(Part::name).orElse("no such part: " + to.part());
        }
        String instrument =
                session.instrument(target.instrument()).map(Instrument::name).orElse(target.instrument());
        return target instanceof Target.ToChannel to ? instrument + " " + to.channel() : instrument + ", same channel";
    }

    /** The colour 1-16 of what a zone leads to; 0 where it is no part. */
    public static int colour(Zone zone, Session session) {
        return session.partOf(zone).map(Part::colour).orElse(0);
    }

    /** The channel of a part as it is on a chip: its number, or a dash. */
    public static String channel(PartRef part, Routing routing) {
        var channel = routing.channels().channel(part);
        return channel.isPresent() ? String.valueOf(channel.getAsInt()) : "–";
    }

    /** {@code 4 sources → 7 tracks}. */
    public static String recordPlan(int sources, int tracks) {
        return count(sources, "source") + " → " + count(tracks, "track");
    }

    /** What a port is called: a stand-in by the gear that it stands in for, a port of the machine by its name there. */
    public static String port(String port, Session session) {
        if (port.startsWith(MachineDevices.PREFIX)) {
            return port.substring(MachineDevices.PREFIX.length());
        }
        if (!port.startsWith(StandIns.PREFIX)) {
            return port;
        }
        Stream<String> sources = session.sources().stream()
                .filter(source -> source.port().equals(port))
                .map(Source::name);
        Stream<String> instruments = session.instruments().stream()
                .filter(instrument -> instrument.port().equals(port))
                .map(Instrument::name);
        String bare = port.substring(StandIns.PREFIX.length());
        return Stream.concat(sources, instruments).findFirst().orElse(port.equals(StandIns.LOOPER) ? LOOPER : bare);
    }

    /** The same in a list of ports of all kinds. */
    public static String portInList(String port, Session session) {
        return port(port, session) + (port.startsWith(StandIns.PREFIX) ? " (stand-in)" : "");
    }

    public static String count(int number, String what) {
        return number + " " + what + (number == 1 ? "" : "s");
    }

    /** Who plays what a track takes: {@code Larkspur 73 E1–F3, Tansy 32 F3–C6}. */
    public static String playedBy(Track track, Session session, List<Zone> zones) {
        if (track.takesRest()) {
            return "what no track takes";
        }
        if (track.input() instanceof Track.OfKey of) {
            return "only " + NoteNames.nameAndNumber(of.key(), session.middleC()) + " of "
                    + session.part(of.part()).map(Part::name).orElse(of.part().toString());
        }
        String players = track.part().stream()
                .flatMap(part -> zones.stream()
                        .filter(zone -> zone.enabled()
                                && zone.to() instanceof Target.ToPart to
                                && to.part().equals(part)))
                .map(zone -> session.source(zone.source()).map(Source::name).orElse("all sources") + " "
                        + keys(zone.keys(), session.middleC()))
                .collect(Collectors.joining(", "));
        return players.isEmpty() ? "nothing plays it now" : players;
    }
}
