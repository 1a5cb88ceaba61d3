package dibble.desktop.app;

import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Words;
import dibble.edits.FileImport;
import dibble.files.AtomicFile;
import dibble.files.DamagedSessionException;
import dibble.files.IoWords;
import dibble.files.SessionFile;
import dibble.files.SessionFormatException;
import dibble.files.Unfinished;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiFormatException;
import dibble.recording.FileNames;
import dibble.recording.TrackExport;
import dibble.routing.Routing;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.Transport;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import javafx.scene.control.TextField;
import javafx.stage.FileChooser;
import javafx.stage.Window;

/** New, open, save, export: each asks in place, tells in one line what went wrong, and loses nothing. */
final class FileActions {
    private static final String ENDING = ".dibble";
    private static final String MIDI_ENDING = ".mid";
    private static final int MOST_NAMED = 3;
    private static final DateTimeFormatter WHEN =
            DateTimeFormatter.ofPattern("d MMM, HH:mm", Locale.ENGLISH).withZone(ZoneId.systemDefault());

    private final Workbench workbench;
    private final Desk desk;
    private Path file;

    FileActions(Workbench workbench) {
        this.workbench = workbench;
        desk = workbench.desk();
    }

    /** The file of the open session, or null. */
    Path file() {
        return file;
    }

    private void setFile(Path path) {
        file = path;
        workbench.setFile(path);
    }

    /** Asks about what an earlier run left behind, where there is something. */
    void offerUnfinished() {
        workbench.unfinished().stream().findFirst().ifPresent(this::offer);
    }

    private void offer(Unfinished left) {
        String what = left.recordings().isEmpty() ? "edits that were not saved" : "a recording that was going on";
        String of = left.file().isEmpty()
                ? "a session that had no file yet"
                : Path.of(left.file()).getFileName().toString();
        desk.ask()
                .ask(
                        "Dibble was ended in the middle on " + WHEN.format(left.when()) + ". It has kept " + what
                                + ", of " + of + ".",
                        List.of(
                                new AskBar.Answer("Bring it back", () -> bringBack(left)),
                                new AskBar.Answer("Throw it away", () -> {
                                    left.discard();
                                    offerUnfinished();
                                })),
                        "Later");
    }

    private void bringBack(Unfinished left) {
        unlessChanged("Bring back the other one?", () -> {
            try {
                List<String> losses = workbench.bringBack(left);
                file = left.file().isEmpty() ? null : Path.of(left.file());
                desk.ask()
                        .tell(
                                losses.isEmpty()
                                        ? "It is back as it was. Save it to keep it."
                                        : "It is back, but not all of it could be read: "
                                                + some(losses.subList(1, losses.size())) + ". What was there stays in "
                                                + losses.get(0));
            } catch (IOException e) {
                desk.ask().tell("Not brought back: " + explain(left.folder(), e) + ". It stays in " + left.folder());
            }
        });
    }

    /** Starts with nothing. @param after run where that was done */
    void newSession(Runnable after) {
        begin(Workbench.newSession(desk.preferences().get()), after);
    }

    /** Starts with a session that is one already. */
    void begin(Session session) {
        begin(session.withMiddleC(desk.preferences().get().middleC()), () -> {});
    }

    private void begin(Session session, Runnable after) {
        unlessChanged("Start a new session?", () -> {
            setFile(null);
            workbench.open(session, Performance.NEW);
            after.run();
        });
    }

    void open() {
        unlessChanged(
                "Open another session?",
                () -> askPath("Open a session", folder().toString() + File.separator, "Open", false, this::open));
    }

    /** Opens a file; where that fails, the session that was open stays. */
    boolean open(Path path) {
        try {
            SessionFile.Opened opened = SessionFile.read(path);
            workbench.checkPlayable(opened.session(), opened.performance());
            setFile(path);
            workbench.open(opened.session(), opened.performance());
            return true;
        } catch (DamagedSessionException e) {
            offerCopy(path, e.getMessage());
            return false;
        } catch (IOException e) {
            desk.ask().tell("Not opened: " + explain(path, e));
            return false;
        } catch (OutOfMemoryError e) {
            desk.ask().tell("Not opened: " + path.getFileName() + " is too large for the memory that Dibble has");
            return false;
        }
    }

    private void offerCopy(Path path, String damage) {
        desk.ask()
                .ask(
                        path.getFileName() + ": " + damage
                                + ". What is there can be opened as a copy; the file stays as it is.",
                        List.of(new AskBar.Answer("Open what is there", () -> openCopy(path))),
                        "Leave it");
    }

    private void openCopy(Path path) {
        try {
            SessionFile.Salvaged salvaged = SessionFile.salvage(path);
            workbench.checkPlayable(salvaged.session(), salvaged.performance());
            setFile(null);
            workbench.openUnsaved(
                    salvaged.session().withName(salvaged.session().name() + " (copy)"), salvaged.performance());
            desk.ask()
                    .tell("Opened as a copy. " + Words.count(salvaged.losses().size(), "thing") + " could not be read: "
                            + some(salvaged.losses()));
        } catch (IOException e) {
            desk.ask().tell("Not opened: " + explain(path, e));
        }
    }

    private static String some(List<String> losses) {
        String first = String.join("; ", losses.subList(0, Math.min(MOST_NAMED, losses.size())));
        return losses.size() > MOST_NAMED ? first + "; and " + (losses.size() - MOST_NAMED) + " more" : first;
    }

    void save() {
        saveThen(() -> {});
    }

    /** Whether the file is a bare session, which has no room for what is recorded now. */
    private boolean isTooSmall() {
        try {
            return SessionFile.isBare(file)
                    && !(desk.session().takes().isEmpty()
                            && desk.session().tracks().stream()
                                    .allMatch(track -> track.clip().size() == 0));
        } catch (IOException e) {
            return false;
        }
    }

    private boolean save(Path path) {
        try {
            if (path.equals(file) && SessionFile.isBare(path)) {
                SessionFile.update(path, desk.session(), desk.performance());
            } else {
                SessionFile.write(path, desk.session(), desk.performance());
            }
            setFile(path);
            desk.document().markSaved();
            return true;
        } catch (IOException e) {
            desk.ask().tell("Not saved: " + explain(path, e));
            return false;
        }
    }

    void saveAs() {
        saveAs(() -> {});
    }

    private void saveAs(Runnable after) {
        saveAs("Save the session as", file != null ? file : folder().resolve(fileName() + ENDING), after);
    }

    private void saveAs(String question, Path suggested, Runnable after) {
        askPath(question, suggested.toString(), "Save", true, typed -> {
            Path path = typed.toString().endsWith(ENDING) ? typed : Path.of(typed + ENDING);
            return unlessThere(path, () -> {
                boolean saved = save(path);
                if (saved) {
                    after.run();
                }
                return saved;
            });
        });
    }

    private boolean hasNothing() {
        boolean nothing =
                desk.session().tracks().stream().allMatch(track -> track.clip().size() == 0);
        if (nothing) {
            desk.ask().tell("Nothing to export yet: record something first.");
        }
        return nothing;
    }

    /** Asks where, and writes the tracks as a file of type 1. */
    void export() {
        export("Export the tracks as a MIDI file", "", () -> exported(desk.session(), desk.routing()));
    }

    /** The same with everything on one track. */
    void exportOneTrack() {
        Session session = desk.session();
        export(
                "Export everything on one track",
                " on one track",
                () -> TrackExport.type0(session.name(), session.tempo(), session.tracks(), desk.routing()));
    }

    private void export(String question, String more, Supplier<MidiFile> file) {
        if (!hasNothing()) {
            Path suggested = folder().resolve(fileName() + more + ".mid");
            askPath(
                    question,
                    suggested.toString(),
                    "Export",
                    true,
                    path -> unlessThere(path, () -> export(path, file)));
        }
    }

    /** Asks for a folder, and writes a file for each track there. */
    void exportFiles() {
        if (!hasNothing()) {
            Path suggested = folder().resolve(fileName() + " tracks");
            askPath("Export a file for each track, into a folder", suggested.toString(), "Export", true, path -> {
                return exportFiles(path);
            });
        }
    }

    private boolean exportFiles(Path into) {
        Session session = desk.session();
        Map<String, MidiFile> files =
                TrackExport.files(session.name(), session.tempo(), session.tracks(), desk.routing());
        try {
            Files.createDirectories(into);
            for (String name : files.keySet()) {
                if (Files.exists(into.resolve(name + MIDI_ENDING))) {
                    desk.ask()
                            .tell("Not exported: " + into.resolve(name + MIDI_ENDING)
                                    + " is there already. Name another folder.");
                    return false;
                }
            }
            for (Map.Entry<String, MidiFile> file : files.entrySet()) {
                AtomicFile.write(
                        into.resolve(file.getKey() + MIDI_ENDING), out -> MidiFileWriter.write(file.getValue(), out));
            }
            desk.ask().tell(Words.count(files.size(), "file") + " exported to " + into);
            return true;
        } catch (IOException e) {
            desk.ask().tell("Not exported: " + explain(into, e));
            return false;
        }
    }

    /** Asks for a MIDI file, which becomes a source with a lane for each of its channels. */
    void bringIn() {
        askPath("Bring in a MIDI file", folder().toString() + File.separator, "Bring in", false, this::bringIn);
    }

    private boolean bringIn(Path path) {
        try {
            String bare = path.getFileName().toString().replaceFirst("\\.[^.]*$", "");
            String name = bare.isBlank() ? "File" : bare;
            MidiFile file = MidiFileReader.read(path);
            FileImport read = FileImport.of(desk.session(), file, name);
            if (read.hasTempo() && !read.take().tempo().equals(desk.session().tempo())) {
                askWhoseTempo(name, file, read);
            } else {
                bringIn(name, file, FileImport.Tempo.OF_THE_SESSION);
            }
            return true;
        } catch (MidiFormatException e) {
            desk.ask().tell("Not brought in: " + path.getFileName() + ": " + e.getMessage());
        } catch (IOException e) {
            desk.ask().tell("Not brought in: " + explain(path, e));
        }
        return false;
    }

    private void askWhoseTempo(String name, MidiFile file, FileImport read) {
        desk.ask()
                .ask(
                        name + " has a tempo of its own, "
                                + Words.tempo(read.take().tempo()) + "; the session has "
                                + Words.tempo(desk.session().tempo())
                                + ". Its notes lie on the same bars either way.",
                        List.of(
                                new AskBar.Answer(
                                        "Take its tempo", () -> bringIn(name, file, FileImport.Tempo.OF_THE_FILE)),
                                new AskBar.Answer(
                                        "Only its bars", () -> bringIn(name, file, FileImport.Tempo.OF_THE_SESSION))),
                        "Leave it out");
    }

    private void bringIn(String name, MidiFile file, FileImport.Tempo whose) {
        FileImport read = FileImport.of(desk.session(), file, name);
        desk.document().edit("bring in " + name, session -> read.into(session, desk.performance(), whose));
        String remarks = file.remarks().isEmpty() ? "" : " " + String.join(" ", file.remarks());
        desk.ask()
                .tell(name + " is a source of "
                        + Words.count(read.source().lanes().size(), "lane")
                        + (read.shared() > 0 ? ", of which " + read.shared() + " share a channel" : "")
                        + ". Lead them to sounds in Channels, then route its take again in Takes." + remarks);
    }

    private boolean export(Path path, Supplier<MidiFile> file) {
        try {
            MidiFile made = file.get();
            AtomicFile.write(path, out -> MidiFileWriter.write(made, out));
            desk.ask().tell("Exported to " + path);
            return true;
        } catch (IOException e) {
            desk.ask().tell("Not exported: " + explain(path, e));
            return false;
        }
    }

    /** The tracks of a session as a type 1 file. */
    static MidiFile exported(Session session, Routing routing) {
        return TrackExport.type1(session.name(), session.tempo(), session.tracks(), routing);
    }

    /** Does something that puts the session away, after asking where it has changes or records. */
    void unlessChanged(String question, Runnable action) {
        if (workbench.studio().transport() == Transport.RECORDING) {
            desk.ask()
                    .ask(
                            "It is recording. " + question,
                            List.of(new AskBar.Answer("Stop recording first", workbench.studio()::stop)));
        } else if (!desk.document().isChanged()) {
            action.run();
        } else {
            desk.ask()
                    .ask(
                            desk.session().name() + " has changes that are not saved. " + question,
                            List.of(
                                    new AskBar.Answer("Save first", () -> saveThen(action)),
                                    new AskBar.Answer("Without saving", action)));
        }
    }

    private void saveThen(Runnable action) {
        if (file == null) {
            saveAs(action);
        } else if (isTooSmall()) {
            saveAs(
                    file.getFileName() + " is a bare session, without room for takes. Save the session as",
                    folder().resolve(fileName() + ENDING),
                    action);
        } else if (save(file)) {
            action.run();
        }
    }

    /** Writes a file, after asking where another one would be replaced; true where the first question is done with. */
    private boolean unlessThere(Path path, BooleanSupplier writing) {
        boolean other =
                Files.exists(path) && (file == null || !path.toAbsolutePath().equals(file.toAbsolutePath()));
        if (!other) {
            return writing.getAsBoolean();
        }
        desk.ask()
                .ask(
                        path.getFileName() + " is there already. Replace it?",
                        List.of(new AskBar.Answer("Replace it", writing::getAsBoolean)));
        return false;
    }

    private interface PathTaker {
        boolean take(Path path);
    }

    private void askPath(String question, String text, String verb, boolean saving, PathTaker taker) {
        AskBar.Answer browse = new AskBar.Answer("Browse…", () -> browse(saving));
        desk.ask().askText(question, text, verb, Main.isOffScreen() ? List.of() : List.of(browse), typed -> {
            try {
                Path path = Path.of(typed);
                return !typed.isEmpty() && taker.take(path);
            } catch (InvalidPathException e) {
                desk.ask().tell("No file can have this name: " + typed);
                return false;
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

    private Path folder() {
        return file != null && file.toAbsolutePath().getParent() != null
                ? file.toAbsolutePath().getParent()
                : Path.of(System.getProperty("user.home"));
    }

    private String fileName() {
        return FileNames.plain(desk.session().name());
    }

    private static String explain(Path path, IOException e) {
        return e instanceof SessionFormatException ? path.getFileName() + ": " + e.getMessage() : IoWords.of(e);
    }
}
