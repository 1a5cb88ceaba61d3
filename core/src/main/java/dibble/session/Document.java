package dibble.session;

import dibble.gear.ChannelPlan;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.routing.Routing;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;

/**
 * The open session: the present value, the way back and forth, and the performance state beside it. Belongs to the
 * thread that edits. A {@link Gesture} (a drag, say) shows many values and is one step of undo.
 */
public final class Document {
    /** The most bytes of the undo history beyond the session itself. */
    private long mostBytes = 128L << 20;

    /** Limits the bytes of the undo history beyond the session itself; applies from the next edit on. */
    public void setMostBytes(long most) {
        mostBytes = most;
    }

    /**
     * A value in the history, with the name of its edit.
     *
     * @param bytes the estimated cost of undoing beyond it
     * @param run the run of small edits of the step; null for none
     */
    private record Step(String name, Session session, long bytes, Object run) {}

    private final List<Step> steps = new ArrayList<>();
    private final List<Runnable> listeners = new ArrayList<>();
    private int now;
    private long bytes;
    private int saved;
    private Session shown;
    private Gesture gesture;

    /** Identifies the session that was opened, whatever its edits make of it. */
    private Object opening = new Object();

    private Performance performance;

    /** The cables to other programs as they are on disk. */
    private Set<Connection> savedConnections;

    /** Planned once for each pair of session and performance: with many parts a plan takes as long as half an edit. */
    private Routing routing;

    /** Sets up a document as {@link #open} does. */
    public Document(Session session, Performance performance) {
        open(session, performance);
    }

    /** Puts another session in place; there is no way back to the one before. */
    public void open(Session session, Performance opened) {
        Session distinct = DistinctIds.withDistinctIds(session);
        dropGesture(Gesture.End.CANCELLED);
        opening = new Object();
        steps.clear();
        steps.add(new Step("", distinct, 0, null));
        bytes = 0;
        now = 0;
        saved = 0;
        shown = null;
        savedConnections = opened.connections();
        take(distinct, opened);
        changed();
    }

    /** Puts a session in place that is on no disk as it is: there is something to save from the beginning. */
    public void openUnsaved(Session session, Performance opened) {
        open(session, opened);
        saved = -1;
        changed();
    }

    /** Takes both over, with the channels that auto parts have then. */
    private void take(Session session, Performance given) {
        boolean sameParts = shown != null
                && session.instruments() == shown.instruments()
                && given.channels().equals(performance.channels());
        ChannelPlan channels = sameParts ? routing.channels() : session.channels(given);
        shown = session;
        performance = given.rememberChannels(channels.channels());
        routing = session.routing(performance, channels);
    }

    /** The session as it is shown and played now; in a gesture, with its preview. */
    public Session session() {
        return shown;
    }

    /** Returns the session without the preview that is shown. */
    public Kept kept() {
        return Kept.of(current(), performance);
    }

    /** Returns an object that stays the same until another session is opened. */
    public Object opening() {
        return opening;
    }

    /** Returns the present performance. */
    public Performance performance() {
        return performance;
    }

    /** Returns the present routing. */
    public Routing routing() {
        return routing;
    }

    /** Makes an edit, as one step. An edit that changes nothing makes none. */
    public void edit(String name, UnaryOperator<Session> edit) {
        edit(new Edit(name, edit), null);
    }

    /** Makes an edit, as one step. */
    public void edit(Edit edit) {
        edit(edit, null);
    }

    /**
     * Makes an edit that may belong to a run of small edits, such as steps of a wheel: consecutive edits of a run are
     * one step, unless the session was saved between them.
     *
     * @param run identifies the run; null for a separate edit
     */
    public void edit(Edit edit, Object run) {
        Session next = edit.change().apply(current());
        if (!next.equals(current())) {
            add(edit.name(), next, run);
        }
        if (gesture != null && !gesture.holdsAbove(current())) {
            dropGesture(Gesture.End.CANCELLED);
        }
        showGesture();
    }

    private void add(String name, Session next, Object run) {
        while (steps.size() > now + 1) {
            bytes -= steps.remove(steps.size() - 1).bytes();
        }
        if (saved > now) {
            saved = -1;
        }
        if (run != null && now > 0 && steps.get(now).run() == run && saved != now) {
            bytes -= steps.remove(now).bytes();
            now--;
            if (next.equals(current())) {
                // The run has led back to where it began.
                return;
            }
        }
        Step step = new Step(name, next, HistoryCost.bytes(current(), next), run);
        steps.add(step);
        bytes += step.bytes();
        now++;
        while (bytes > mostBytes && now > 1) {
            // The oldest value goes, and with it the way back from the one that follows it.
            bytes -= steps.get(1).bytes();
            steps.remove(0);
            now--;
            saved--;
        }
    }

    /**
     * Begins a gesture. A gesture that is open ends.
     *
     * @param ended is notified where the gesture ends and its owner has not ended it
     */
    public Gesture begin(Consumer<Gesture.End> ended) {
        dropGesture(Gesture.End.REPLACED);
        Gesture next = new Gesture(this, ended);
        gesture = next;
        showGesture();
        return next;
    }

    /** Returns the gesture that is open, or null. */
    public Gesture gesture() {
        return gesture;
    }

    /** Ends the gesture that is open and shows the session without it. Returns whether one was open. */
    public boolean cancelGesture() {
        boolean open = gesture != null;
        dropGesture(Gesture.End.CANCELLED);
        if (open) {
            showAfterGesture();
        }
        return open;
    }

    private void dropGesture(Gesture.End how) {
        Gesture dropped = gesture;
        if (dropped != null) {
            gesture = null;
            dropped.end(how);
        }
    }

    void leaveGesture() {
        gesture = null;
        showAfterGesture();
    }

    void finish(Edit edit) {
        gesture = null;
        Session before = shown;
        edit(edit, null);
        if (shown == before) {
            changed();
        }
    }

    /** Listeners may wait for the end of a gesture, even of one that has changed nothing. */
    private void showAfterGesture() {
        if (shown == current()) {
            changed();
        } else {
            show(current());
        }
    }

    /** Shows the session with the gesture over it. */
    void showGesture() {
        try {
            show(gesture == null ? current() : gesture.over(current()));
        } catch (NoSuchElementException e) {
            // The object that is dragged is gone.
            cancelGesture();
        }
    }

    private Session current() {
        return steps.get(now).session();
    }

    private void show(Session session) {
        if (session != shown) {
            Session left = shown;
            take(session, performance);
            forgetDerived(left);
            changed();
        }
    }

    /** Drops values derived from tracks that are no longer shown. */
    private void forgetDerived(Session left) {
        if (left.tracks() != shown.tracks()) {
            Set<Regions> present = Collections.newSetFromMap(new IdentityHashMap<>());
            shown.tracks().forEach(track -> present.add(track.regions()));
            left.tracks().stream()
                    .map(Track::regions)
                    .filter(regions -> !present.contains(regions))
                    .forEach(Regions::forgetDerived);
        }
    }

    /** Changes the performance, which is not an undo step. */
    public void perform(UnaryOperator<Performance> change) {
        Performance next = change.apply(performance);
        if (!next.equals(performance)) {
            take(shown, next);
            changed();
        }
    }

    /** Adopts connections to other applications that no user has just made: nothing to save. */
    public void adoptConnections(Collection<Connection> cables) {
        perform(now -> now.connected(cables));
        savedConnections = performance.connections();
        changed();
    }

    /** The name of the edit that {@link #undo} takes back. */
    public Optional<String> undoName() {
        return now > 0 ? Optional.of(steps.get(now).name()) : Optional.empty();
    }

    /** The name of the edit that {@link #redo} makes again. */
    public Optional<String> redoName() {
        return now + 1 < steps.size() ? Optional.of(steps.get(now + 1).name()) : Optional.empty();
    }

    /** Takes the last edit back, where there is one; where a gesture is open, ends that instead. */
    public void undo() {
        if (!cancelGesture() && now > 0) {
            now--;
            show(current());
        }
    }

    /** Makes the edit again that was taken back last, where there is one; where a gesture is open, ends that instead. */
    public void redo() {
        if (!cancelGesture() && now + 1 < steps.size()) {
            now++;
            show(current());
        }
    }

    /** Returns true if there is anything to save. */
    public boolean isChanged() {
        return saved != now || !savedConnections.equals(performance.connections());
    }

    /**
     * Marks a recent state as saved; ignored if the history no longer has it.
     *
     * @param with the performance that was saved with it
     */
    public void markSaved(Session session, Performance with) {
        savedConnections = with.connections();
        for (int i = 0; i < steps.size(); i++) {
            if (steps.get(i).session() == session) {
                saved = i;
            }
        }
        changed();
    }

    /** Runs a listener after each change, until the returned runnable is called. */
    public Runnable listen(Runnable listener) {
        listeners.add(listener);
        return () -> listeners.remove(listener);
    }

    private void changed() {
        List.copyOf(listeners).forEach(Runnable::run);
    }
}
