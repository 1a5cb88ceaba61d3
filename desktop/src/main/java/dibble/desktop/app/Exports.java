package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.Desk;
import dibble.disk.AtomicFile;
import dibble.work.Progress;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.function.Function;

/** Every export to one file: asked where, and whether another file may be replaced; written beside the interface; told of. */
final class Exports {
    private final Desk desk;
    private final SessionFiles files;
    private final PathQuestions questions;

    /** Writes what is exported, off the interface's thread. */
    interface Making {
        void write(OutputStream to, Progress progress) throws IOException;
    }

    Exports(Desk desk, SessionFiles files, PathQuestions questions) {
        this.desk = desk;
        this.files = files;
        this.questions = questions;
    }

    /**
     * Asks where to, and writes.
     *
     * @param name the name that is suggested, with its ending
     * @param making is asked on the interface's thread, with the path that was chosen, and takes there what it needs
     */
    void ask(PathQuestions.Kind kind, String question, String name, Function<Path, Making> making) {
        questions.askToWrite(
                kind,
                question,
                files.exportFolder().resolve(name),
                say("midi-files.export"),
                (path, done) -> questions.unlessThere(path, files.file(), () -> write(path, making.apply(path), done)));
    }

    private void write(Path path, Making making, Runnable done) {
        desk.jobs()
                .start(
                        say("midi-files.exporting-to", path.getFileName()),
                        progress -> {
                            AtomicFile.write(path, to -> making.write(to, progress));
                            return path;
                        },
                        written -> {
                            done.run();
                            desk.ask().tell(say("midi-files.exported-to", written));
                        },
                        e -> desk.ask().tell(say("midi-files.not-exported", PathQuestions.explain(path, e))));
    }
}
