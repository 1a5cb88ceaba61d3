package dibble.desktop.app;

import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Words;
import dibble.edits.StartingPoint;
import dibble.files.DamagedSessionException;
import dibble.files.SessionFile;
import dibble.recording.FileNames;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.Playable;
import dibble.studio.Transport;
import java.nio.file.Path;
import java.util.List;

/** New, open, save, close: each asks in place, tells in one line what went wrong, and loses nothing. */
final class SessionFiles {
    private static final String ENDING = ".dibble";
    private static final int MOST_NAMED = 3;

    private final Workbench workbench;
    private final Desk desk;
    private final PathQuestions questions;
    private final Runnable quit;
    private Path file;
    private Runnable listener = () -> {};

    /** @param quit closes the window for good */
    SessionFiles(Workbench workbench, PathQuestions questions, Runnable quit) {
        this.workbench = workbench;
        this.questions = questions;
        this.quit = quit;
        desk = workbench.desk();
    }

    /** Has somebody told when the session has another file. */
    void onChange(Runnable then) {
        listener = then;
    }

    /** The file of the open session, or null. */
    Path file() {
        return file;
    }

    private void setFile(Path path) {
        file = path;
        workbench.setFile(path);
        listener.run();
    }

    /** The session on the desk has another file: it was brought back. */
    void adopt(Path path) {
        setFile(path);
    }

    /** Starts with nothing. @param after run where that was done */
    void begin(Runnable after) {
        begin(Workbench.newSession(desk.preferences().get()), after);
    }

    /** Starts with a session that is one already. */
    void begin(StartingPoint point) {
        begin(point.session().withMiddleC(desk.preferences().get().middleC()), () -> {});
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
                "Open another session?", () -> questions.askToRead("Open a session", folder(), "Open", this::open));
    }

    /**
     * Opens a file; where that fails, the session that was open stays.
     *
     * @param done run where it is open
     */
    void open(Path path, Runnable done) {
        Session before = desk.session();
        Playable playable = desk.studio().playable();
        desk.jobs()
                .start(
                        "Opening " + path.getFileName(),
                        progress -> {
                            SessionFile.Opened opened = SessionFile.read(path, progress);
                            playable.check(opened.session(), opened.performance());
                            return opened;
                        },
                        opened -> unlessChangedSince(before, "Open " + path.getFileName() + " all the same?", () -> {
                            done.run();
                            setFile(path);
                            workbench.open(opened.session(), opened.performance());
                        }),
                        e -> {
                            if (e instanceof DamagedSessionException) {
                                offerCopy(path, e.getMessage());
                            } else {
                                desk.ask().tell("Not opened: " + PathQuestions.explain(path, e));
                            }
                        });
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
        Session before = desk.session();
        Playable playable = desk.studio().playable();
        desk.jobs()
                .start(
                        "Opening what is there of " + path.getFileName(),
                        progress -> {
                            SessionFile.Salvaged salvaged = SessionFile.salvage(path);
                            playable.check(salvaged.session(), salvaged.performance());
                            return salvaged;
                        },
                        salvaged -> unlessChangedSince(before, "Open the copy all the same?", () -> {
                            setFile(null);
                            Session session = salvaged.session();
                            workbench.openUnsaved(session.withName(session.name() + " (copy)"), salvaged.performance());
                            desk.ask()
                                    .tell("Opened as a copy. "
                                            + Words.count(salvaged.losses().size(), "thing") + " could not be read: "
                                            + some(salvaged.losses()));
                        }),
                        e -> desk.ask().tell("Not opened: " + PathQuestions.explain(path, e)));
    }

    /** The first of some losses, and how many more there are. */
    static String some(List<String> losses) {
        String first = String.join("; ", losses.subList(0, Math.min(MOST_NAMED, losses.size())));
        return losses.size() > MOST_NAMED ? first + "; and " + (losses.size() - MOST_NAMED) + " more" : first;
    }

    void save() {
        save(() -> {});
    }

    void saveAs() {
        saveAs("Save the session as", file != null ? file : suggested(), () -> {});
    }

    private Path suggested() {
        return folder().resolve(fileName() + ENDING);
    }

    /** @param after run where it is saved */
    private void save(Runnable after) {
        if (file == null) {
            saveAs("Save the session as", suggested(), after);
            return;
        }
        Path path = file;
        save(
                path,
                after,
                () -> saveAs(
                        path.getFileName() + " is a bare session, without room for takes. Save the session as",
                        suggested(),
                        after));
    }

    private void saveAs(String question, Path suggested, Runnable after) {
        questions.askToWrite(question, suggested, "Save", (typed, done) -> {
            Path path = typed.toString().endsWith(ENDING) ? typed : Path.of(typed + ENDING);
            Runnable saved = () -> {
                done.run();
                after.run();
            };
            questions.unlessThere(path, file, () -> save(path, saved, () -> {}));
        });
    }

    /**
     * Writes the session as it is now; what is changed meanwhile is not saved by it.
     *
     * @param noRoom run where the file is a bare session, which has no room for what is recorded
     */
    private void save(Path path, Runnable after, Runnable noRoom) {
        Session session = desk.session();
        Performance performance = desk.performance();
        boolean own = path.equals(file);
        desk.jobs()
                .start(
                        "Saving " + path.getFileName(),
                        progress -> {
                            boolean bare = own && SessionFile.isBare(path);
                            if (bare && hasMusic(session)) {
                                return false;
                            }
                            if (bare) {
                                SessionFile.update(path, session, performance);
                            } else {
                                SessionFile.write(path, session, performance, progress);
                            }
                            return true;
                        },
                        saved -> {
                            if (saved) {
                                setFile(path);
                                desk.document().markSaved(session);
                                after.run();
                            } else {
                                noRoom.run();
                            }
                        },
                        e -> desk.ask().tell("Not saved: " + PathQuestions.explain(path, e)));
    }

    private static boolean hasMusic(Session session) {
        return !session.takes().isEmpty()
                || session.tracks().stream().anyMatch(track -> track.clip().size() > 0);
    }

    /** Closes the window, after asking where something would be lost, and when what is under way is done. */
    void close() {
        unlessChanged("Close it?", () -> {
            desk.jobs().running().ifPresent(job -> desk.ask().tell(job.words() + ": the window closes after that."));
            desk.jobs().afterAll(quit);
        });
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
                                    // What is changed while it is saved is asked about again.
                                    new AskBar.Answer("Save first", () -> save(() -> unlessChanged(question, action))),
                                    new AskBar.Answer("Without saving", action)));
        }
    }

    /** The same where it was asked already before something long: only what has changed since is asked about. */
    void unlessChangedSince(Session before, String question, Runnable action) {
        boolean rests = workbench.studio().transport() != Transport.RECORDING;
        if (rests && desk.session() == before) {
            action.run();
        } else {
            unlessChanged(question, action);
        }
    }

    /** Where files of the session are looked for. */
    Path folder() {
        return file != null && file.toAbsolutePath().getParent() != null
                ? file.toAbsolutePath().getParent()
                : Path.of(System.getProperty("user.home"));
    }

    /** What a file of the session is called, without its ending. */
    String fileName() {
        return FileNames.plain(desk.session().name());
    }
}
