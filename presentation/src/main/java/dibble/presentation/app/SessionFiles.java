package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.disk.SessionFile;
import dibble.edits.StartingPoint;
import dibble.files.DamagedSessionException;
import dibble.files.SessionContent;
import dibble.presentation.AppContext;
import dibble.presentation.FileKind;
import dibble.presentation.Prompter;
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
public final class SessionFiles {
    private static final Logger LOG = LoggerFactory.getLogger(SessionFiles.class);
    private static final String ENDING = ".dibble";
    private static final int MOST_NAMED = 3;

    private final AppServices services;
    private final AppContext context;
    private final PathQuestions questions;
    private final Runnable quit;
    private Path file;
    private Stamp stamp = Stamp.NONE;
    private Runnable listener = () -> {};
    private Runnable begun = () -> {};

    /** @param quit closes the window for good */
    public SessionFiles(AppServices services, PathQuestions questions, Runnable quit) {
        this.services = services;
        this.questions = questions;
        this.quit = quit;
        context = services.context();
    }

    /** Has somebody told when the session has another file. */
    public void onChange(Runnable then) {
        listener = then;
    }

    /** Has somebody told when a session was opened where there was nothing yet. */
    public void onBegun(Runnable then) {
        begun = then;
    }

    /** The file of the open session, or null. */
    public Path file() {
        return file;
    }

    private void setFile(Path path) {
        file = path;
        stamp = Stamp.of(path);
        if (path != null) {
            context.preferences().remember(memory -> memory.withRecent(path));
        }
        services.setFile(path);
        listener.run();
    }

    /** The session on the desk has another file: it was brought back. */
    void adopt(Path path) {
        setFile(path);
    }

    /** Starts with nothing. @param after run where that was done */
    public void begin(Runnable after) {
        begin(AppServices.newSession(context.preferences().get()), after);
    }

    /** Starts with a session that is one already. */
    public void begin(StartingPoint point) {
        begin(point.session().withMiddleC(context.preferences().get().middleC()), () -> {});
    }

    /** Starts with a session that has no file yet. @param after run where that was done */
    public void begin(Session session, Runnable after) {
        unlessChanged(say("session-files.before-a-new-session"), () -> {
            setFile(null);
            services.open(session, Performance.NEW);
            after.run();
        });
    }

    /** Opens a file, after asking where what is open would be lost. */
    public void openAsked(Path path) {
        unlessChanged(say("session-files.before-opening", path.getFileName()), () -> open(path, () -> {}));
    }

    /** Asks for a session and opens it. */
    public void open() {
        unlessChanged(
                say("session-files.before-another-session"),
                () -> questions.askToRead(
                        FileKind.SESSION,
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
    public void open(Path path, Runnable done) {
        Session before = context.session();
        read(
                path,
                opened -> unlessChangedSince(before, say("session-files.before-opening", path.getFileName()), () -> {
                    boolean wasBare = before.sources().isEmpty();
                    done.run();
                    setFile(path);
                    services.open(opened.session(), opened.performance());
                    if (wasBare) {
                        begun.run();
                    }
                }),
                e -> {
                    if (e instanceof DamagedSessionException) {
                        offerCopy(path, e.getMessage());
                    } else {
                        context.ask().tell(say("session-files.not-opened", PathQuestions.explain(path, e)));
                    }
                });
    }

    /** Reads a session that can be played here. @param failed is given what went wrong */
    void read(Path path, Consumer<SessionContent> then, Consumer<IOException> failed) {
        Playable playable = context.studio().playable();
        context.jobs()
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
        context.ask()
                .ask(
                        say("session-files.the-readable-part-can-be", path.getFileName(), damage),
                        List.of(new Prompter.Answer(say("session-files.open-as-a-copy"), () -> openCopy(path))),
                        say("session-files.cancel"));
    }

    private void openCopy(Path path) {
        Session before = context.session();
        Playable playable = context.studio().playable();
        context.jobs()
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
                            services.openUnsaved(
                                    session.withName(say("session-files.copy", session.name())),
                                    salvaged.performance());
                            context.ask()
                                    .tell(say(
                                            "session-files.opened-as-a-copy-items",
                                            salvaged.losses().size(),
                                            some(salvaged.losses())));
                        }),
                        e -> context.ask().tell(say("session-files.not-opened", PathQuestions.explain(path, e))));
    }

    /** The first of some losses, and how many more there are. */
    static String some(List<String> losses) {
        String first = String.join("; ", losses.subList(0, Math.min(MOST_NAMED, losses.size())));
        return losses.size() > MOST_NAMED ? say("session-files.and-more", first, losses.size() - MOST_NAMED) : first;
    }

    /** Saves the session; asks where if it has no file. */
    public void save() {
        save(() -> {});
    }

    /** Asks where, and saves the session there. */
    public void saveAs() {
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
            context.ask()
                    .ask(
                            say("session-files.was-changed-by-another-program", path.getFileName()),
                            List.of(
                                    new Prompter.Answer(say("session-files.replace"), () -> {
                                        stamp = Stamp.of(path);
                                        save(after);
                                    }),
                                    new Prompter.Answer(
                                            say("window-commands.save-as"), () -> saveAs(suggested(), after))));
            return;
        }
        save(
                path,
                after,
                () -> saveAs(say("session-files.is-a-bare-session-file", path.getFileName()), suggested(), after));
    }

    private void saveAs(String question, Path suggested, Runnable after) {
        questions.askToWrite(FileKind.SESSION, question, suggested, say("common.save"), (typed, done) -> {
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
        Session session = context.document().kept().session();
        Performance performance = context.performance();
        boolean own = path.equals(file);
        context.jobs()
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
                                context.document().markSaved(session, performance);
                                after.run();
                            } else {
                                noRoom.run();
                            }
                        },
                        e -> context.ask().tell(say("session-files.not-saved", PathQuestions.explain(path, e))));
    }

    private static boolean hasMusic(Session session) {
        return !session.takes().isEmpty()
                || session.tracks().stream().anyMatch(track -> track.content().size() > 0);
    }

    /** Closes the window, after asking where something would be lost, and when what is under way is done. */
    public void close() {
        unlessChanged(say("session-files.before-quitting"), () -> {
            context.jobs()
                    .running()
                    .ifPresent(job -> context.ask().tell(say("session-files.the-window-closes-when-it", job.words())));
            context.jobs().afterAll(quit);
        });
    }

    /**
     * Does something that puts the session away, after asking where it has changes or records.
     *
     * @param purpose what is to be done, as it stands behind "before"
     */
    void unlessChanged(String purpose, Runnable action) {
        if (services.studio().transport() == Transport.RECORDING) {
            context.ask()
                    .ask(
                            say("session-files.recording-is-running", purpose),
                            List.of(new Prompter.Answer(say("session-files.stop-recording"), services.studio()::stop)));
        } else if (!context.document().isChanged()) {
            action.run();
        } else {
            context.ask()
                    .ask(
                            say(
                                    "session-files.save-changes-to",
                                    context.session().name(),
                                    purpose),
                            List.of(
                                    // What is changed while it is saved is asked about again.
                                    new Prompter.Answer(
                                            say("session-files.save"),
                                            () -> save(() -> unlessChanged(purpose, action))),
                                    new Prompter.Answer(say("session-files.dont-save"), action)));
        }
    }

    /** The same where it was asked already before something long: only what has changed since is asked about. */
    void unlessChangedSince(Session before, String purpose, Runnable action) {
        boolean rests = services.studio().transport() != Transport.RECORDING;
        if (rests && context.session() == before) {
            action.run();
        } else {
            unlessChanged(purpose, action);
        }
    }

    /** Where files of the session are looked for. */
    public Path folder() {
        return file != null && file.toAbsolutePath().getParent() != null
                ? file.toAbsolutePath().getParent()
                : remembered();
    }

    private Path remembered() {
        return folder(context.preferences().get().sessionFolder())
                .or(() -> folder(context.preferences().memory().lastFolder()))
                .orElseGet(() -> Path.of(System.getProperty("user.home")));
    }

    /** Where exports go: the folder that was set for them, else where the session is. */
    public Path exportFolder() {
        return folder(context.preferences().get().exportFolder()).orElseGet(this::folder);
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
    public String fileName() {
        return FileNames.plain(context.session().name());
    }
}
