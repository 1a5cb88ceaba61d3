package dibble.desktop.takes;

import dibble.desktop.ui.Words;
import dibble.gear.PartRef;
import dibble.recording.EventLog;
import dibble.recording.NoteSpans;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Target;
import dibble.routing.Zone;
import dibble.session.Document;
import dibble.session.Edits;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What the Takes view says and does. Knows no nodes. */
final class TakesPresenter {
    private final Document document;

    TakesPresenter(Document document) {
        this.document = document;
    }

    private Session session() {
        return document.session();
    }

    /** The tracks as they would be recorded now: those that are there, and those that Record would add. */
    List<Track> tracksToCome() {
        return Edits.addMissingTracks(session()).tracks();
    }

    /** Whether a track takes something when recording; one that Record would add does. */
    boolean isArmed(Track track) {
        boolean there = session().tracks().stream().anyMatch(other -> other.id().equals(track.id()));
        return track.takesRest() || !there || document.performance().armed().contains(track.id());
    }

    /** {@code 2 sources → 3 tracks}, and what would fall to everything else. */
    String plan() {
        List<Track> armedTracks = tracksToCome().stream().filter(this::isArmed).toList();
        Set<PartRef> armed = new HashSet<>();
        armedTracks.stream()
                .filter(track -> !(track.input() instanceof Track.OfKey))
                .forEach(track -> track.part().ifPresent(armed::add));
        List<Zone> zones = session().routing(document.performance()).zones().stream()
                .filter(Zone::enabled)
                .toList();
        Set<String> sources = new HashSet<>();
        Set<PartRef> fed = new HashSet<>();
        Set<PartRef> left = new HashSet<>();
        for (Zone zone : zones) {
            sources.add(zone.source());
            if (zone.to() instanceof Target.ToPart to
                    && session().part(to.part()).isPresent()) {
                (armed.contains(to.part()) ? fed : left).add(to.part());
            }
        }
        if (sources.contains(Zone.ANY_SOURCE)) {
            session().sources().forEach(source -> sources.add(source.id()));
            sources.remove(Zone.ANY_SOURCE);
        }
        long ofKeys = armedTracks.stream()
                .filter(track -> track.input() instanceof Track.OfKey of
                        && (fed.contains(of.part()) || left.contains(of.part())))
                .count();
        String plan = Words.recordPlan(sources.size(), fed.size() + (int) ofKeys);
        return left.isEmpty() ? plan : plan + ", " + Words.count(left.size(), "part") + " to Everything else";
    }

    /** The newest take. */
    Optional<Take> lastTake() {
        List<Take> takes = session().takes();
        return takes.isEmpty() ? Optional.empty() : Optional.of(takes.get(takes.size() - 1));
    }

    void setArmed(Track track, boolean on) {
        document.perform(performance -> performance.withArmed(track.id(), on));
    }

    void setMuted(Track track, boolean on) {
        document.perform(performance -> performance.withMuted(track.id(), on));
    }

    void setSoloed(Track track, boolean on) {
        document.perform(performance -> performance.withSoloed(track.id(), on));
    }

    Performance performance() {
        return document.performance();
    }

    /** The notes of a printed track, in nanoseconds. */
    static NoteSpans spansOf(Track track, TempoMap tempo) {
        EventLog log = new EventLog();
        for (int i = 0; i < track.clip().size(); i++) {
            if (track.clip().isChannelMessage(i)) {
                log.add(tempo.nanos(track.clip().tick(i)), 0, track.clip().message(i));
            }
        }
        NoteSpans spans = new NoteSpans(log, -1);
        spans.update();
        return spans;
    }

    /** How long everything is that was recorded, in nanoseconds. */
    long length() {
        long length = lastTake().map(Take::length).orElse(0L);
        for (Track track : session().tracks()) {
            length = Math.max(length, session().tempo().nanos(track.clip().endTick()));
        }
        return length;
    }
}
