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

    /** The most that one check tells: who mends some of them finds the others then. */
    public static final int MAX_FINDINGS = 1_000;

    private Checks() {}

    /** A session with its performance: what checks look at, and what mends change. */
    public record Checked(Session session, Performance performance) {}

    /** The codes of all checks. */
    public static List<String> codes() {
        return ALL.stream().map(Check::code).toList();
    }

    /**
     * What comes of what a check finds if nothing is done, as a sentence for people.
     *
     * @throws UserException where no check has that code
     */
    public static String about(String code) {
        return ALL.stream()
                .filter(check -> check.code().equals(code))
                .findFirst()
                .map(Check::about)
                .orElseThrow(() -> new UserException(say("checks.check-expected-one-of", code, codes())));
    }

    /** All that the checks of a session find, except what is marked as intended. */
    public static List<Finding> run(Session session, Performance performance) {
        return run(session, performance, Live.UNKNOWN);
    }

    /** The same with what is known of the gear while it runs. */
    public static List<Finding> run(Session session, Performance performance, Live live) {
        return find(ALL, new CheckContext(session, performance, live));
    }

    /**
     * What some of the checks find.
     *
     * @param codes theirs
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
     * Applies the mends of one check, looking again after each, until nothing is left that it can mend.
     *
     * @return the mended session, or the very same where there was nothing to mend
     */
    public static Checked mend(Session session, Performance performance, String code) {
        Checked now = new Checked(session, performance);
        Check check =
                ALL.stream().filter(it -> it.code().equals(code)).findFirst().orElseThrow();
        // No mend of a check makes more findings of it than it ends; the bound is for one that would.
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
