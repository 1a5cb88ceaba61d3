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
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Window;

/** Asks for files in place: a line with the path, and the system's dialog behind a button. */
final class PathQuestions {
    private final Desk desk;

    /** What kinds of files are asked for. */
    enum Kind {
        SESSION(say("path-questions.dibble-sessions"), "*.dibble", "*.json"),
        MIDI(say("path-questions.midi-files"), "*.mid", "*.midi", "*.rmi", "*.kar"),
        SOUNDS(say("path-questions.sound-files"), "*.sf2", "*.dls"),
        PDF(say("path-questions.pdf-files"), "*.pdf"),
        HTML(say("path-questions.web-pages"), "*.html", "*.htm"),
        CSV(say("path-questions.csv-files"), "*.csv"),
        NAMES(say("path-questions.names"), "*.midnam", "*.xml", "*.csv", "*.txt"),
        SET(say("path-questions.sets"), "*.dibbleset"),
        FOLDER("");

        private final String words;
        private final List<String> endings;

        Kind(String words, String... endings) {
            this.words = words;
            this.endings = List.of(endings);
        }

        /** How names of such files usually end. */
        String ending() {
            return endings.get(0).substring(1);
        }

        /** Whether a file of this name is of this kind. @param name in small letters */
        boolean has(String name) {
            return endings.stream().anyMatch(ending -> name.endsWith(ending.substring(1)));
        }
    }

    PathQuestions(Desk desk) {
        this.desk = desk;
    }

    /**
     * Asks for a file to read.
     *
     * @param taker is given the path, and what takes the question away; it stays until then
     */
    void askToRead(Kind kind, String question, Path folder, String verb, BiConsumer<Path, Runnable> taker) {
        ask(kind, question, folder + File.separator, verb, false, taker);
    }

    /** Asks for a file or folder to write. */
    void askToWrite(Kind kind, String question, Path suggested, String verb, BiConsumer<Path, Runnable> taker) {
        ask(kind, question, suggested.toString(), verb, true, taker);
    }

    private void ask(
            Kind kind, String question, String text, String verb, boolean saving, BiConsumer<Path, Runnable> taker) {
        AskBar.Answer browse = new AskBar.Answer(say("path-questions.browse"), () -> browse(kind, saving));
        desk.ask().askText(question, text, verb, Main.isOffScreen() ? List.of() : List.of(browse), (typed, done) -> {
            try {
                Path path = Path.of(typed);
                if (!typed.isEmpty()) {
                    remember(kind, path);
                    taker.accept(path, done);
                }
            } catch (InvalidPathException e) {
                desk.ask().tell(say("path-questions.not-a-valid-file-name", typed));
            }
        });
    }

    private void remember(Kind kind, Path path) {
        Path folder = kind == Kind.FOLDER ? path : path.toAbsolutePath().getParent();
        if (folder != null && Files.isDirectory(folder)) {
            desk.preferences().remember(memory -> memory.withFolder(folder));
        }
    }

    private void browse(Kind kind, boolean saving) {
        TextField field = (TextField) desk.ask().lookup("#ask-field");
        Path typed = Path.of(field.getText());
        File parent = typed.getParent() == null ? null : typed.getParent().toFile();
        File folder = parent != null && parent.isDirectory() ? parent : null;
        Window window = desk.ask().getScene().getWindow();
        File chosen;
        if (kind == Kind.FOLDER) {
            DirectoryChooser chooser = new DirectoryChooser();
            chooser.setInitialDirectory(folder);
            chosen = chooser.showDialog(window);
        } else {
            FileChooser chooser = new FileChooser();
            chooser.setInitialDirectory(folder);
            chooser.getExtensionFilters()
                    .setAll(
                            new FileChooser.ExtensionFilter(kind.words, kind.endings),
                            new FileChooser.ExtensionFilter(say("path-questions.all-files"), "*"));
            if (saving) {
                chooser.setInitialFileName(
                        typed.getFileName() == null ? "" : typed.getFileName().toString());
            }
            chosen = saving ? chooser.showSaveDialog(window) : chooser.showOpenDialog(window);
        }
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
                            say("path-questions.already-exists-replace-it", path.getFileName()),
                            List.of(new AskBar.Answer(say("path-questions.replace"), writing)));
        }
    }

    /** What went wrong with a file, in words. */
    static String explain(Path path, IOException e) {
        return e instanceof SessionFormatException ? path.getFileName() + ": " + e.getMessage() : IoWords.of(e);
    }
}
