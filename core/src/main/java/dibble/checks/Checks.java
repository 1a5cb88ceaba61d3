package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.session.Performance;
import dibble.session.Session;
import dibble.text.UserException;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** All checks, in the order of the contract. */
public final class Checks {
    private static final List<Check> ALL = List.of(
            new PartMissing(),
            new SourceMissing(),
            new ChannelClash(),
            new NoChannelLeft(),
            new Loops(),
            new Doubled(),
            new Gaps(),
            new OutsidePart(),
            new UnsentChannel(),
            new TwiceRecorded(),
            new OmniModule(),
            new DirectPath(),
            new ConflictingSends(),
            new HitsKeyswitch(),
            new Twins(),
            new SceneProgramClash(),
            new PortMissing(),
            new UnusedPart(),
            new Unrecorded(),
            new ProgramLeak(),
            new Layers());

    /** The most findings that one check reports. After some of them are fixed, it reports the others. */
    public static final int MAX_FINDINGS = 1_000;

    private Checks() {}

    /** A session with its performance: the input of checks and fixes. */
    public record Checked(Session session, Performance performance) {}

    /** The codes of all checks. */
    public static List<String> codes() {
        return ALL.stream().map(Check::code).toList();
    }

    /**
     * Returns the effect of a finding if nothing is done, as a sentence for users.
     *
     * @throws UserException if no check has that code
     */
    public static String about(String code) {
        return ALL.stream()
                .filter(check -> check.code().equals(code))
                .findFirst()
                .map(Check::about)
                .orElseThrow(() -> new UserException(say("checks.check-expected-one-of", code, codes())));
    }

    /** Returns the findings of all checks, except those that are marked as intended. */
    public static List<Finding> run(Session session, Performance performance) {
        return run(session, performance, Live.UNKNOWN);
    }

    /** Returns the findings of all checks, including those that depend on the running gear. */
    public static List<Finding> run(Session session, Performance performance, Live live) {
        return find(ALL, new CheckContext(session, performance, live));
    }

    /**
     * Returns the findings of some checks.
     *
     * @param codes the codes of the checks
     */
    public static List<Finding> find(Set<String> codes, Session session, Performance performance, Live live) {
        List<Check> checks =
                ALL.stream().filter(check -> codes.contains(check.code())).toList();
        return find(checks, new CheckContext(session, performance, live));
    }

    private static List<Finding> find(List<Check> checks, CheckContext subject) {
        return checks.stream()
                .flatMap(check -> check.run(subject).stream())
                .filter(finding -> !subject.isSettled(finding))
                .toList();
    }

    /**
     * Applies the fixes of one check, and checks again after each, until it has none left.
     *
     * @return the fixed session, or the same instance if there was nothing to fix
     */
    public static Checked mend(Session session, Performance performance, String code) {
        Checked now = new Checked(session, performance);
        Check check =
                ALL.stream().filter(it -> it.code().equals(code)).findFirst().orElseThrow();
        // A fix never makes more findings of its check than it removes; the limit is a safeguard.
        int zones = session.allZones().size() + session.allControls().size();
        int most = run(session, performance).size() + zones * zones + 1;
        for (int i = 0; i < most; i++) {
            Optional<Fix> next = check.firstMend(new CheckContext(now.session, now.performance, Live.UNKNOWN));
            if (next.isEmpty()) {
                return now;
            }
            now = new Checked(
                    next.get().session().apply(now.session),
                    next.get().performance().apply(now.performance));
        }
        return now;
    }
}
