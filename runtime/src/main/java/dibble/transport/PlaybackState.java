package dibble.transport;

import dibble.midi.ShortMessage;
import dibble.recording.Chase;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A plan during playback, step by step: due events, and corrections at the start, at a loop, after a replacement, and
 * at the end. An off goes to the destination of its on. Confined to one thread; its only clock is the times that it
 * receives.
 */
final class PlaybackState {
    private static final int PLACES = 16 * 128;
    private static final PlaybackPlan.Out[] NOTHING = {};

    /** The sounding notes of a lane, and the messages sent to it. */
    private static final class LaneState {
        final PlaybackPlan.PlannedTrack lane;
        /** The state before anything is played. */
        Chase start;

        /** By channel and key, where the on of a note that sounds went. */
        PlaybackPlan.Out[] open = NOTHING;

        /** The sent messages; null for a silent lane. */
        Chase sent;

        LaneState(PlaybackPlan.PlannedTrack lane, Chase start) {
            this.lane = lane;
            this.start = start;
        }

        boolean isHeard() {
            return lane.out() != null;
        }

        void play(int message) {
            int place = place(message);
            if (ShortMessage.startsNote(message)) {
                if (openAt(place) != null) {
                    release(place);
                }
                if (isHeard()) {
                    if (open.length == 0) {
                        open = new PlaybackPlan.Out[PLACES];
                    }
                    open[place] = lane.out();
                    lane.out().play(message);
                }
            } else if (ShortMessage.isNote(message) || ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE) {
                PlaybackPlan.Out out = openAt(place);
                if (out != null) {
                    open[place] = ShortMessage.isNote(message) ? null : out;
                    out.play(message);
                }
            } else if (isHeard()) {
                sent.add(message);
                lane.out().play(message);
            }
        }

        private PlaybackPlan.Out openAt(int place) {
            return open.length == 0 ? null : open[place];
        }

        void release(int place) {
            PlaybackPlan.Out out = open[place];
            open[place] = null;
            out.play(ShortMessage.noteOff(place >>> 7, place & 0x7F, ShortMessage.DEFAULT_RELEASE));
        }

        void releaseAll() {
            for (int place = 0; place < open.length; place++) {
                if (openAt(place) != null) {
                    release(place);
                }
            }
        }

        /** Releases notes for which a lane of other music has no off: the next event there is an on, or none. */
        void releaseUnended(Timeline timeline, int number, int from) {
            boolean[] ends = new boolean[open.length];
            int left = 0;
            for (PlaybackPlan.Out out : open) {
                left += out == null ? 0 : 1;
            }
            boolean[] seen = new boolean[open.length];
            for (int i = from; i < timeline.size() && left > 0; i++) {
                int message = timeline.message(i);
                if (timeline.lane(i) == number && ShortMessage.isNote(message) && !seen[place(message)]) {
                    seen[place(message)] = true;
                    ends[place(message)] = ShortMessage.endsNote(message);
                    left -= open[place(message)] == null ? 0 : 1;
                }
            }
            for (int place = 0; place < open.length; place++) {
                if (open[place] != null && !ends[place]) {
                    release(place);
                }
            }
        }

        void send(List<Integer> messages) {
            messages.forEach(message -> lane.out().play(message));
        }

        /** Sends the messages from the present state to the wanted one. */
        void turnTo(Chase wanted) {
            // Where nothing was sent yet, pedals and wheels are at rest, since they are always put back; who knows of
            // others.
            send((sent == null ? start.ofRests() : sent).wayTo(wanted));
            sent = wanted;
        }

        /** Leaves a lane, so that nothing is left away from where it belongs. */
        void leave() {
            releaseAll();
            putBack();
        }

        void putBack() {
            if (sent != null) {
                send(sent.wayTo(start));
                sent = null;
            }
        }
    }

    private static int place(int message) {
        return ShortMessage.channel(message) << 7 | ShortMessage.data1(message);
    }

    private PlaybackPlan program;
    private List<LaneState> states;

    /** The state at the start of the loop, by lane; null without a loop. */
    private List<Chase> loopStart;

    private int pass;
    private int at;
    private boolean over;

    /**
     * Begins a plan at its position at a time of the clock. The state there is sent at once, so that devices settle
     * during a count-in.
     */
    PlaybackState(PlaybackPlan program, long now) {
        this.program = program;
        states = states(program);
        seek(now);
    }

    private static List<LaneState> states(PlaybackPlan program) {
        List<LaneState> states = new ArrayList<>();
        for (int i = 0; i < program.lanes().size(); i++) {
            states.add(new LaneState(program.lanes().get(i), program.timeline().start(i)));
        }
        return states;
    }

    private void seek(long now) {
        PlaybackTimebase course = program.course();
        long position = course.position(now);
        pass = course.pass(now);
        at = program.timeline().firstAt(position);
        List<Chase> held = program.timeline().chase(position);
        loopStart = loopStart(program);
        for (int i = 0; i < states.size(); i++) {
            if (states.get(i).isHeard()) {
                states.get(i).turnTo(held.get(i));
            }
        }
        over = false;
    }

    private static List<Chase> loopStart(PlaybackPlan program) {
        PlaybackTimebase course = program.course();
        return course.loop() == null ? null : program.timeline().chase(course.loopFrom());
    }

    /** Returns true if due events were missed, and there is later music. */
    boolean hasMissed(long now) {
        boolean goesOn = at < program.timeline().size() || program.course().loop() != null;
        return goesOn && PreciseTimer.isMissed(due(), now);
    }

    /** Goes to where the music is now: a clock that is followed has jumped, or the machine stood still. */
    void jump(long now) {
        states.forEach(LaneState::releaseAll);
        seek(now);
    }

    boolean isOver() {
        return over;
    }

    PlaybackPlan program() {
        return program;
    }

    private boolean isAtLoopsEnd() {
        PlaybackTimebase course = program.course();
        return course.loop() != null
                && (at == program.timeline().size() || program.timeline().nanos(at) >= course.loopTo());
    }

    /** When something is to be done next, on the clock. */
    long due() {
        PlaybackTimebase course = program.course();
        if (isAtLoopsEnd()) {
            return course.startOf(pass + 1);
        }
        boolean atEnd = at == program.timeline().size();
        return course.time(
                atEnd ? program.timeline().length() : program.timeline().nanos(at), pass);
    }

    /** Plays the due events. */
    void act() {
        Timeline timeline = program.timeline();
        if (isAtLoopsEnd()) {
            comeRound();
        } else if (at == timeline.size()) {
            over = true;
        } else {
            LaneState state = states.get(timeline.lane(at));
            if (timeline.exclusive(at) == null) {
                state.play(timeline.message(at));
            } else if (state.isHeard()) {
                state.lane.out().exclusive(timeline.exclusive(at));
            }
            at++;
        }
    }

    /** Resets values that are set at the end of the loop and not at its start. */
    private void comeRound() {
        pass++;
        at = program.timeline().firstAt(program.course().loopFrom());
        for (int i = 0; i < states.size(); i++) {
            states.get(i).releaseAll();
            if (states.get(i).isHeard()) {
                states.get(i).turnTo(new Chase(loopStart.get(i)));
            }
        }
    }

    /** Goes on with another program: lanes are known by their names. */
    void change(PlaybackPlan next, long now) {
        boolean sameMusic = next.timeline() == program.timeline();
        boolean sameCourse = next.course().equals(program.course());
        boolean leadsOn = sameCourse || program.course().leadsOn(next.course());
        long since = sameCourse ? now : next.course().at();
        if (leadsOn) {
            playUntil(Math.min(now, since));
        }
        int passed = leadsOn && !sameCourse ? program.course().pass(since) : 0;
        long position = leadsOn ? next.course().position(now) : next.course().place();
        int first = sameMusic && sameCourse
                ? at
                : leadsOn ? resumedAt(next, since, passed) : next.timeline().firstAt(position);
        Map<String, LaneState> before = new HashMap<>();
        states.forEach(state -> before.put(state.lane.name(), state));
        List<LaneState> after = states(next);
        boolean goesOn = sameMusic && sameCourse;
        List<Chase> held = null;
        for (int i = 0; i < after.size(); i++) {
            LaneState state = after.get(i);
            LaneState old = before.remove(state.lane.name());
            if (old != null) {
                if (!state.isHeard()) {
                    old.releaseAll();
                } else if (!goesOn) {
                    old.releaseUnended(next.timeline(), i, first);
                }
                takeOver(old, state);
            }
            if (state.isHeard() && !(goesOn && state.sent != null)) {
                // Looked up only where it is needed: a long piece takes a while.
                held = held == null ? next.timeline().chase(position) : held;
                Chase wanted = new Chase(state.start);
                held.get(i).messages().forEach(wanted::add);
                state.turnTo(wanted);
            }
        }
        before.values().forEach(LaneState::leave);
        states = after;
        program = next;
        at = first;
        pass = leadsOn ? pass - passed : 0;
        loopStart = goesOn ? loopStart : loopStart(next);
        over = over && first == next.timeline().size();
    }

    /** Plays the events that are due by a time: a change that is noticed late must not lose earlier events. */
    private void playUntil(long time) {
        while (!over && due() <= time) {
            act();
        }
    }

    /**
     * Returns the first event of other music that is still to be played: none that was played by now, though events may have
     * been moved, and none before the music goes on.
     *
     * @param passed the passes of the present course when the next one began
     */
    private int resumedAt(PlaybackPlan next, long since, int passed) {
        Timeline now = program.timeline();
        boolean cameRound = pass > passed && next.course().loop() != null;
        // The other tempo holds from this tick on, so that later ticks may be due at once.
        long tick = program.course().tempo().tickAtOrBefore(program.course().position(since));
        long from =
                cameRound ? next.course().loopFrom() : next.timeline().tempo().nanos(tick);
        int firstOfPass = pass > 0 ? now.firstAt(program.course().loopFrom()) : 0;
        if (at > firstOfPass) {
            boolean within = at < now.size() && now.nanos(at) == now.nanos(at - 1);
            from = within
                    ? in(next.timeline(), now.nanos(at))
                    : Math.max(from, in(next.timeline(), now.nanos(at - 1)) + 1);
        }
        return next.timeline().firstAt(from);
    }

    /** The time of the same tick in another timeline. */
    private long in(Timeline next, long nanos) {
        return next.tempo().nanos(program.timeline().tempo().ticks(nanos));
    }

    /** Notes stay if they have an off later; controllers go to the new destination of the lane. */
    private static void takeOver(LaneState old, LaneState state) {
        state.open = old.open;
        if (old.isHeard() && old.lane.out().equals(state.lane.out())) {
            state.sent = old.sent;
            // Values that the previous music changed, and the present one does not, are reset.
            Chase back = new Chase(old.start);
            state.start.messages().forEach(back::add);
            state.start = back;
        } else if (old.isHeard()) {
            old.putBack();
        }
    }

    /** Ends the notes and resets pedals and wheels; other controllers stay for later playback. */
    void end() {
        for (LaneState state : states) {
            state.releaseAll();
            if (state.sent != null) {
                state.send(state.sent.rests());
                state.sent = null;
            }
        }
        over = true;
    }
}
