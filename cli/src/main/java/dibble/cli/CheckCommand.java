package dibble.cli;

import static dibble.cli.CliText.say;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.checks.Checks;
import dibble.checks.Finding;
import dibble.checks.Level;
import dibble.disk.AtomicFile;
import dibble.disk.SessionFile;
import dibble.files.SessionContent;
import dibble.session.DistinctIds;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code dibble check}: what would surprise a player. */
@Command(name = "check")
final class CheckCommand extends FileCommand {
    @Parameters(index = "0", paramLabel = "SESSION", descriptionKey = "session")
    private String sessionFile;

    @Option(names = "--json", descriptionKey = "json")
    private boolean json;

    @Option(names = "--fix", paramLabel = "CODE", descriptionKey = "fix")
    private String fix;

    @Override
    public Integer call() throws IOException {
        if (fix != null) {
            checkSavable();
        }
        SessionContent opened = files.session(sessionFile);
        Session session = opened.session();
        Performance performance = opened.performance();
        if (fix != null) {
            Checks.Checked mended = mend(session, performance);
            session = mended.session();
            performance = mended.performance();
        }
        List<Finding> findings = Checks.run(session, performance);
        findings.stream()
                .collect(Collectors.groupingBy(Finding::code, Collectors.counting()))
                .forEach((code, count) -> {
                    if (count == Checks.MAX_FINDINGS) {
                        files.tell(say("check-command.only-the-first-of-are", count, code));
                    }
                });
        if (json) {
            out().println(json(findings));
        } else {
            findings.forEach(this::print);
            if (findings.isEmpty()) {
                print(say("check-command.no-warnings"));
            }
        }
        return findings.stream().anyMatch(finding -> finding.level() != Level.NOTE) ? 1 : 0;
    }

    private void checkSavable() throws IOException {
        if (sessionFile.equals(InOut.STANDARD) || AtomicFile.isStream(InOut.path(sessionFile))) {
            throw new BadInput(say("check-command.fix-saves-the-session-but", sessionFile));
        }
    }

    private Checks.Checked mend(Session session, Performance performance) throws IOException {
        if (!Checks.codes().contains(fix)) {
            throw new BadInput(say("check-command.no-check-expected-one-of", fix, String.join(", ", Checks.codes())));
        }
        // A fix refers to objects by their ids, which in a file need to be unique in their list only.
        Checks.Checked before = new Checks.Checked(DistinctIds.withDistinctIds(session), performance);
        Checks.Checked mended = Checks.mend(before.session(), before.performance(), fix);
        if (mended.equals(before)) {
            files.tell(say("check-command.there-is-no-suggested-fix", fix));
        } else {
            SessionFile.update(InOut.path(sessionFile), mended.session(), mended.performance());
        }
        return mended;
    }

    private static ObjectNode json(List<Finding> findings) {
        ObjectNode node = new ObjectMapper().createObjectNode();
        ArrayNode list = node.putArray("findings");
        for (Finding finding : findings) {
            ObjectNode item = list.addObject();
            item.put("code", finding.code());
            item.put("level", word(finding.level()));
            finding.ids().forEach(item.putArray("ids")::add);
            item.put("text", finding.text());
            item.put("mend", finding.mend().map(mend -> mend.words()).orElse(null));
        }
        return node;
    }

    private void print(Finding finding) {
        print(word(finding.level()) + " " + finding.code() + ": " + finding.text());
        finding.mend().ifPresent(mend -> print(say("check-command.fix", mend.words())));
    }

    private static String word(Level level) {
        return level.name().toLowerCase(Locale.ROOT);
    }
}
