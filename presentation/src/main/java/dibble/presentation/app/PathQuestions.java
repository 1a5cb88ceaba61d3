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
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;

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
            Optional<Path> path = parse(typed);
            if (path.isEmpty()) {
                context.ask().tell(say("path-questions.not-a-valid-file-name", typed));
            } else if (!typed.isBlank()) {
                remember(kind, path.get());
                taker.accept(path.get(), done);
            }
        });
    }

    /** Returns the path that was typed, without the quotes that other programs copy along; empty where it is none. */
    public static Optional<Path> parse(String typed) {
        String text = typed.strip();
        boolean isQuoted = text.length() > 1
                && (text.charAt(0) == '"' || text.charAt(0) == '\'')
                && text.charAt(text.length() - 1) == text.charAt(0);
        try {
            return Optional.of(Path.of(isQuoted ? text.substring(1, text.length() - 1) : text));
        } catch (InvalidPathException e) {
            return Optional.empty();
        }
    }

    private void remember(FileKind kind, Path path) {
        Path folder = kind == FileKind.FOLDER ? path : path.toAbsolutePath().getParent();
        if (folder != null) {
            context.preferences().remember(memory -> memory.withFolder(folder));
        }
    }

    private enum Target {
        FREE,
        TAKEN,
        OWN
    }

    /**
     * Writes a file, after asking where another one would be replaced.
     *
     * @param own the file that may be replaced unasked, however its path is typed; null for none
     * @param writing receives the path, or {@code own} where it is the same file
     */
    public void unlessThere(Path path, Path own, Consumer<Path> writing) {
        context.jobs()
                .start(say("path-questions.looking-for", path.getFileName()), progress -> look(path, own), found -> {
                    if (found == Target.TAKEN) {
                        context.ask()
                                .ask(
                                        say("path-questions.already-exists-replace-it", path.getFileName()),
                                        List.of(new Prompter.Answer(
                                                say("path-questions.replace"), () -> writing.accept(path))));
                    } else {
                        writing.accept(found == Target.OWN ? own : path);
                    }
                });
    }

    private static Target look(Path path, Path own) {
        if (own != null && path.toAbsolutePath().equals(own.toAbsolutePath())) {
            return Target.OWN;
        }
        try {
            if (!Files.exists(path)) {
                return Target.FREE;
            }
            return own != null && Files.exists(own) && Files.isSameFile(path, own) ? Target.OWN : Target.TAKEN;
        } catch (IOException e) {
            return Target.TAKEN;
        }
    }

    /** Returns the reason of a failure with a file. */
    public static String explain(Path path, IOException e) {
        return e instanceof SessionFormatException ? path.getFileName() + ": " + e.getMessage() : IoWords.of(e);
    }
}
