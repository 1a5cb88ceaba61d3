package dibble.checks;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/** One check. */
abstract class Check {
    private final String code;
    private final Level level;
    private final String about;

    /** @param about the effect if nothing is done, as a sentence for users */
    Check(String code, Level level, String about) {
        this.code = code;
        this.level = level;
        this.about = about;
    }

    final String code() {
        return code;
    }

    final String about() {
        return about;
    }

    /** Collects the findings of this check. */
    abstract void find(CheckContext subject, Report report);

    final List<Finding> run(CheckContext subject) {
        Report report = new Report(Checks.MAX_FINDINGS, finding -> true);
        find(subject, report);
        return report.findings;
    }

    /** Returns the fix of the first finding that is not marked as intended. */
    final Optional<Fix> firstMend(CheckContext subject) {
        Report report = new Report(1, finding -> finding.mend().isPresent() && !subject.isSettled(finding));
        find(subject, report);
        return report.findings.stream().findFirst().flatMap(Finding::mend);
    }

    /** Collects the findings of a check. The same things are named once, even if several scenes show them. */
    final class Report {
        private final List<Finding> findings = new ArrayList<>();
        private final Set<List<String>> named = new HashSet<>();
        private final int most;
        private final Predicate<Finding> wanted;

        Report(int most, Predicate<Finding> wanted) {
            this.most = most;
            this.wanted = wanted;
        }

        /** Returns true if the limit of findings is reached. */
        boolean isFull() {
            return findings.size() >= most;
        }

        void add(List<String> ids, String text) {
            add(ids, text, null);
        }

        void add(List<String> ids, String text, Fix mend) {
            Finding finding = new Finding(code, level, ids, text, Optional.ofNullable(mend));
            if (!isFull() && wanted.test(finding) && named.add(ids)) {
                findings.add(finding);
            }
        }
    }
}
