package dibble.cli;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.checks.Checks;
import dibble.checks.Finding;
import dibble.checks.Level;
import dibble.files.SessionFile;
import dibble.session.DistinctIds;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code dibble check}: what would surprise a player. */
@Command(
        name = "check",
        description = "Names what would surprise a player; exits with 1 if there is an error or a warning.",
        mixinStandardHelpOptions = true)
final class CheckCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "SESSION", description = "a session: NAME.dibble, or a bare session.json")
    private Path sessionFile;

    @Option(names = "--json", description = "as JSON")
    private boolean json;

    @Option(names = "--fix", paramLabel = "CODE", description = "apply the mends of a check to the file first")
    private String fix;

    @Override
    public Integer call() throws IOException {
        SessionFile.Opened opened = SessionInput.open(sessionFile);
        Session session = opened.session();
        Performance performance = opened.performance();
        if (fix != null) {
            Checks.Checked mended = mend(session, performance);
            session = mended.session();
            performance = mended.performance();
        }
        List<Finding> findings = Checks.run(session, performance);
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.println(new ObjectMapper().writeValueAsString(json(findings)));
        } else {
            findings.forEach(finding -> print(finding, out));
            if (findings.isEmpty()) {
                out.println("nothing found");
            }
        }
        return findings.stream().anyMatch(finding -> finding.level() != Level.NOTE) ? 1 : 0;
    }

    private Checks.Checked mend(Session session, Performance performance) throws IOException {
        if (!Checks.codes().contains(fix)) {
            throw new BadInput("no check \"" + fix + "\" (expected one of " + String.join(", ", Checks.codes()) + ")");
        }
        // A mend names things by their ids, which in a file need only be unique in their list.
        Checks.Checked before = new Checks.Checked(DistinctIds.withDistinctIds(session), performance);
        Checks.Checked mended = Checks.mend(before.session(), before.performance(), fix);
        if (mended.equals(before)) {
            spec.commandLine().getErr().println("dibble: nothing that " + fix + " finds has a mend");
        } else {
            SessionFile.update(sessionFile, mended.session(), mended.performance());
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

    private static void print(Finding finding, PrintWriter out) {
        out.println(word(finding.level()) + " " + finding.code() + ": " + finding.text());
        finding.mend().ifPresent(mend -> out.println("    mend: " + mend.words()));
    }

    private static String word(Level level) {
        return level.name().toLowerCase(Locale.ROOT);
    }
}
