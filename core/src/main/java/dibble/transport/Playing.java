package dibble.transport;

import dibble.midi.ShortMessage;
import dibble.recording.Chase;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A program being played, step by step: what is due next, and what is put right when it begins, comes round, is replaced
 * by another, or ends. An off goes where its on went. Belongs to one thread; knows no clock but the times it is told.
 */
final class Playing {
    /** What a lane has sounding and has been sent. */
    private static final class LaneState {
        final Program.Lane lane;
        /** What it has before anything is played. */
        Chase start;

        /** By channel and key, where the on of a note that sounds went. */
        final Program.Out[] open = new Program.Out[16 * 128];

        /** What was sent; null where it is not heard. */
        Chase sent;

        LaneState(Program.Lane lane, Chase start) {
            this.lane = lane;
            this.start = start;
        }

        boolean isHeard() {
            return lane.out() != null;
        }

        void play(int message) {
            int place = place(message);
            if (ShortMessage.startsNote(message)) {
                if (open[place] != null) {
                    release(place);
                }
                if (isHeard()) {
                    open[place] = lane.out();
                    lane.out().play(message);
                }
            } else if (ShortMessage.isNote(message) || ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE) {
                Program.Out out = open[place];
                if (out != null) {
                    open[place] = ShortMessage.isNote(message) ? null : out;
                    out.play(message);
                }
            } else if (isHeard()) {
                sent.add(message);
                lane.out().play(message);
            }
        }

        void release(int place) {
            Program.Out out = open[place];
            open[place] = null;
            out.play(ShortMessage.noteOff(place >>> 7, place & 0x7F, ShortMessage.DEFAULT_RELEASE));
        }

        void releaseAll() {
            for (int place = 0; place < open.length; place++) {
                if (open[place] != null) {
                    release(place);
                }
            }
        }

        void send(List<Integer> messages) {
            messages.forEach(message -> lane.out().play(message));
        }

        /** Sends what leads from what holds to what is to hold. */
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

    private Program program;
    private List<LaneState> states;

    /** What holds where the loop begins, by lane; null where it does not loop. */
    private List<Chase> loopStart;

    private int pass;
    private int at;
    private boolean over;

    /** Begins a program; what holds at its place is sent at once, since there may be a count-in to settle in. */
    Playing(Program program, long now) {
        this.program = program;
        states = states(program);
        seek(now);
    }

    private static List<LaneState> states(Program program) {
        List<LaneState> states = new ArrayList<>();
        for (int i = 0; i < program.lanes().size(); i++) {
            states.add(new LaneState(program.lanes().get(i), program.timeline().start(i)));
        }
        return states;
    }

    private void seek(long now) {
        Course course = program.course();
        long position = course.position(now);
        pass = course.pass(now);
        at = program.timeline().firstAt(position);
        List<Chase> held = program.timeline().chase(position);
        loopStart = course.loop() == null ? null : program.timeline().chase(course.loopFrom());
        for (int i = 0; i < states.size(); i++) {
            if (states.get(i).isHeard()) {
                states.get(i).turnTo(held.get(i));
            }
        }
        over = false;
    }

    /** Goes to where the music is now: a clock that is followed has jumped. */
    void jump(long now) {
        states.forEach(LaneState::releaseAll);
        seek(now);
    }

    boolean isOver() {
        return over;
    }

    Program program() {
        return program;
    }

    private boolean isAtLoopsEnd() {
        Course course = program.course();
        return course.loop() != null
                && (at == program.timeline().size() || program.timeline().nanos(at) >= course.loopTo());
    }

    /** When something is to be done next, on the clock. */
    long due() {
        Course course = program.course();
        if (isAtLoopsEnd()) {
            return course.startOf(pass + 1);
        }
        boolean atEnd = at == program.timeline().size();
        return course.time(
                atEnd ? program.timeline().length() : program.timeline().nanos(at), pass);
    }

    /** Does what is due. */
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

    /** What holds at the end and not at the beginning is put back. */
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
    void change(Program next, long now) {
        boolean sameMusic = next.timeline() == program.timeline();
        boolean sameCourse = next.course().equals(program.course());
        long position = next.course().position(now);
        int first = next.timeline().firstAt(position);
        if (sameMusic && sameCourse) {
            first = at;
        } else if (sameCourse && at < program.timeline().size()) {
            // What is a little late is not lost.
            long late = Math.min(position, program.timeline().nanos(at));
            first = isAtLoopsEnd() ? first : next.timeline().firstAt(late);
        }
        Map<String, LaneState> before = new HashMap<>();
        states.forEach(state -> before.put(state.lane.name(), state));
        List<LaneState> now_ = states(next);
        List<Chase> held = next.timeline().chase(position);
        for (int i = 0; i < now_.size(); i++) {
            LaneState state = now_.get(i);
            LaneState old = before.remove(state.lane.name());
            if (old != null) {
                takeOver(old, state, sameMusic && sameCourse ? null : endsSoon(next.timeline(), i, first));
            }
            if (state.isHeard()) {
                Chase wanted = new Chase(state.start);
                held.get(i).messages().forEach(wanted::add);
                state.turnTo(wanted);
            }
        }
        before.values().forEach(LaneState::leave);
        states = now_;
        program = next;
        at = first;
        pass = sameCourse ? pass : next.course().pass(now);
        loopStart = next.course().loop() == null
                ? null
                : next.timeline().chase(next.course().loopFrom());
        over = over && first == next.timeline().size();
    }

    /** Notes stay where they are while somebody will end them; controllers go where the lane leads now. */
    private static void takeOver(LaneState old, LaneState state, boolean[] ends) {
        for (int place = 0; place < old.open.length; place++) {
            if (old.open[place] != null && (!state.isHeard() || ends != null && !ends[place])) {
                old.release(place);
            }
        }
        System.arraycopy(old.open, 0, state.open, 0, old.open.length);
        if (old.isHeard() && old.lane.out().equals(state.lane.out())) {
            state.sent = old.sent;
            // What the music of before moved, and that of now does not, goes back.
            Chase back = new Chase(old.start);
            state.start.messages().forEach(back::add);
            state.start = back;
        } else if (old.isHeard()) {
            old.putBack();
        }
    }

    /** By channel and key, whether what a lane has there next is an off. */
    private static boolean[] endsSoon(Timeline timeline, int lane, int from) {
        boolean[] ends = new boolean[16 * 128];
        boolean[] seen = new boolean[16 * 128];
        for (int i = from; i < timeline.size(); i++) {
            int message = timeline.message(i);
            if (timeline.lane(i) == lane && ShortMessage.isNote(message) && !seen[place(message)]) {
                seen[place(message)] = true;
                ends[place(message)] = ShortMessage.endsNote(message);
            }
        }
        return ends;
    }

    /** Ends the notes and puts pedals and wheels to rest; other controllers stay, for whoever goes on from there. */
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
