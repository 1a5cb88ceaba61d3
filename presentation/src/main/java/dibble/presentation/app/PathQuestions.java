package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.files.IoWords;
import dibble.files.SessionFormatException;
import dibble.presentation.AppContext;
import dibble.presentation.FileKind;
import dibble.presentation.Prompter;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.BiConsumer;

/** Asks for files in place: a line with the path, and the system's dialog behind a button. */
public final class PathQuestions {
    private final AppContext context;

    /** Asks through the application's prompter. */
    public PathQuestions(AppContext context) {
        this.context = context;
    }

    /**
     * Asks for a file to read.
     *
     * @param taker is given the path, and what takes the question away; it stays until then
     */
    public void askToRead(FileKind kind, String question, Path folder, String verb, BiConsumer<Path, Runnable> taker) {
        ask(kind, question, folder + File.separator, verb, false, taker);
    }

    /** Asks for a file or folder to write. */
    public void askToWrite(
            FileKind kind, String question, Path suggested, String verb, BiConsumer<Path, Runnable> taker) {
        ask(kind, question, suggested.toString(), verb, true, taker);
    }

    private void ask(
            FileKind kind,
            String question,
            String text,
            String verb,
            boolean saving,
            BiConsumer<Path, Runnable> taker) {
        context.ask().askPath(kind, question, text, verb, saving, (typed, done) -> {
            try {
                Path path = Path.of(typed);
                if (!typed.isEmpty()) {
                    remember(kind, path);
                    taker.accept(path, done);
                }
            } catch (InvalidPathException e) {
                context.ask().tell(say("path-questions.not-a-valid-file-name", typed));
            }
        });
    }

    private void remember(FileKind kind, Path path) {
        Path folder = kind == FileKind.FOLDER ? path : path.toAbsolutePath().getParent();
        if (folder != null && Files.isDirectory(folder)) {
            context.preferences().remember(memory -> memory.withFolder(folder));
        }
    }

    /** Writes a file, after asking where another one would be replaced. */
    public void unlessThere(Path path, Path own, Runnable writing) {
        boolean isOwn = own != null && path.toAbsolutePath().equals(own.toAbsolutePath());
        if (isOwn || !Files.exists(path)) {
            writing.run();
        } else {
            context.ask()
                    .ask(
                            say("path-questions.already-exists-replace-it", path.getFileName()),
                            List.of(new Prompter.Answer(say("path-questions.replace"), writing)));
        }
    }

    /** What went wrong with a file, in words. */
    public static String explain(Path path, IOException e) {
        return e instanceof SessionFormatException ? path.getFileName() + ": " + e.getMessage() : IoWords.of(e);
    }
}
