package dibble.presentation;

import static dibble.presentation.UiText.say;

import dibble.checks.Checks;
import dibble.checks.Finding;
import dibble.checks.Level;
import dibble.checks.Live;
import dibble.ports.Devices;
import dibble.session.AcceptedFinding;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.Studio;
import dibble.system.AsyncValue;
import dibble.system.Workers;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The present findings of the checks. The checks read immutable values on their own thread, so that no frame waits for
 * them; all methods belong to the editing thread, {@link #follow} once a frame.
 */
public final class Findings {
    /** The input of the last run; the checks do not run again while it is the same. */
    private record Seen(Session session, Performance performance, Live live) {
        /** Sessions are large and never altered: one that is another is looked at again. */
        boolean isSame(Seen other) {
            return other != null
                    && session == other.session
                    && performance == other.performance
                    && live.equals(other.live);
        }
    }

    private final Document document;
    private final Studio studio;
    private final Devices devices;
    private final LiveState state;
    private final List<Runnable> listeners = new ArrayList<>();
    private Seen seen;
    private AsyncValue<List<Finding>> look;
    private List<Finding> now = List.of();

    /** @param state the live state */
    public Findings(Document document, Studio studio, Devices devices, LiveState state) {
        this.document = document;
        this.studio = studio;
        this.devices = devices;
        this.state = state;
    }

    /** All findings, those that matter most first. */
    public List<Finding> now() {
        return now;
    }

    /** Returns the number of findings above the level of notes. */
    public int count() {
        return (int)
                now.stream().filter(finding -> finding.level() != Level.NOTE).count();
    }

    /** Runs a listener when the findings have changed. */
    public Subscription listen(Runnable listener) {
        listeners.add(listener);
        return () -> listeners.remove(listener);
    }

    /** Returns true if it looks now: something will come of it. */
    public boolean isLooking() {
        return look != null;
    }

    /** Applies new findings, and runs the checks again after a change. */
    public void follow() {
        if (look != null && look.isDone()) {
            List<Finding> next = look.value().orElse(now);
            look = null;
            boolean differs = !told(next).equals(told(now));
            now = next;
            if (differs) {
                List.copyOf(listeners).forEach(Runnable::run);
            }
        }
        if (look == null) {
            Seen next = new Seen(document.session(), document.performance(), live());
            if (!next.isSame(seen)) {
                seen = next;
                look = AsyncValue.compute(
                        Workers.shared().computing(),
                        () -> Checks.run(next.session, next.performance, next.live).stream()
                                .sorted(Comparator.comparing(Finding::level))
                                .toList());
            }
        }
    }

    private static List<List<Object>> told(List<Finding> findings) {
        return findings.stream()
                .map(finding -> List.<Object>of(finding.code(), finding.ids(), finding.text()))
                .toList();
    }

    private Live live() {
        Set<String> there = new HashSet<>(devices.inputs());
        there.addAll(devices.outputs());
        return new Live(
                Optional.of(there),
                studio.loops().stream()
                        .map(loop -> new Live.Loop(loop.input(), loop.output()))
                        .collect(Collectors.toSet()),
                state.twins().stream()
                        .map(pair -> new Live.Twins(pair.getKey(), pair.getValue()))
                        .collect(Collectors.toSet()));
    }

    /** Applies the fix of a finding, as one undo step. */
    public void mend(Finding finding) {
        finding.mend().ifPresent(mend -> {
            document.edit(say("edit.fix", mend.words()), mend.session());
            document.perform(mend.performance());
        });
    }

    /** Marks a finding as intended: it is not reported again. */
    public void settle(Finding finding) {
        document.edit(say("edit.mark-as-intended"), session -> {
            List<AcceptedFinding> settled = new ArrayList<>(session.settled());
            settled.add(new AcceptedFinding(finding.code(), finding.ids()));
            return session.withSettled(settled);
        });
    }

    /** Reports a finding again that was marked as intended. */
    public void unsettle(AcceptedFinding settled) {
        document.edit(
                say("edit.show-warning-again"),
                session -> session.withSettled(session.settled().stream()
                        .filter(it -> !it.equals(settled))
                        .toList()));
    }
}
