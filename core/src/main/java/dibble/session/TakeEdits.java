package dibble.session;

import dibble.gear.Ids;
import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.Clips;
import dibble.recording.EventLog;
import dibble.recording.Printer;
import dibble.recording.Sorting;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.routing.Target;
import dibble.routing.Zone;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** What a player does to takes and tracks, as functions from a session to the changed one. */
public final class TakeEdits {
    private TakeEdits() {}

    /** What becomes of what the tracks have already, where a take is printed onto them. */
    public enum Onto {
        /** It makes way from the take's start on, where the take has anything for the track. */
        INSTEAD,

        /** It makes way where the take is. */
        WITHIN,

        /** It stays, and the take comes on top. */
        OVER
    }

    /** The session with a track for each part that is fed, and one for everything else: what is recorded onto. */
    public static Session readyToRecord(Session session) {
        Session ready = Edits.addMissingTracks(session);
        if (ready.tracks().stream().anyMatch(Track::takesRest)) {
            return ready;
        }
        List<Track> tracks = new ArrayList<>(ready.tracks());
        tracks.add(Edits.restTrack(ready));
        return ready.withTracks(tracks);
    }

    /** The ids of tracks that are armed, those that a session has and another had not among them. */
    public static Set<String> armed(Session session, Session before, Performance performance) {
        Set<String> armed = new HashSet<>(performance.armed());
        Set<String> known = before.tracks().stream().map(Track::id).collect(Collectors.toSet());
        session.tracks().stream()
                .map(Track::id)
                .filter(id -> !known.contains(id))
                .forEach(armed::add);
        return armed;
    }

    /** A take whose held notes get their offs at its end: one that was cut off has none. */
    public static Take closed(Take take) {
        BitSet held = new BitSet();
        EventLog log = new EventLog();
        for (int i = 0; i < take.log().size(); i++) {
            int message = take.log().message(i);
            log.add(
                    take.log().stamp(i),
                    take.log().source(i),
                    message,
                    take.log().isEcho(i));
            if (ShortMessage.isNote(message) && !take.log().isEcho(i)) {
                held.set(
                        take.log().source(i) << 11 | ShortMessage.channel(message) << 7 | ShortMessage.data1(message),
                        ShortMessage.startsNote(message));
            }
        }
        if (held.isEmpty()) {
            return take;
        }
        held.stream()
                .forEach(key -> log.add(
                        take.length(),
                        key >>> 11,
                        ShortMessage.noteOff(key >>> 7 & 0xF, key & 0x7F, ShortMessage.DEFAULT_RELEASE)));
        return new Take(take.id(), take.name(), take.sources(), log, take.marks(), take.length(), take.start());
    }

    /** Keeps a take, printed as it was heard onto the tracks that are armed. */
    public static Session keep(Session session, Performance performance, Take take) {
        Session ready = readyToRecord(session);
        Printer printer = Printer.print(take, ready.tracks(), armed(ready, session, performance));
        return keep(session, take, printer, Onto.INSTEAD);
    }

    /** Keeps a take with the tracks that were printed from it. */
    public static Session keep(Session session, Take take, Printer printer, Onto onto) {
        return Edits.keepTake(session, take, printed(session, take, printer, onto));
    }

    private static List<Track> printed(Session session, Take take, Printer printer, Onto onto) {
        List<Track> printed = new ArrayList<>();
        for (int i = 0; i < printer.tracks().size(); i++) {
            Track track = printer.tracks().get(i);
            if (printer.takesSomething(i)) {
                MidiTrack clip = printer.clip(i, session.tempo(), take.start());
                Track now = session.tracks().stream()
                        .filter(other -> other.id().equals(track.id()))
                        .findFirst()
                        .orElse(null);
                // Who had nothing to play in this take keeps what is there of another.
                boolean untouched = now != null
                        && clip.size() == 0
                        && now.printedFrom() != null
                        && !now.printedFrom().equals(take.id());
                if (untouched) {
                    continue;
                }
                if (now != null) {
                    printed.add(now.withClip(brought(now.clip(), clip, session, take, onto), take.id()));
                } else if (clip.size() > 0) {
                    printed.add(track.withClip(clip, take.id()));
                }
            }
        }
        return printed;
    }

    private static MidiTrack brought(MidiTrack before, MidiTrack clip, Session session, Take take, Onto onto) {
        long from = session.tempo().ticks(take.start());
        long to = session.tempo().ticks(take.end());
        MidiTrack stays = switch (onto) {
            case INSTEAD -> from == 0 ? Track.NOTHING : Clips.without(before, from, Long.MAX_VALUE);
            case WITHIN -> to > from ? Clips.without(before, from, to) : before;
            case OVER -> before;
        };
        return stays.size() == 0 ? clip : clip.size() == 0 ? stays : Clips.over(stays, clip);
    }

    /** Prints an older take onto the tracks again, as it was heard when it was recorded. */
    public static Session choose(Session session, String id) {
        return reprint(session, take(session, id));
    }

    /**
     * Prints a take onto the tracks as the routing of now has it: with the zones and control maps of now, and where the
     * scene changed while it was played, in the scenes of the same ids.
     */
    public static Session routeAgain(Session session, Performance performance, String id) {
        return reprint(session, routedAgain(session, performance, take(session, id)));
    }

    /** The take with the routing of now in force. */
    public static Take routedAgain(Session session, Performance performance, Take take) {
        Routing now = session.routing(performance);
        List<Take.Mark> marks = new ArrayList<>();
        String scene = null;
        for (Take.Mark mark : take.marks()) {
            String played = mark.routing().activeScene();
            boolean there = played != null && session.scene(played).isPresent();
            String next = there ? played : now.activeScene();
            if (marks.isEmpty() || !java.util.Objects.equals(next, scene)) {
                scene = next;
                marks.add(new Take.Mark(mark.position(), mark.stamp(), next == null ? now : now.withScene(next)));
            }
        }
        if (marks.isEmpty()) {
            marks.add(new Take.Mark(0, 0, now));
        }
        return take.withMarks(marks);
    }

    /** What a track would have of a take. */
    public record Outcome(Track track, int notesNow, int notesThen) {}

    /** For each track what it has and what it would have if a take were printed again with the routing of now. */
    public static List<Outcome> compare(Session session, Performance performance, String id) {
        Session again = routeAgain(session, performance, id);
        List<Outcome> outcomes = new ArrayList<>();
        for (Track then : again.tracks()) {
            int now = session.tracks().stream()
                    .filter(track -> track.id().equals(then.id()))
                    .mapToInt(Track::noteCount)
                    .sum();
            outcomes.add(new Outcome(then, now, then.noteCount()));
        }
        return outcomes;
    }

    private static Session reprint(Session session, Take take) {
        Session ready = readyToRecord(session);
        // Arming is for recording: what is printed again goes onto every track that takes it.
        Set<String> all = ready.tracks().stream().map(Track::id).collect(Collectors.toSet());
        Printer printer = Printer.print(take, ready.tracks(), all);
        List<Track> printed = printed(session, take, printer, Onto.INSTEAD);
        Session without = session.withTakes(session.takes().stream()
                .filter(other -> !other.id().equals(take.id()))
                .toList());
        return Edits.keepTake(without, take(session, take.id()), printed).withTakes(session.takes());
    }

    private static Take take(Session session, String id) {
        return session.takes().stream()
                .filter(take -> take.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no take " + id));
    }

    /** Takes a take out; the tracks keep what was printed from it. */
    public static Session delete(Session session, String id) {
        return session.withTakes(
                session.takes().stream().filter(take -> !take.id().equals(id)).toList());
    }

    public static Session rename(Session session, String id, String name) {
        return session.withTakes(session.takes().stream()
                .map(take -> take.id().equals(id) ? take.named(id, name) : take)
                .toList());
    }

    /** Adds a track before the one for everything else. */
    public static Session addTrack(Session session, String id, String name, Track.Input input) {
        List<Track> tracks = new ArrayList<>(session.tracks());
        int last = tracks.size() - 1;
        tracks.add(last >= 0 && tracks.get(last).takesRest() ? last : tracks.size(), Track.of(id, name, input));
        return session.withTracks(tracks);
    }

    /** Takes a track out, with what is on it. */
    public static Session deleteTrack(Session session, String id) {
        return session.withTracks(session.tracks().stream()
                .filter(track -> !track.id().equals(id))
                .toList());
    }

    public static Session renameTrack(Session session, String id, String name) {
        return session.withTracks(session.tracks().stream()
                .map(track -> track.id().equals(id) ? track.withName(name) : track)
                .toList());
    }

    /** Moves a track up (-1) or down (1) among the others. */
    public static Session moveTrack(Session session, String id, int by) {
        return session.withTracks(
                Edits.moved(session.tracks(), track -> track.id().equals(id), by));
    }

    /** A track's notes sorted; where it is for several instruments, those of each by themselves. */
    public static Sorting sorting(Session session, Track track, Sorting.How how) {
        if (!track.takesSeveral()) {
            return Sorting.of(track.clip(), how);
        }
        List<Sorting.Pile> piles = new ArrayList<>();
        String warning = "";
        Map<String, MidiTrack> devices = Clips.byDevice(track.clip());
        for (Map.Entry<String, MidiTrack> device : devices.entrySet()) {
            Sorting sorting = Sorting.of(device.getValue(), how);
            String name =
                    session.instrument(device.getKey()).map(Instrument::name).orElse(device.getKey());
            for (Sorting.Pile pile : sorting.piles()) {
                piles.add(new Sorting.Pile(
                        devices.size() == 1 ? pile.name() : name + ", " + pile.name(),
                        Clips.forDevice(device.getKey(), pile.track())));
            }
            warning = warning.isEmpty() ? sorting.warning() : warning;
        }
        return new Sorting(piles, warning);
    }

    /**
     * What the zones of now make of the take that a track was printed from, zone by zone; of a part's track only what
     * leads to that part.
     *
     * @param bySource whether the zones of one source are one
     */
    public static Sorting sortingByZone(Session session, Performance performance, Track track, boolean bySource) {
        Optional<Take> take = session.takes().stream()
                .filter(it -> it.id().equals(track.printedFrom()))
                .findFirst();
        if (take.isEmpty()) {
            return new Sorting(List.of(), "What was played is not there any more: it can be sorted in other ways.");
        }
        List<Zone> zones = session.allZones().stream()
                .filter(zone -> track.playsOn().isEmpty()
                        || zone.to() instanceof Target.ToPart to
                                && to.part().equals(track.playsOn().get()))
                .toList();
        List<Track> tracks = new ArrayList<>();
        zones.forEach(zone -> tracks.add(Track.of("zone-" + tracks.size(), "", new Track.OfZone(zone.id()))));
        Printer printer = Printer.print(
                routedAgain(session, performance, take.get()),
                tracks,
                tracks.stream().map(Track::id).collect(Collectors.toSet()));
        Map<String, MidiTrack> piles = new LinkedHashMap<>();
        Map<String, String> names = new HashMap<>();
        for (int i = 0; i < zones.size(); i++) {
            MidiTrack clip = printer.clip(i, session.tempo(), take.get().start());
            Zone zone = zones.get(i);
            String key = bySource ? zone.source() : zone.id();
            names.put(
                    key,
                    bySource
                            ? session.source(zone.source()).map(Source::name).orElse("All sources")
                            : zoneName(session, zone));
            if (clip.size() > 0) {
                piles.merge(key, clip, Clips::over);
            }
        }
        List<Sorting.Pile> named = new ArrayList<>();
        piles.forEach((key, clip) -> named.add(new Sorting.Pile(
                names.get(key),
                track.playsOn().isEmpty()
                        ? clip
                        : Clips.byDevice(clip).values().stream().findFirst().orElse(clip))));
        return new Sorting(named, "");
    }

    private static String zoneName(Session session, Zone zone) {
        String name = zone.name().isEmpty() ? zone.id() : zone.name();
        return session.sceneOf(zone.id())
                .map(scene -> name + ", " + scene.name())
                .orElse(name);
    }

    /** Adds the tracks that come of sorting another behind it. They take nothing, and are played where that one is. */
    public static Session sort(Session session, Track track, Sorting sorting) {
        List<Track> tracks = new ArrayList<>();
        for (Track other : session.tracks()) {
            tracks.add(other);
            if (other.id().equals(track.id())) {
                for (Sorting.Pile pile : sorting.piles()) {
                    String name = track.name() + ", " + pile.name();
                    String id = Ids.fresh(
                            name,
                            taken -> session.tracks().stream()
                                            .anyMatch(it -> it.id().equals(taken))
                                    || tracks.stream().anyMatch(it -> it.id().equals(taken)));
                    tracks.add(Track.of(id, name, new Track.Nothing())
                            .withTo(track.playsOn().orElse(null))
                            .withClip(pile.track(), track.printedFrom()));
                }
            }
        }
        return session.withTracks(tracks);
    }
}
