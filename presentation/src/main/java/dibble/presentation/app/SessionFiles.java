package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.disk.FileStamp;
import dibble.disk.SessionFile;
import dibble.edits.StartingPoint;
import dibble.files.DamagedSessionException;
import dibble.files.SessionContent;
import dibble.presentation.AppContext;
import dibble.presentation.FileKind;
import dibble.presentation.Jobs;
import dibble.presentation.Prompter;
import dibble.recording.FileNames;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.Playable;
import dibble.studio.Transport;
import dibble.system.AsyncValue;
import dibble.system.Workers;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** New, open, save and close. Each asks where necessary, reports a failure in one line, and loses nothing. */
public final class SessionFiles {
    private static final Logger LOG = LoggerFactory.getLogger(SessionFiles.class);
    private static final String ENDING = ".dibble";
    private static final int MAX_NAMED = 3;

    private final AppServices services;
    private final AppContext context;
    private final PathQuestions questions;
    private final Runnable quit;
    private final Map<Path, AsyncValue<Boolean>> folders = new HashMap<>();
    private Path file;

    /** The version of the file that the session comes from. */
    private FileStamp stamp = FileStamp.NONE;

    private Runnable listener = () -> {};
    private Runnable begun = () -> {};

    /** @param quit closes the window for good */
    public SessionFiles(AppServices services, PathQuestions questions, Runnable quit) {
        this.services = services;
        this.questions = questions;
        this.quit = quit;
        context = services.context();
        // Begins to look for the folders, so that it is known whether they are there when they are asked for.
        folder();
        exportFolder();
    }

    /** Sets a listener for another file of the session. */
    public void onChange(Runnable then) {
        listener = then;
    }

    /** Sets a listener for a session that was opened in an empty window. */
    public void onBegun(Runnable then) {
        begun = then;
    }

    /** The file of the open session, or null. */
    public Path file() {
        return file;
    }

    /**
     * The session on the desk has another file.
     *
     * @param path null for none
     * @param version the version of the file that the session comes from
     */
    void adopt(Path path, FileStamp version) {
        file = path;
        stamp = version;
        if (path != null) {
            context.preferences().remember(memory -> memory.withRecent(path));
        }
        services.setFile(path, version);
        listener.run();
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
            adopt(null, FileStamp.NONE);
            services.open(session, Performance.NEW);
            after.run();
        });
    }

    /** Opens a file. */
    public void openAsked(Path path) {
        open(path, () -> {});
    }

    /** Asks for a session and opens it. */
    public void open() {
        questions.askToRead(
                FileKind.SESSION, say("session-files.open-a-session"), folder(), say("session-files.open"), this::open);
    }

    /**
     * Opens a file, after a question if the open session has unsaved changes. If it cannot be read, the open session
     * stays.
     *
     * @param done runs after the file was read
     */
    public void open(Path path, Runnable done) {
        read(
                path,
                null,
                opened -> {
                    done.run();
                    unlessChanged(say("session-files.before-opening", path.getFileName()), () -> {
                        boolean wasBare = context.session().sources().isEmpty();
                        adopt(path, opened.stamp());
                        services.open(
                                opened.content().session(), opened.content().performance());
                        if (wasBare) {
                            begun.run();
                        }
                    });
                },
                e -> {
                    if (e instanceof DamagedSessionException) {
                        offerCopy(path, e.getMessage());
                    } else {
                        context.ask().tell(say("session-files.not-opened", PathQuestions.explain(path, e)));
                    }
                });
    }

    /** The content of a file, with the version of the file. */
    record Loaded(SessionContent content, FileStamp stamp) {}

    /**
     * Reads a session for playing.
     *
     * @param known the content from an earlier read, or null; used if the file is unchanged
     * @param failed receives the failure
     */
    void read(Path path, Loaded known, Consumer<Loaded> then, Consumer<IOException> failed) {
        Playable playable = context.studio().playable();
        context.jobs()
                .start(
                        say("session-files.opening", path.getFileName()),
                        progress -> {
                            // Before it is read: who writes it meanwhile is noticed when it is saved.
                            FileStamp stamp = FileStamp.of(path);
                            if (known != null && known.stamp.equals(stamp)) {
                                return known;
                            }
                            SessionContent opened = SessionFile.read(path, progress);
                            playable.check(opened.session(), opened.performance());
                            return new Loaded(opened, stamp);
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
        Playable playable = context.studio().playable();
        context.jobs()
                .start(
                        say("session-files.opening-the-readable-part-of", path.getFileName()),
                        progress -> {
                            SessionFile.Salvaged salvaged = SessionFile.salvage(path);
                            playable.check(salvaged.session(), salvaged.performance());
                            return salvaged;
                        },
                        salvaged -> unlessChanged(say("session-files.before-the-copy"), () -> {
                            adopt(null, FileStamp.NONE);
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
        String first = String.join("; ", losses.subList(0, Math.min(MAX_NAMED, losses.size())));
        return losses.size() > MAX_NAMED ? say("session-files.and-more", first, losses.size() - MAX_NAMED) : first;
    }

    /** Saves the session; asks where if it has no file. */
    public void save() {
        context.entries().commit();
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
        save(file, stamp, after);
    }

    private void askToReplace(Path path, Runnable after) {
        context.ask()
                .ask(
                        say("session-files.was-changed-by-another-program", path.getFileName()),
                        List.of(
                                new Prompter.Answer(say("session-files.replace"), () -> save(path, null, after)),
                                new Prompter.Answer(say("window-commands.save-as"), () -> saveAs(suggested(), after))));
    }

    private void saveAs(String question, Path suggested, Runnable after) {
        context.entries().commit();
        questions.askToWrite(FileKind.SESSION, question, suggested, say("common.save"), (typed, done) -> {
            Path path = typed.toString().endsWith(ENDING) ? typed : Path.of(typed + ENDING);
            Runnable saved = () -> {
                done.run();
                after.run();
            };
            questions.unlessThere(path, file, to -> save(to, to.equals(file) ? stamp : null, saved));
        });
    }

    /** Why a session was not written. */
    private enum Saving {
        /** The file is a bare session, which cannot hold recordings. */
        NO_ROOM,
        /** The file is another version than the session comes from. */
        CHANGED
    }

    /** The result of writing: the version of the file, or a reason for its absence. */
    private record Saved(FileStamp stamp, Saving reason) {}

    /**
     * Writes the present session; later changes are not part of it.
     *
     * @param expected the version of the file that may be replaced; null for any
     * @param after runs after the session was written; otherwise the user is asked
     */
    private void save(Path path, FileStamp expected, Runnable after) {
        Session session = context.document().kept().session();
        Performance performance = context.performance();
        boolean own = path.equals(file);
        context.jobs()
                .start(
                        say("session-files.saving", path.getFileName()),
                        progress -> {
                            if (expected != null && !expected.equals(FileStamp.of(path))) {
                                return new Saved(null, Saving.CHANGED);
                            }
                            boolean bare = own && SessionFile.isBare(path);
                            if (bare && hasMusic(session)) {
                                return new Saved(null, Saving.NO_ROOM);
                            }
                            if (bare) {
                                SessionFile.update(path, session, performance, progress);
                            } else {
                                SessionFile.write(path, session, performance, progress);
                            }
                            return new Saved(FileStamp.of(path), null);
                        },
                        saved -> {
                            if (saved.reason == Saving.NO_ROOM) {
                                saveAs(
                                        say("session-files.is-a-bare-session-file", path.getFileName()),
                                        suggested(),
                                        after);
                            } else if (saved.reason == Saving.CHANGED) {
                                askToReplace(path, after);
                            } else {
                                adopt(path, saved.stamp);
                                context.document().markSaved(session, performance);
                                after.run();
                            }
                        },
                        e -> context.ask().tell(say("session-files.not-saved", PathQuestions.explain(path, e))));
    }

    private static boolean hasMusic(Session session) {
        return !session.takes().isEmpty()
                || session.tracks().stream().anyMatch(track -> track.content().size() > 0);
    }

    /**
     * Closes the window, after a question about unsaved changes, and after running jobs. Later edits and recordings are
     * asked about again.
     */
    public void close() {
        unlessChanged(say("session-files.before-quitting"), () -> {
            Session let = context.document().kept().session();
            context.jobs()
                    .running()
                    .ifPresent(job -> context.ask().tell(say("session-files.the-window-closes-when-it", job.words())));
            context.jobs().afterAll(() -> {
                if (isAt(let)) {
                    quit.run();
                } else {
                    close();
                }
            });
        });
    }

    /** Returns true if this is still the session, and nothing is recorded. */
    private boolean isAt(Session session) {
        return context.document().kept().session() == session
                && services.studio().transport() != Transport.RECORDING;
    }

    /**
     * Runs an action that replaces the session, after a question if it has unsaved changes or is recording. Called at
     * the moment of the replacement: changes until the answer are asked about again.
     *
     * @param purpose the action, as in the text after "before"
     */
    void unlessChanged(String purpose, Runnable action) {
        context.entries().commit();
        context.document().cancelGesture();
        Optional<Jobs.Job> edit = context.jobs().editing();
        if (edit.isPresent()) {
            context.ask().tell(say("session-files.waits-for-an-edit", edit.get().words()));
            context.jobs().afterAll(() -> unlessChanged(purpose, action));
            return;
        }
        if (services.studio().transport() == Transport.RECORDING) {
            context.ask()
                    .ask(
                            say("session-files.recording-is-running", purpose),
                            List.of(new Prompter.Answer(say("session-files.stop-recording"), services.studio()::stop)));
        } else if (!context.document().isChanged()) {
            action.run();
        } else {
            Session asked = context.document().kept().session();
            context.ask()
                    .ask(
                            say(
                                    "session-files.save-changes-to",
                                    context.session().name(),
                                    purpose),
                            List.of(
                                    // Changes during the save are asked about again.
                                    new Prompter.Answer(
                                            say("session-files.save"),
                                            () -> save(() -> unlessChanged(purpose, action))),
                                    new Prompter.Answer(say("session-files.dont-save"), () -> {
                                        if (isAt(asked)) {
                                            action.run();
                                        } else {
                                            unlessChanged(purpose, action);
                                        }
                                    })));
        }
    }

    /** Returns the initial folder for files of the session. */
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

    /** Returns the folder for exports: the one in the settings, else that of the session. */
    public Path exportFolder() {
        return folder(context.preferences().get().exportFolder()).orElseGet(this::folder);
    }

    private Optional<Path> folder(String last) {
        try {
            if (last != null && !last.isBlank()) {
                Path folder = Path.of(last);
                // Looked for in the background: until it is known, the folder is taken to be there.
                boolean isThere = folders.computeIfAbsent(
                                folder,
                                it -> AsyncValue.compute(Workers.shared().files(), () -> Files.isDirectory(it)))
                        .value()
                        .orElse(true);
                return isThere ? Optional.of(folder) : Optional.empty();
            }
        } catch (InvalidPathException e) {
            LOG.debug("no folder of this system: {}", last);
        }
        return Optional.empty();
    }

    /** Returns the name for a file of the session, without an extension. */
    public String fileName() {
        return FileNames.plain(context.session().name());
    }
}
