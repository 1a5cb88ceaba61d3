package dibble.studio;

import static dibble.text.CoreText.say;

import dibble.edits.TakeEdits;
import dibble.edits.TrackEdits;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.routing.SlotAllocator;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import dibble.transport.Follower;
import dibble.transport.PlaybackTimebase;
import java.util.List;
import java.util.Set;
import java.util.function.LongUnaryOperator;
import java.util.function.Supplier;

/** The deck of a studio: its tracks and its recorder. Belongs to the thread that edits. */
final class StudioTransport implements TransportActions {
    private final Document document;
    private final Engine engine;
    private final SlotAllocator slots;
    private final Playback playback;
    private final Recorder recorder;
    private final Supplier<Routing> routing;

    /** @param routing the one in force */
    StudioTransport(
            Document document,
            Engine engine,
            SlotAllocator slots,
            Playback playback,
            Recorder recorder,
            Supplier<Routing> routing) {
        this.document = document;
        this.engine = engine;
        this.slots = slots;
        this.playback = playback;
        this.recorder = recorder;
        this.routing = routing;
    }

    @Override
    public long readiness() {
        return playback.readiness();
    }

    @Override
    public void play(PlaybackTimebase course, Set<String> silent, int countIn, boolean click) {
        playback.play(course, silent, countIn, click);
    }

    @Override
    public void playAlong(Follower other, long entry, PlaybackTimebase.Loop loop, Set<String> silent) {
        playback.playAlong(other, entry, loop, silent);
    }

    @Override
    public void setSilent(Set<String> silent) {
        playback.setSilent(silent);
    }

    @Override
    public void change(PlaybackTimebase course) {
        playback.change(course);
    }

    @Override
    public void stop() {
        playback.stop();
    }

    @Override
    public boolean isPlaying() {
        return playback.isPlaying();
    }

    @Override
    public void record(RecordPlan plan, RecordOptions options) {
        List<Track> tracks = prepareTracks();
        recorder.start(
                plan,
                new Recorder.Onwards(
                        options.printing(), tracks, document.performance().armed()),
                inForce(routing.get()));
        mark();
    }

    @Override
    public void recordAlong(PlaybackTimebase course, long now) {
        recorder.along(course, now);
        mark();
    }

    @Override
    public void stopRecording() {
        recorder.stop();
        mark();
    }

    /** Makes a take of unrecorded events. @param tickAt returns the tick of the music at a time of the clock */
    void keepPlayed(LongUnaryOperator tickAt) {
        TempoMap tempo = document.kept().session().tempo();
        List<Track> tracks = prepareTracks();
        recorder.keepPlayed(
                tempo,
                stamp -> tempo.nanos(tickAt.applyAsLong(stamp)),
                tracks,
                document.performance().armed());
        mark();
    }

    /** Passes another routing to the recorder. */
    void routing(Routing next) {
        recorder.routing(inForce(next));
        mark();
    }

    private Recorder.InForce inForce(Routing next) {
        return new Recorder.InForce(slots.sourceIds(), slots.sceneIds(), next);
    }

    /** Marks this place in the order of events for the last request to the recorder. */
    private void mark() {
        engine.submit((router, stamp) -> engine.markForRecorder(router, stamp));
    }

    /** The tracks that are recorded onto; new ones are in the document, and armed. */
    private List<Track> prepareTracks() {
        // A preview is not recorded onto.
        document.cancelGesture();
        Session before = document.kept().session();
        Session with = TrackEdits.addMissingTracks(before);
        Set<String> armed = TakeEdits.armed(with, before, document.performance());
        document.edit(say("studio-deck.new-tracks"), session -> with);
        document.perform(performance -> {
            Performance now = performance;
            for (String id : armed) {
                now = now.withArmed(id, true);
            }
            return now;
        });
        return TrackEdits.readyToRecord(document.kept().session()).tracks();
    }
}
