package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.files.SessionContent;
import dibble.files.SingleLineText;
import dibble.midi.MiddleC;
import dibble.paper.PaperSize;
import dibble.paper.SheetHtml;
import dibble.paper.SheetPdf;
import dibble.session.Session;
import dibble.session.SessionSet;
import dibble.sheet.Sheet;
import dibble.sheet.SheetCsv;
import dibble.text.Texts;
import dibble.user.SetFile;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code dibble sheet}: the routing sheet of a session. */
@Command(name = "sheet")
final class SheetCommand extends FileCommand {
    @Parameters(index = "0", paramLabel = "SESSION", descriptionKey = "session")
    private String sessionFile;

    @Option(
            names = {"-o", "--output"},
            required = true,
            paramLabel = "FILE",
            descriptionKey = "output")
    private String output;

    @Option(names = "--paper", paramLabel = "SIZE", defaultValue = "a4", descriptionKey = "paper")
    private String paper;

    @Override
    public Integer call() throws IOException {
        PaperSize size = size();
        String kind = output.substring(output.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        if (sessionFile.endsWith(SetFile.ENDING)) {
            return set(size, kind);
        }
        SessionContent opened = files.session(sessionFile);
        Session session = opened.session();
        Sheet sheet = sheet(opened);
        switch (kind) {
            case "pdf" -> files.write(output, to -> SheetPdf.write(sheet, session.middleC(), size, to));
            case "html", "htm" -> text(Texts.typeset(() -> SheetHtml.of(sheet, session.middleC(), size)));
            case "csv" -> text(SheetCsv.of(session));
            default -> throw new BadInput(say("sheet-command.expected-a-name", SingleLineText.of(output)));
        }
        return 0;
    }

    private static Sheet sheet(SessionContent opened) {
        return Texts.typeset(() -> Sheet.of(opened.session(), opened.performance(), LocalDate.now()));
    }

    /** The sheets of all sessions of a set as one document. */
    private int set(PaperSize size, String kind) throws IOException {
        SessionSet set = files.set(sessionFile);
        List<Sheet> sheets = new ArrayList<>();
        MiddleC middleC = MiddleC.C4;
        for (SessionSet.Entry entry : set.entries()) {
            SessionContent opened = files.session(
                    InOut.path(sessionFile).resolveSibling(entry.file()).toString());
            middleC = opened.session().middleC();
            sheets.add(sheet(opened));
        }
        Sheet all = Sheet.together(set.name(), LocalDate.now(), sheets);
        MiddleC named = middleC;
        switch (kind) {
            case "pdf" -> files.write(output, to -> SheetPdf.write(all, named, size, to));
            case "html", "htm" -> text(Texts.typeset(() -> SheetHtml.of(all, named, size)));
            default -> throw new BadInput(say("sheet-command.set-as", SingleLineText.of(output)));
        }
        return 0;
    }

    private void text(String text) {
        files.write(output, to -> to.write(text.getBytes(StandardCharsets.UTF_8)));
    }

    private PaperSize size() {
        return Stream.of(PaperSize.values())
                .filter(size -> size.word().equalsIgnoreCase(paper))
                .findFirst()
                .orElseThrow(() -> new BadInput(say(
                        "sheet-command.paper-expected",
                        SingleLineText.of(paper),
                        Stream.of(PaperSize.values())
                                .map(size -> size.word().toLowerCase(Locale.ROOT))
                                .collect(Collectors.joining(", ")))));
    }
}
