package dibble.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** One check. */
abstract class Check {
    private final String code;
    private final Level level;
    private final String about;

    /** @param about what comes of it if nothing is done, as a sentence for people */
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

    /** Collects what it finds. */
    abstract void find(Subject subject, Report report);

    final List<Finding> run(Subject subject) {
        Report report = new Report();
        find(subject, report);
        return report.findings;
    }

    /** Takes what a check finds; the same things are named once, though several scenes show them. */
    final class Report {
        private final List<Finding> findings = new ArrayList<>();

        void add(List<String> ids, String text) {
            add(ids, text, null);
        }

        void add(List<String> ids, String text, Mend mend) {
            boolean isNew = findings.stream().noneMatch(finding -> finding.ids().equals(ids));
            if (isNew) {
                findings.add(new Finding(code, level, ids, text, Optional.ofNullable(mend)));
            }
        }
    }
}
