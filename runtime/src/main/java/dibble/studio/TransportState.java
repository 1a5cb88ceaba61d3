package dibble.studio;

import static dibble.text.CoreText.say;

import dibble.recording.PrintMode;
import dibble.recording.Track;
import dibble.session.Document;
import dibble.session.Session;
import dibble.time.Clock;
import dibble.time.TempoMap;
import dibble.transport.Click;
import dibble.transport.ClockFollower;
import dibble.transport.Follower;
import dibble.transport.PlaybackTimebase;
import dibble.transport.ServerTransport;
import dibble.transport.TransportFollower;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;

/**
 * The state machine of the transport: stopped, waiting for an external clock, playing, or recording. Independent of
 * ports and threads: it calls {@link TransportActions}. Confined to the editing thread.
 */
final class TransportState {
    /** Tempos that differ less, in quarter notes a minute, are one, unevenly sent. */
    private static final double TEMPO_APART = 1;

    private static final double SLOWEST = 20;
    private static final double FASTEST = 300;

    /** A state of the transport. */
    private sealed interface State {}

    /** Nothing moves. */
    private record Resting() implements State {}

    /** A recording begins when the clock that is followed does. */
    private record Waiting() implements State {}

    /** Tracks play, along a course or, where that is null, along the clock that is followed. */
    private record Playing(PlaybackTimebase course) implements State {}

    /**
     * Something is recorded, or is about to be; tracks play meanwhile.
     *
     * @param stopping whether its end was asked for, and its take is not there yet
     */
    private record Recording(PlaybackTimebase course, RecordPlan plan, boolean stopping) implements State {
        Recording stopped() {
            return new Recording(course, plan, true);
        }
    }

    private final Clock clock;
    private final Document document;
    private final TransportActions deck;
    private State state = new Resting();
    private RecordOptions options = RecordOptions.PLAIN;
    private TempoMap tempo;

    /** The start position of playback and recording, in nanoseconds of the session. */
    private long place;

    /** The clock that is followed, and the port that it comes from; null for none. */
    private Follower follower;

    private String followed;
    private boolean otherRan;

    /** True until a recording begins, where it silences the tracks that it replaces. */
    private boolean silencesReplaced;

    private final TransportHistory history = new TransportHistory();

    TransportState(Clock clock, Document document, TransportActions deck) {
        this.clock = clock;
        this.document = document;
        this.deck = deck;
        tempo = document.session().tempo();
    }

    private Session session() {
        return document.session();
    }

    Transport transport() {
        if (state instanceof Recording) {
            return Transport.RECORDING;
        }
        return state instanceof Playing ? Transport.PLAYING : Transport.STOPPED;
    }

    /** Returns true if a recording waits for the clock that is followed to start. */
    boolean waitsToRecord() {
        return state instanceof Waiting;
    }

    RecordOptions options() {
        return options;
    }

    /** Sets the options for recording and playback; a loop that is set during playback applies at once. */
    void setOptions(RecordOptions next) {
        options = next;
        if (state instanceof Playing playing
                && playing.course != null
                && !Objects.equals(playing.course.loop(), loop())) {
            long now = clock.nanos();
            PlaybackTimebase course = course(playing.course.position(now), now);
            deck.change(course);
            become(new Playing(course));
        }
    }

    /** Returns the start position of playback and recording, in nanoseconds of the session. */
    long place() {
        return place;
    }

    /** The tempo of the clock that is followed, in quarter notes a minute; 0 where there is none. */
    double followedTempo() {
        return follower == null ? 0 : follower.bpm();
    }

    /** Enters a state; every change of the transport passes here, so that its history is whole. */
    private void become(State next) {
        state = next;
        long now = clock.nanos();
        boolean moves = next instanceof Playing || next instanceof Recording;
        if (!moves) {
            history.rests(now);
        } else if (course() != null) {
            history.moves(now, course());
        } else {
            history.moves(now, PlaybackTimebase.of(follower.tempo(), follower.nanos(), now));
        }
    }

    /** Returns the tick at which the music was at a time of the clock; the tick of the playhead where it stood still. */
    long tickAt(long stamp) {
        return history.tickAt(stamp).orElseGet(() -> tempo.ticks(place));
    }

    private PlaybackTimebase course() {
        return state instanceof Playing playing
                ? playing.course
                : state instanceof Recording recording ? recording.course : null;
    }

    /** Returns the position, in nanoseconds of the session. */
    long position() {
        if (!(state instanceof Playing) && !(state instanceof Recording)) {
            return place;
        }
        return course() == null ? follower.nanos() : course().position(clock.nanos());
    }

    /** Returns the remaining count-in in nanoseconds; 0 for none. */
    long countsIn() {
        return state instanceof Recording && course() != null ? Math.max(0, course().at() - clock.nanos()) : 0;
    }

    private PlaybackTimebase.Loop loop() {
        return options.isLooping()
                ? new PlaybackTimebase.Loop(
                        options.range().from(), options.range().to())
                : null;
    }

    /** A course from a place on; one that is behind the loop begins with it. */
    private PlaybackTimebase course(long from, long at) {
        PlaybackTimebase.Loop loop = loop();
        boolean behind = loop != null && from >= tempo.nanos(loop.to());
        return new PlaybackTimebase(tempo, behind ? tempo.nanos(loop.from()) : from, at, loop);
    }

    /** Plays the tracks from a place; along the clock that is followed, from where that is. */
    void play(long from) {
        if (state instanceof Playing || state instanceof Recording) {
            return;
        }
        if (follower != null && follower.isRunning()) {
            playAlong(follower.nanos());
        } else {
            PlaybackTimebase course = course(from, clock.nanos() + deck.readiness());
            deck.play(course, Set.of(), 0, options.click());
            become(new Playing(course));
        }
    }

    /** @param entry the start of the other where that was waited for, however late it is noticed; else the present */
    private void playAlong(long entry) {
        deck.playAlong(follower, entry, loop(), Set.of());
        become(new Playing(null));
    }

    /** Starts to record; while it plays, from where it is. */
    void record() {
        if (state instanceof Recording) {
            return;
        }
        boolean others = follower != null && follower.isRunning();
        if (follower != null && !others) {
            deck.stop();
            become(state instanceof Waiting ? new Resting() : new Waiting());
        } else if (others) {
            recordAlong(false);
        } else if (state instanceof Playing playing && canPunchIn(playing.course)) {
            punchIn(playing.course);
        } else {
            recordFromThePlace();
        }
    }

    private boolean canPunchIn(PlaybackTimebase course) {
        return !options.isPunching()
                || course.position(clock.nanos()) < tempo.nanos(options.range().to());
    }

    private void punchIn(PlaybackTimebase course) {
        long now = clock.nanos();
        long from = course.position(now);
        int pass = course.pass(now);
        if (options.isPunching()) {
            long begins = Math.max(from, tempo.nanos(options.range().from()));
            begin(course, RecordPlan.along(course, begins, pass, options.range().to(), false, 0));
        } else if (course.loop() != null) {
            begin(course, RecordPlan.along(course, from, pass, course.loop().to(), true, 0));
        } else {
            begin(course, RecordPlan.along(course, from, pass, RecordPlan.OPEN, false, 0));
        }
        silenceReplaced();
    }

    private void recordFromThePlace() {
        deck.stop();
        boolean punches = options.isPunching();
        boolean ranged = punches || options.isLooping();
        long from = ranged ? tempo.nanos(options.range().from()) : place;
        // On the way to a punch-in one hears what leads there.
        long playFrom = punches ? Math.min(place, from) : from;
        long lead = Click.countIn(tempo, tempo.ticks(playFrom), options.countIn());
        PlaybackTimebase course = course(playFrom, clock.nanos() + lead + deck.readiness());
        long endTick = ranged ? options.range().to() : RecordPlan.OPEN;
        // A player who hears a beat before the start may be slightly early; without one, the recording starts at once.
        long early = options.countIn() > 0 || playFrom < from ? early(from) : 0;
        begin(course, RecordPlan.along(course, from, 0, endTick, options.isLooping(), early));
        silencesReplaced = playFrom < from;
        Set<String> silent = silencesReplaced ? Set.of() : silentWhileRecording();
        deck.play(course, silent, options.countIn(), options.click());
    }

    private long early(long from) {
        return Click.halfBeat(tempo, tempo.ticks(from));
    }

    private void begin(PlaybackTimebase course, RecordPlan plan) {
        become(new Recording(course, plan, false));
        deck.record(plan, options);
    }

    /** Silences the tracks that a recording replaces, from its beginning on: they are audible on the way to a punch. */
    private void silenceReplaced() {
        RecordPlan plan = ((Recording) state).plan;
        silencesReplaced = plan.startsAt() > clock.nanos();
        if (!silencesReplaced) {
            deck.setSilent(silentWhileRecording());
        }
    }

    /** Content that the new take will replace is silent while recording. */
    private Set<String> silentWhileRecording() {
        Set<String> silent = new HashSet<>();
        if (options.onto() == PrintMode.REPLACE_ALL) {
            silent.addAll(document.performance().armed());
            session().tracks().stream().filter(Track::takesRest).forEach(track -> silent.add(track.id()));
        }
        return silent;
    }

    /** @param fromItsStart whether it was waited for the other's start, however late that is noticed */
    private void recordAlong(boolean fromItsStart) {
        boolean plays = state instanceof Playing;
        long from = fromItsStart ? follower.jumpedTo() : follower.nanos();
        long startsAt = fromItsStart ? follower.startedAt() : clock.nanos();
        begin(null, RecordPlan.open(startsAt, from, fromItsStart ? early(from) : 0, follower.tempo()));
        if (plays) {
            deck.setSilent(silentWhileRecording());
        } else {
            deck.playAlong(follower, from, loop(), silentWhileRecording());
        }
    }

    /** Stops playback and recording. The take follows a moment later. */
    void stop() {
        deck.stop();
        if (state instanceof Recording recording) {
            if (!recording.stopping) {
                deck.stopRecording();
            }
            become(recording.stopped());
        } else {
            become(new Resting());
        }
    }

    /** Stops playback; a recording continues. */
    void stopPlaying() {
        deck.stop();
        if (!(state instanceof Recording)) {
            become(new Resting());
        }
    }

    /** Called when a recording has ended, automatically or by request. */
    void recordingEnded() {
        if (state instanceof Recording recording) {
            become(!recording.stopping && deck.isPlaying() ? new Playing(recording.course) : new Resting());
            deck.setSilent(Set.of());
        }
    }

    /** Moves the start position; running playback continues from there. */
    void locate(long nanos) {
        if (state instanceof Recording) {
            return;
        }
        place = Math.max(0, nanos);
        if (state instanceof Playing playing && playing.course != null) {
            PlaybackTimebase course = course(place, clock.nanos() + deck.readiness());
            deck.change(course);
            become(new Playing(course));
        }
    }

    /** Takes in that the session may have another tempo, or follow another clock; true where it follows another. */
    boolean follow() {
        if (!session().tempo().equals(tempo)) {
            changeTempo(session().tempo());
        }
        String wanted = session().clock().from();
        boolean changed = !Objects.equals(wanted, followed);
        if (changed) {
            followed = wanted;
            otherRan = false;
            if (state instanceof Waiting) {
                become(new Resting());
            }
            follower = wanted == null ? null : follower(wanted);
        }
        if (follower != null) {
            follower.setTempo(tempo);
        }
        return changed;
    }

    private Follower follower(String port) {
        return port.equals(ServerTransport.PORT)
                ? new TransportFollower(clock, tempo)
                : new ClockFollower(clock, tempo);
    }

    private void changeTempo(TempoMap next) {
        long now = clock.nanos();
        place = next.nanos(tempo.ticks(place));
        tempo = next;
        PlaybackTimebase course = course();
        if (course == null) {
            return;
        }
        PlaybackTimebase other = course.withTempo(next, now);
        if (state instanceof Recording recording) {
            deck.recordAlong(other, now);
            become(new Recording(other, recording.plan.along(other, now), recording.stopping));
        } else {
            become(new Playing(other));
        }
        deck.change(other);
    }

    /** The clock that is followed, or null. */
    Follower follower() {
        return follower;
    }

    /** The port of the clock that is followed, or null. */
    String followed() {
        return followed;
    }

    /** Updates the state over time: follows an external clock, and stops at the end of the music. */
    void pulse() {
        if (silencesReplaced && state instanceof Recording) {
            silenceReplaced();
        }
        if (follower != null) {
            goWithOthers();
        }
        if (state instanceof Playing && !deck.isPlaying()) {
            // Wheels that the tracks left away from their rest go back, and so does the place.
            stop();
        }
    }

    private void goWithOthers() {
        boolean runs = follower.isRunning() || otherRan && follower.mayJump();
        if (!runs) {
            follower.setTempo(tempo);
        }
        if (!runs && state instanceof Waiting) {
            takeTempoOfOthers();
        }
        if (runs && !otherRan) {
            otherRan = true;
            if (state instanceof Waiting) {
                become(new Resting());
                recordAlong(true);
            } else if (state instanceof Resting) {
                playAlong(follower.jumpedTo());
            }
        } else if (!runs && otherRan) {
            otherRan = false;
            if (course() == null) {
                stop();
            }
        }
    }

    /** A recording to an external beat gets the bars of that tempo, unless it changed during the recording. */
    private void takeTempoOfOthers() {
        double bpm = Math.round(follower.bpm() * 100) / 100.0;
        boolean plausible = bpm >= SLOWEST && bpm <= FASTEST && tempo.tempos().size() == 1;
        if (plausible && Math.abs(bpm - tempo.bpm(0)) > TEMPO_APART) {
            TempoMap next = new TempoMap(List.of(new TempoMap.Tempo(0, bpm)), tempo.meters());
            follower.setTempo(next);
            if (!follower.tempo().equals(next)) {
                // It has just started by the present tempo: session and follower must not differ.
                return;
            }
            document.edit(say("motion.tempo-of-the-followed-clock"), session -> session.withTempo(next));
        }
    }
}
