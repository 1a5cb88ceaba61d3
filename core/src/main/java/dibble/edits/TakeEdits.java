package dibble.edits;

import static dibble.text.CoreText.say;

import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.OpenNotes;
import dibble.recording.PrintMode;
import dibble.recording.Printer;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.text.UserException;
import dibble.work.Progress;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** Edits of takes and tracks, as functions from a session to the changed one. */
public final class TakeEdits {
    private TakeEdits() {}

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
        EventStore log = new EventStore();
        for (int i = 0; i < take.log().size(); i++) {
            int message = take.log().message(i);
            int source = take.log().source(i);
            log.copy(take.log(), i);
            if (!take.log().isEcho(i) && ShortMessage.startsNote(message)) {
                held.begin(source, message, i);
            } else if (ShortMessage.endsNote(message)) {
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
        Session ready = TrackEdits.readyToRecord(session);
        Printer printer = Printer.print(take, ready.tracks(), armed(ready, session, performance));
        return keep(session, take, printer, PrintMode.REPLACE_ALL);
    }

    /** Adds a take with the tracks that were printed from it. Tracks without events in it keep their content. */
    public static Session keep(Session session, Take take, Printer printer, PrintMode onto) {
        List<Track> printed = new ArrayList<>();
        for (int i = 0; i < printer.tracks().size(); i++) {
            MidiTrack clip = printer.takesSomething(i) ? printer.clip(i, take) : Track.NOTHING;
            if (clip.size() > 0) {
                Track track = present(session, printer.tracks().get(i));
                printed.add(track.withRegions(track.regions().with(region(take, onto, clip))));
            }
        }
        return keepTake(session, take, printed);
    }

    private static Region region(Take take, PrintMode onto, MidiTrack clip) {
        long from = take.startTick();
        return new Region(
                take.id(), from, Math.max(from + 1, Math.max(take.endTick(), clip.endTick())), onto, false, clip);
    }

    private static Track present(Session session, Track track) {
        return session.track(track.id()).orElse(track);
    }

    /** Prints an older take onto the tracks again, as it was heard when it was recorded. */
    public static Session choose(Session session, String id) {
        return choose(session, id, Progress.NONE);
    }

    /** The same, for who waits for it. */
    public static Session choose(Session session, String id, Progress progress) {
        return reprint(session, take(session, id), progress);
    }

    /**
     * Prints a take onto the tracks as the routing of now has it: with the zones and control maps of now, and where the
     * scene changed while it was played, in the scenes of the same ids.
     */
    public static Session routeAgain(Session session, Performance performance, String id) {
        return routeAgain(session, performance, id, Progress.NONE);
    }

    /** The same, for who waits for it. */
    public static Session routeAgain(Session session, Performance performance, String id, Progress progress) {
        return reprint(session, routedAgain(session, performance, take(session, id)), progress);
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
     * The content of a track if a take were printed again.
     *
     * @param differs whether any sent event would change, or its time
     * @param edited whether manual edits of the take would be lost
     */
    public record Outcome(Track track, int notesNow, int notesThen, boolean differs, boolean edited) {}

    /**
     * Compares the content of each track before and after an edit.
     *
     * @param again the session after the edit
     * @param id the take that the edit prints again
     */
    public static List<Outcome> compare(Session session, Session again, String id) {
        List<Outcome> outcomes = new ArrayList<>();
        for (Track then : again.tracks()) {
            Track now = present(session, then);
            boolean there = session.tracks().contains(now);
            boolean edited = there && now.regions().isEdited(id);
            MidiTrack before = there ? now.sounding() : Track.NOTHING;
            outcomes.add(new Outcome(
                    then, there ? now.noteCount() : 0, then.noteCount(), !before.equals(then.sounding()), edited));
        }
        return outcomes;
    }

    /**
     * Prints a take over its own regions only. A track without a region of the take gets one where no later take has
     * replaced the content; a take that is on no track replaces the content of its range.
     */
    private static Session reprint(Session session, Take take, Progress progress) {
        Session ready = TrackEdits.readyToRecord(session);
        // Arming applies to recording only: a take that is printed again goes onto every track that takes it.
        Set<String> all = ready.tracks().stream().map(Track::id).collect(Collectors.toSet());
        Printer printer = Printer.print(take, ready.tracks(), all, progress);
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
                } else if (clip.size() > 0 && !isOnTracks) {
                    printed.add(track.withRegions(regions.with(region(take, PrintMode.REPLACE_RANGE, clip))));
                } else if (clip.size() > 0 && !regions.knows(take.id())) {
                    printed.add(track.withRegions(regions.below(later, region(take, PrintMode.OVERDUB, clip))));
                }
            }
        }
        return TrackEdits.replaceTracks(session, printed);
    }

    private static Take take(Session session, String id) {
        return session.takes().stream()
                .filter(take -> take.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new UserException(say("take-edits.no-take", id)));
    }

    /**
     * Gives some notes of a part separate tracks, with the recorded notes. A take with manual edits stays whole on the
     * track of the part.
     */
    public static Session splitKeys(Session session, PartRef ref, Collection<Integer> notes, Progress progress) {
        Track before = session.trackOf(ref).orElse(null);
        Session split = TrackEdits.addKeyTracks(session, ref, notes);
        if (before != null) {
            List<Take> takes = session.takes().stream()
                    .filter(take -> !before.regions().of(take.id()).isEmpty()
                            && !before.regions().isEdited(take.id()))
                    .toList();
            for (int i = 0; i < takes.size(); i++) {
                split = choose(
                        split, takes.get(i).id(), progress.within((double) i / takes.size(), (i + 1.0) / takes.size()));
            }
        }
        return split;
    }

    /** Arms separate tracks for some notes of a part. */
    public static Performance armKeys(
            Session session, Performance performance, PartRef ref, Collection<Integer> notes) {
        Performance armed = performance;
        for (int note : notes) {
            String track = session.trackOf(ref, note).map(Track::id).orElse("");
            armed = track.isEmpty() ? armed : armed.withArmed(track, true);
        }
        return armed;
    }

    /** Deletes a take; the tracks keep its prints. */
    public static Session delete(Session session, String id) {
        return session.withTakes(
                session.takes().stream().filter(take -> !take.id().equals(id)).toList());
    }

    /** Gives a take another name. */
    public static Session rename(Session session, String id, String name) {
        return session.withTakes(session.takes().stream()
                .map(take -> take.id().equals(id) ? take.named(id, name) : take)
                .toList());
    }

    /** Keeps a new take, with the tracks that were printed from it. */
    public static Session keepTake(Session session, Take take, List<Track> printed) {
        return TrackEdits.replaceTracks(session, printed).withTakes(Lists.with(session.takes(), take));
    }

    /** An id and a name for the next take: {@code take-3} and {@code Take 3}. */
    public static String freshTakeId(Session session) {
        int number = session.takes().size() + 1;
        while (hasTake(session, "take-" + number)) {
            number++;
        }
        return "take-" + number;
    }

    /** Returns true if an id is in use, also by a deleted take with a print on a track. */
    private static boolean hasTake(Session session, String id) {
        return session.takes().stream().anyMatch(take -> take.id().equals(id))
                || session.tracks().stream().anyMatch(track -> track.regions().knows(id));
    }
}
