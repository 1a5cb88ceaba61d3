package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.disk.SessionFile;
import dibble.files.WholeFile;
import dibble.paper.PaperSize;
import dibble.paper.SheetHtml;
import dibble.paper.SheetPdf;
import dibble.presentation.AppContext;
import dibble.presentation.FileKind;
import dibble.presentation.sheet.SheetActions;
import dibble.session.Kept;
import dibble.session.Session;
import dibble.sheet.Sheet;
import dibble.sheet.SheetCsv;
import dibble.sheet.SheetFormatException;
import dibble.text.Texts;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Locale;
import java.util.function.Consumer;

/** The routing sheet to files and back, and other sessions to compare with. */
public final class SheetFiles implements SheetActions {
    /** A sheet of rows is never so large. */
    private static final int MAX_BYTES = 1 << 26;

    private final AppContext context;
    private final SessionFiles files;
    private final PathQuestions questions;
    private final Exports exports;

    /** Exports sheets of the open session, and imports them. */
    public SheetFiles(AppContext context, SessionFiles files, PathQuestions questions, Exports exports) {
        this.context = context;
        this.files = files;
        this.questions = questions;
        this.exports = exports;
    }

    private static FileKind kind(Form form) {
        return switch (form) {
            case PDF -> FileKind.PDF;
            case HTML -> FileKind.HTML;
            case CSV -> FileKind.CSV;
        };
    }

    /** Asks where, and writes the sheet in the form that the name of the file says. */
    public void export() {
        export(Form.PDF, PaperSize.usual(Texts.users()));
    }

    @Override
    public void export(Form form, PaperSize paper) {
        String name = say("sheet-files.name", files.fileName()) + kind(form).ending();
        exports.ask(kind(form), say("sheet-files.export-the-sheet"), name, path -> {
            Kept kept = context.document().kept();
            return (to, progress) -> write(form(path, form), paper, kept, to);
        });
    }

    /** The form that the ending of a name says. */
    private static Form form(Path path, Form otherwise) {
        String name = path.getFileName().toString().toLowerCase(Locale.ROOT);
        return Arrays.stream(Form.values())
                .filter(form -> kind(form).has(name))
                .findFirst()
                .orElse(otherwise);
    }

    private static void write(Form form, PaperSize paper, Kept kept, OutputStream to) throws IOException {
        Session session = kept.session();
        Sheet sheet = Sheet.of(session, kept.performance(), LocalDate.now());
        switch (form) {
            case PDF -> SheetPdf.write(sheet, session.middleC(), paper, to);
            case HTML -> to.write(bytes(SheetHtml.of(sheet, session.middleC(), paper)));
            case CSV -> to.write(bytes(SheetCsv.of(session)));
        }
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @Override
    public void bringIn(Consumer<Offer> then) {
        questions.askToRead(
                FileKind.CSV,
                say("sheet-files.import-a-sheet"),
                files.exportFolder(),
                say("midi-files.import"),
                (path, done) -> bringIn(path, changed -> {
                    done.run();
                    then.accept(changed);
                }));
    }

    private void bringIn(Path path, Consumer<Offer> then) {
        context.entries().commit();
        Kept kept = context.document().kept();
        context.jobs()
                .start(
                        say("sheet-files.reading", path.getFileName()),
                        progress -> read(path, kept.session()),
                        changed -> then.accept(new Offer(
                                new Other(path.getFileName().toString(), changed, kept.performance()),
                                kept.session(),
                                () -> bringIn(path, then))),
                        e -> context.ask().tell(say("sheet-files.not-imported", PathQuestions.explain(path, e))));
    }

    private static Session read(Path path, Session into) throws IOException {
        byte[] bytes = WholeFile.read(
                path, MAX_BYTES, size -> new IOException(say("sheet-files.too-large", path.getFileName())));
        try {
            return SheetCsv.read(bytes, into);
        } catch (SheetFormatException e) {
            throw new IOException(path.getFileName() + ": " + e.getMessage());
        }
    }

    @Override
    public void choose(Consumer<Other> then) {
        questions.askToRead(
                FileKind.SESSION,
                say("sheet-files.compare-with"),
                files.folder(),
                say("sheet-files.compare"),
                (path, done) -> open(path, done, then));
    }

    @Override
    public void saved(Consumer<Other> then) {
        if (files.file() == null) {
            context.ask().tell(say("sheet-files.not-saved-yet"));
        } else {
            open(files.file(), () -> {}, then);
        }
    }

    private void open(Path path, Runnable done, Consumer<Other> then) {
        context.jobs()
                .start(
                        say("session-files.opening", path.getFileName()),
                        progress -> SessionFile.read(path, progress),
                        opened -> {
                            done.run();
                            then.accept(
                                    new Other(path.getFileName().toString(), opened.session(), opened.performance()));
                        },
                        e -> context.ask().tell(say("session-files.not-opened", PathQuestions.explain(path, e))));
    }
}
