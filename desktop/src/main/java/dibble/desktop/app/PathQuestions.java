package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Desk;
import dibble.files.IoWords;
import dibble.files.SessionFormatException;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.BiConsumer;
import javafx.scene.control.TextField;
import javafx.stage.FileChooser;
import javafx.stage.Window;

/** Asks for files in place: a line with the path, and the system's dialog behind a button. */
final class PathQuestions {
    private final Desk desk;

    PathQuestions(Desk desk) {
        this.desk = desk;
    }

    /**
     * Asks for a file to read.
     *
     * @param taker is given the path, and what takes the question away; it stays until then
     */
    void askToRead(String question, Path folder, String verb, BiConsumer<Path, Runnable> taker) {
        ask(question, folder + File.separator, verb, false, taker);
    }

    /** Asks for a file or folder to write. */
    void askToWrite(String question, Path suggested, String verb, BiConsumer<Path, Runnable> taker) {
        ask(question, suggested.toString(), verb, true, taker);
    }

    private void ask(String question, String text, String verb, boolean saving, BiConsumer<Path, Runnable> taker) {
        AskBar.Answer browse = new AskBar.Answer(say("path-questions.browse"), () -> browse(saving));
        desk.ask().askText(question, text, verb, Main.isOffScreen() ? List.of() : List.of(browse), (typed, done) -> {
            try {
                Path path = Path.of(typed);
                if (!typed.isEmpty()) {
                    taker.accept(path, done);
                }
            } catch (InvalidPathException e) {
                desk.ask().tell(say("path-questions.no-file-can-have-this", typed));
            }
        });
    }

    private void browse(boolean saving) {
        TextField field = (TextField) desk.ask().lookup("#ask-field");
        FileChooser chooser = new FileChooser();
        Path typed = Path.of(field.getText());
        File folder = typed.getParent() == null ? null : typed.getParent().toFile();
        if (folder != null && folder.isDirectory()) {
            chooser.setInitialDirectory(folder);
        }
        Window window = desk.ask().getScene().getWindow();
        File chosen = saving ? chooser.showSaveDialog(window) : chooser.showOpenDialog(window);
        if (chosen != null) {
            field.setText(chosen.getPath());
        }
    }

    /** Writes a file, after asking where another one would be replaced. */
    void unlessThere(Path path, Path own, Runnable writing) {
        boolean isOwn = own != null && path.toAbsolutePath().equals(own.toAbsolutePath());
        if (isOwn || !Files.exists(path)) {
            writing.run();
        } else {
            desk.ask()
                    .ask(
                            say("path-questions.is-there-already-replace-it", path.getFileName()),
                            List.of(new AskBar.Answer(say("path-questions.replace-it"), writing)));
        }
    }

    /** What went wrong with a file, in words. */
    static String explain(Path path, IOException e) {
        return e instanceof SessionFormatException ? path.getFileName() + ": " + e.getMessage() : IoWords.of(e);
    }
}
