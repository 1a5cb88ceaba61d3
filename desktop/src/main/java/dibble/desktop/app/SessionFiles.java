package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Desk;
import dibble.disk.SessionFile;
import dibble.edits.StartingPoint;
import dibble.files.DamagedSessionException;
import dibble.files.SessionContent;
import dibble.recording.FileNames;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.Playable;
import dibble.studio.Transport;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** New, open, save, close: each asks in place, tells in one line what went wrong, and loses nothing. */
final class SessionFiles {
    private static final Logger LOG = LoggerFactory.getLogger(SessionFiles.class);
    private static final String ENDING = ".dibble";
    private static final int MOST_NAMED = 3;

    private final Workbench workbench;
    private final Desk desk;
    private final PathQuestions questions;
    private final Runnable quit;
    private Path file;
    private Stamp stamp = Stamp.NONE;
    private Runnable listener = () -> {};
    private Runnable begun = () -> {};

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

    /** Has somebody told when a session was opened where there was nothing yet. */
    void onBegun(Runnable then) {
        begun = then;
    }

    /** The file of the open session, or null. */
    Path file() {
        return file;
    }

    private void setFile(Path path) {
        file = path;
        stamp = Stamp.of(path);
        if (path != null) {
            desk.preferences().remember(memory -> memory.withRecent(path));
        }
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

    /** Starts with a session that has no file yet. @param after run where that was done */
    void begin(Session session, Runnable after) {
        unlessChanged(say("session-files.before-a-new-session"), () -> {
            setFile(null);
            workbench.open(session, Performance.NEW);
            after.run();
        });
    }

    /** Opens a file, after asking where what is open would be lost. */
    void openAsked(Path path) {
        unlessChanged(say("session-files.before-opening", path.getFileName()), () -> open(path, () -> {}));
    }

    void open() {
        unlessChanged(
                say("session-files.before-another-session"),
                () -> questions.askToRead(
                        PathQuestions.Kind.SESSION,
                        say("session-files.open-a-session"),
                        folder(),
                        say("session-files.open"),
                        this::open));
    }

    /**
     * Opens a file; where that fails, the session that was open stays.
     *
     * @param done run where it is open
     */
    void open(Path path, Runnable done) {
        Session before = desk.session();
        read(
                path,
                opened -> unlessChangedSince(before, say("session-files.before-opening", path.getFileName()), () -> {
                    boolean wasBare = before.sources().isEmpty();
                    done.run();
                    setFile(path);
                    workbench.open(opened.session(), opened.performance());
                    if (wasBare) {
                        begun.run();
                    }
                }),
                e -> {
                    if (e instanceof DamagedSessionException) {
                        offerCopy(path, e.getMessage());
                    } else {
                        desk.ask().tell(say("session-files.not-opened", PathQuestions.explain(path, e)));
                    }
                });
    }

    /** Reads a session that can be played here. @param failed is given what went wrong */
    void read(Path path, Consumer<SessionContent> then, Consumer<IOException> failed) {
        Playable playable = desk.studio().playable();
        desk.jobs()
                .start(
                        say("session-files.opening", path.getFileName()),
                        progress -> {
                            SessionContent opened = SessionFile.read(path, progress);
                            playable.check(opened.session(), opened.performance());
                            return opened;
                        },
                        then,
                        failed);
    }

    private void offerCopy(Path path, String damage) {
        desk.ask()
                .ask(
                        say("session-files.the-readable-part-can-be", path.getFileName(), damage),
                        List.of(new AskBar.Answer(say("session-files.open-as-a-copy"), () -> openCopy(path))),
                        say("session-files.cancel"));
    }

    private void openCopy(Path path) {
        Session before = desk.session();
        Playable playable = desk.studio().playable();
        desk.jobs()
                .start(
                        say("session-files.opening-the-readable-part-of", path.getFileName()),
                        progress -> {
                            SessionFile.Salvaged salvaged = SessionFile.salvage(path);
                            playable.check(salvaged.session(), salvaged.performance());
                            return salvaged;
                        },
                        salvaged -> unlessChangedSince(before, say("session-files.before-the-copy"), () -> {
                            setFile(null);
                            Session session = salvaged.session();
                            workbench.openUnsaved(
                                    session.withName(say("session-files.copy", session.name())),
                                    salvaged.performance());
                            desk.ask()
                                    .tell(say(
                                            "session-files.opened-as-a-copy-items",
                                            salvaged.losses().size(),
                                            some(salvaged.losses())));
                        }),
                        e -> desk.ask().tell(say("session-files.not-opened", PathQuestions.explain(path, e))));
    }

    /** The first of some losses, and how many more there are. */
    static String some(List<String> losses) {
        String first = String.join("; ", losses.subList(0, Math.min(MOST_NAMED, losses.size())));
        return losses.size() > MOST_NAMED ? say("session-files.and-more", first, losses.size() - MOST_NAMED) : first;
    }

    void save() {
        save(() -> {});
    }

    void saveAs() {
        saveAs(file != null ? file : suggested(), () -> {});
    }

    private void saveAs(Path suggested, Runnable after) {
        saveAs(say("session-files.save-the-session-as"), suggested, after);
    }

    private Path suggested() {
        return folder().resolve(fileName() + ENDING);
    }

    /** @param after run where it is saved */
    private void save(Runnable after) {
        if (file == null) {
            saveAs(suggested(), after);
            return;
        }
        Path path = file;
        if (!Stamp.of(path).equals(stamp)) {
            desk.ask()
                    .ask(
                            say("session-files.was-changed-by-another-program", path.getFileName()),
                            List.of(
                                    new AskBar.Answer(say("session-files.replace"), () -> {
                                        stamp = Stamp.of(path);
                                        save(after);
                                    }),
                                    new AskBar.Answer(
                                            say("window-commands.save-as"), () -> saveAs(suggested(), after))));
            return;
        }
        save(
                path,
                after,
                () -> saveAs(say("session-files.is-a-bare-session-file", path.getFileName()), suggested(), after));
    }

    private void saveAs(String question, Path suggested, Runnable after) {
        questions.askToWrite(PathQuestions.Kind.SESSION, question, suggested, say("common.save"), (typed, done) -> {
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
        Session session = desk.document().kept().session();
        Performance performance = desk.performance();
        boolean own = path.equals(file);
        desk.jobs()
                .start(
                        say("session-files.saving", path.getFileName()),
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
                                desk.document().markSaved(session, performance);
                                after.run();
                            } else {
                                noRoom.run();
                            }
                        },
                        e -> desk.ask().tell(say("session-files.not-saved", PathQuestions.explain(path, e))));
    }

    private static boolean hasMusic(Session session) {
        return !session.takes().isEmpty()
                || session.tracks().stream().anyMatch(track -> track.content().size() > 0);
    }

    /** Closes the window, after asking where something would be lost, and when what is under way is done. */
    void close() {
        unlessChanged(say("session-files.before-quitting"), () -> {
            desk.jobs()
                    .running()
                    .ifPresent(job -> desk.ask().tell(say("session-files.the-window-closes-when-it", job.words())));
            desk.jobs().afterAll(quit);
        });
    }

    /**
     * Does something that puts the session away, after asking where it has changes or records.
     *
     * @param purpose what is to be done, as it stands behind "before"
     */
    void unlessChanged(String purpose, Runnable action) {
        if (workbench.studio().transport() == Transport.RECORDING) {
            desk.ask()
                    .ask(
                            say("session-files.recording-is-running", purpose),
                            List.of(new AskBar.Answer(say("session-files.stop-recording"), workbench.studio()::stop)));
        } else if (!desk.document().isChanged()) {
            action.run();
        } else {
            desk.ask()
                    .ask(
                            say("session-files.save-changes-to", desk.session().name(), purpose),
                            List.of(
                                    // What is changed while it is saved is asked about again.
                                    new AskBar.Answer(
                                            say("session-files.save"),
                                            () -> save(() -> unlessChanged(purpose, action))),
                                    new AskBar.Answer(say("session-files.dont-save"), action)));
        }
    }

    /** The same where it was asked already before something long: only what has changed since is asked about. */
    void unlessChangedSince(Session before, String purpose, Runnable action) {
        boolean rests = workbench.studio().transport() != Transport.RECORDING;
        if (rests && desk.session() == before) {
            action.run();
        } else {
            unlessChanged(purpose, action);
        }
    }

    /** Where files of the session are looked for. */
    Path folder() {
        return file != null && file.toAbsolutePath().getParent() != null
                ? file.toAbsolutePath().getParent()
                : remembered();
    }

    private Path remembered() {
        return folder(desk.preferences().get().sessionFolder())
                .or(() -> folder(desk.preferences().memory().lastFolder()))
                .orElseGet(() -> Path.of(System.getProperty("user.home")));
    }

    /** Where exports go: the folder that was set for them, else where the session is. */
    Path exportFolder() {
        return folder(desk.preferences().get().exportFolder()).orElseGet(this::folder);
    }

    private static Optional<Path> folder(String last) {
        try {
            if (last != null && !last.isBlank() && Files.isDirectory(Path.of(last))) {
                return Optional.of(Path.of(last));
            }
        } catch (InvalidPathException e) {
            LOG.debug("no folder of this system: {}", last);
        }
        return Optional.empty();
    }

    /** What a file of the session is called, without its ending. */
    String fileName() {
        return FileNames.plain(desk.session().name());
    }
}
