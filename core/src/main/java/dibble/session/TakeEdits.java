package dibble.session;

import dibble.gear.Ids;
import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.Clips;
import dibble.recording.EventLog;
import dibble.recording.Onto;
import dibble.recording.OpenNotes;
import dibble.recording.Printer;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Sorting;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.routing.Target;
import dibble.routing.Zone;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** What a player does to takes and tracks, as functions from a session to the changed one. */
public final class TakeEdits {
    private TakeEdits() {}

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
        OpenNotes held = new OpenNotes();
        EventLog log = new EventLog();
        for (int i = 0; i < take.log().size(); i++) {
            int message = take.log().message(i);
            int source = take.log().source(i);
            log.copy(take.log(), i);
            if (!take.log().isEcho(i) && ShortMessage.startsNote(message)) {
                held.begin(source, message, i);
            } else if (!take.log().isEcho(i) && ShortMessage.endsNote(message)) {
                held.end(source, message);
            }
        }
        if (held.count() == 0) {
            return take;
        }
        held.endAll((source, off) -> log.add(take.length(), source, off));
        return take.withLog(log);
    }

    /** Keeps a take, printed as it was heard onto the tracks that are armed. */
    public static Session keep(Session session, Performance performance, Take take) {
        Session ready = readyToRecord(session);
        Printer printer = Printer.print(take, ready.tracks(), armed(ready, session, performance));
        return keep(session, take, printer, Onto.INSTEAD);
    }

    /** Keeps a take with the tracks that were printed from it. Who had nothing to play in it keeps what is there. */
    public static Session keep(Session session, Take take, Printer printer, Onto onto) {
        List<Track> printed = new ArrayList<>();
        for (int i = 0; i < printer.tracks().size(); i++) {
            MidiTrack clip = printer.takesSomething(i) ? printer.clip(i, take) : Track.NOTHING;
            if (clip.size() > 0) {
                Track track = present(session, printer.tracks().get(i));
                printed.add(track.withRegions(track.regions().with(region(take, onto, clip))));
            }
        }
        return Edits.keepTake(session, take, printed);
    }

    private static Region region(Take take, Onto onto, MidiTrack clip) {
        long from = take.startTick();
        return new Region(
                take.id(), from, Math.max(from + 1, Math.max(take.endTick(), clip.endTick())), onto, false, clip);
    }

    private static Track present(Session session, Track track) {
        return session.tracks().stream()
                .filter(other -> other.id().equals(track.id()))
                .findFirst()
                .orElse(track);
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

    /**
     * What a track would have if a take were printed again.
     *
     * @param edited whether what it has of the take was edited by hand, which would be lost
     */
    public record Outcome(Track track, int notesNow, int notesThen, boolean edited) {}

    /**
     * For each track what it has and what it would have after another edit.
     *
     * @param again what the edit makes of the session
     * @param id the take that it prints again
     */
    public static List<Outcome> compare(Session session, Session again, String id) {
        List<Outcome> outcomes = new ArrayList<>();
        for (Track then : again.tracks()) {
            Track now = present(session, then);
            boolean there = session.tracks().contains(now);
            boolean edited = there && now.regions().of(id).stream().anyMatch(Region::edited);
            outcomes.add(new Outcome(then, there ? now.noteCount() : 0, then.noteCount(), edited));
        }
        return outcomes;
    }

    /**
     * Prints a take in the place of its regions, and of nothing else. A track that had nothing of it gets it where no
     * later take has replaced what was there; a take that is on no track makes room for itself where it lies.
     */
    private static Session reprint(Session session, Take take) {
        Session ready = readyToRecord(session);
        // Arming is for recording: what is printed again goes onto every track that takes it.
        Set<String> all = ready.tracks().stream().map(Track::id).collect(Collectors.toSet());
        Printer printer = Printer.print(take, ready.tracks(), all);
        boolean isOnTracks = session.tracks().stream()
                .anyMatch(track -> !track.regions().of(take.id()).isEmpty());
        Set<String> later = session.takes().stream()
                .map(Take::id)
                .dropWhile(id -> !id.equals(take.id()))
                .skip(1)
                .collect(Collectors.toSet());
        List<Track> printed = new ArrayList<>();
        for (int i = 0; i < printer.tracks().size(); i++) {
            Track track = printer.tracks().get(i);
            if (printer.takesSomething(i)) {
                MidiTrack clip = printer.clip(i, take);
                Regions regions = track.regions();
                if (!regions.of(take.id()).isEmpty()) {
                    printed.add(track.withRegions(regions.reprinted(take.id(), clip)));
                } else if (clip.size() > 0) {
                    printed.add(track.withRegions(
                            isOnTracks
                                    ? regions.below(later, region(take, Onto.OVER, clip))
                                    : regions.with(region(take, Onto.WITHIN, clip))));
                }
            }
        }
        return Edits.replaceTracks(session, printed);
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
     * What the zones of now make of the takes that a track was printed from, zone by zone, where each take is on it; of a
     * part's track only what leads to that part. What is of no take, or edited by hand, stays together.
     *
     * @param bySource whether the zones of one source are one
     */
    public static Sorting sortingByZone(Session session, Performance performance, Track track, boolean bySource) {
        List<Take> takes = session.takes().stream()
                .filter(take -> !track.regions().of(take.id()).isEmpty())
                .toList();
        if (takes.isEmpty()) {
            return new Sorting(List.of(), "What was played is not there any more: it can be sorted in other ways.");
        }
        List<Zone> zones = session.allZones().stream()
                .filter(zone -> track.playsOn().isEmpty()
                        || zone.to() instanceof Target.ToPart to
                                && to.part().equals(track.playsOn().get()))
                .toList();
        Map<String, MidiTrack> piles = new LinkedHashMap<>();
        Map<String, String> names = new HashMap<>();
        for (Zone zone : zones) {
            String key = bySource ? zone.source() : zone.id();
            piles.put(key, Track.NOTHING);
            names.put(
                    key,
                    bySource
                            ? session.source(zone.source()).map(Source::name).orElse("All sources")
                            : zoneName(session, zone));
        }
        for (Take take : takes) {
            Regions regions = new Regions(track.regions().of(take.id()).stream()
                    .filter(region -> !region.edited())
                    .toList());
            List<MidiTrack> byZone = byZone(zones, routedAgain(session, performance, take));
            for (int i = 0; i < zones.size(); i++) {
                MidiTrack heard = regions.reprinted(take.id(), byZone.get(i)).clip();
                piles.merge(bySource ? zones.get(i).source() : zones.get(i).id(), heard, TakeEdits::joined);
            }
        }
        MidiTrack others = track.regions()
                .ofOthersThan(takes.stream().map(Take::id).toList())
                .clip();
        List<Sorting.Pile> named = new ArrayList<>();
        piles.forEach((key, clip) -> addPile(names.get(key), track, clip, named));
        addPile("Of no take", track, others, named);
        int left = new Sorting.Pile("", others).notes();
        return new Sorting(
                named,
                left == 0
                        ? ""
                        : left + (left == 1 ? " note was" : " notes were")
                                + " edited by hand, or played in a take that is not there any more: by itself.");
    }

    private static List<MidiTrack> byZone(List<Zone> zones, Take take) {
        List<Track> tracks = new ArrayList<>();
        zones.forEach(zone -> tracks.add(Track.of("zone-" + tracks.size(), "", new Track.OfZone(zone.id()))));
        Printer printer =
                Printer.print(take, tracks, tracks.stream().map(Track::id).collect(Collectors.toSet()));
        List<MidiTrack> clips = new ArrayList<>();
        for (int i = 0; i < zones.size(); i++) {
            clips.add(printer.clip(i, take));
        }
        return clips;
    }

    private static MidiTrack joined(MidiTrack first, MidiTrack second) {
        return first.size() == 0 ? second : second.size() == 0 ? first : Clips.over(first, second);
    }

    /** A track of a part has no names of devices between its events. */
    private static void addPile(String name, Track track, MidiTrack clip, List<Sorting.Pile> piles) {
        if (clip.size() > 0) {
            piles.add(new Sorting.Pile(
                    name,
                    track.playsOn().isEmpty()
                            ? clip
                            : Clips.byDevice(clip).values().stream().findFirst().orElse(clip)));
        }
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
                            .withRegions(Regions.own(pile.track())));
                }
            }
        }
        return session.withTracks(tracks);
    }
}
