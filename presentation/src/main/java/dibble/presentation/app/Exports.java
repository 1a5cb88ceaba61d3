package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.disk.AtomicFile;
import dibble.presentation.AppContext;
import dibble.presentation.FileKind;
import dibble.work.Progress;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.function.Function;

/** Every export to one file: asked where, and whether another file may be replaced; written beside the interface; told of. */
public final class Exports {
    private final AppContext context;
    private final SessionFiles files;
    private final PathQuestions questions;

    /** Writes the exported content, in the background. */
    interface Making {
        void write(OutputStream to, Progress progress) throws IOException;
    }

    /** Exports beside the files of the open session. */
    public Exports(AppContext context, SessionFiles files, PathQuestions questions) {
        this.context = context;
        this.files = files;
        this.questions = questions;
    }

    /**
     * Asks for a path, and exports.
     *
     * @param name the suggested file name, with its extension
     * @param making called on the interface thread with the chosen path; collects the content there
     */
    void ask(FileKind kind, String question, String name, Function<Path, Making> making) {
        context.entries().commit();
        questions.askToWrite(
                kind,
                question,
                files.exportFolder().resolve(name),
                say("midi-files.export"),
                (path, done) -> questions.unlessThere(path, null, to -> write(to, making.apply(to), done)));
    }

    private void write(Path path, Making making, Runnable done) {
        context.jobs()
                .start(
                        say("midi-files.exporting-to", path.getFileName()),
                        progress -> {
                            AtomicFile.write(path, to -> making.write(to, progress), progress);
                            return path;
                        },
                        written -> {
                            done.run();
                            context.ask().tell(say("midi-files.exported-to", written));
                        },
                        e -> context.ask().tell(say("midi-files.not-exported", PathQuestions.explain(path, e))));
    }
}
