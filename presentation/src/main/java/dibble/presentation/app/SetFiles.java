package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.disk.SessionFile;
import dibble.files.SessionContent;
import dibble.midi.HeardMessage;
import dibble.midi.MiddleC;
import dibble.midi.ShortMessage;
import dibble.paper.PaperSize;
import dibble.paper.SheetPdf;
import dibble.presentation.AppContext;
import dibble.presentation.FileKind;
import dibble.presentation.Subscription;
import dibble.presentation.sets.SetActions;
import dibble.session.Session;
import dibble.session.SessionSet;
import dibble.sheet.Sheet;
import dibble.text.Texts;
import dibble.time.TempoMap;
import dibble.user.SetFile;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.UnaryOperator;

/** Steps through a set. The next session is read in advance, and opened while notes are held. */
public final class SetFiles implements SetActions {
    private static final int DOWN = 64;

    private final AppServices services;
    private final AppContext context;
    private final AllowedFolders allowed;
    private final SessionFiles files;
    private final PathQuestions questions;
    private final Exports exports;
    private final List<Runnable> listeners = new ArrayList<>();
    private SessionSet set;
    private Path file;
    private int place = -1;

    /** The place of the session that is being read to be taken on; -1 for none. */
    private int coming = -1;

    /** The session that was read in advance, with its file; null while it is still being read. */
    private SessionFiles.Loaded ready;

    private Path readyFile;
    private Boolean learning;

    /** The held pedals: a pedal advances once for each press. */
    private final boolean[] down = new boolean[128];

    /** Starts without a set. */
    public SetFiles(AppServices services, SessionFiles files, PathQuestions questions, Exports exports) {
        this.services = services;
        context = services.context();
        allowed = new AllowedFolders(context);
        this.files = files;
        this.questions = questions;
        this.exports = exports;
    }

    /** Begins to follow pedals. */
    public Subscription follow() {
        return context.live().onControl((source, message) -> moved(message));
    }

    private void moved(HeardMessage heard) {
        int message = heard.message();
        if (set == null || ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
            return;
        }
        int number = ShortMessage.data1(message);
        boolean isDown = ShortMessage.data2(message) >= DOWN;
        boolean pressed = isDown && !down[number];
        down[number] = isDown;
        if (pressed && learning != null) {
            boolean forNext = learning;
            learning = null;
            change(it ->
                    it.withPedals(forNext ? (Integer) number : it.next(), forNext ? it.previous() : (Integer) number));
        } else if (pressed && Objects.equals(set.next(), number)) {
            soon(1);
        } else if (pressed && Objects.equals(set.previous(), number)) {
            soon(-1);
        }
    }

    /** The present entry is still being read; the step follows after that. */
    private void soon(int by) {
        context.frames().once(() -> step(by));
    }

    @Override
    public SessionSet set() {
        return set;
    }

    @Override
    public int place() {
        return place;
    }

    private Path path(int number) {
        return file.toAbsolutePath()
                .getParent()
                .resolve(set.entries().get(number).file())
                .normalize();
    }

    @Override
    public String name(int number) {
        return Path.of(set.entries().get(number).file())
                .getFileName()
                .toString()
                .replaceFirst("\\.[^.]*$", "");
    }

    @Override
    public Subscription listen(Runnable listener) {
        listeners.add(listener);
        return () -> listeners.remove(listener);
    }

    private void changed() {
        List.copyOf(listeners).forEach(Runnable::run);
    }

    @Override
    public void begin() {
        questions.askToWrite(
                FileKind.SET,
                say("set-files.new-set-as"),
                files.exportFolder().resolve(say("set-files.evening") + SetFile.ENDING),
                say("set-files.begin"),
                (path, done) -> questions.unlessThere(path, null, to -> {
                    done.run();
                    String name = path.getFileName().toString().replaceFirst("\\.[^.]*$", "");
                    open(path, SessionSet.empty(name));
                    change(it -> it);
                }));
    }

    @Override
    public void open() {
        questions.askToRead(
                FileKind.SET, say("set-files.open-a-set"), files.folder(), say("session-files.open"), this::open);
    }

    /** Opens a set. @param done run where it is open */
    public void open(Path path, Runnable done) {
        context.jobs()
                .start(
                        say("session-files.opening", path.getFileName()),
                        progress -> SetFile.read(path),
                        read -> {
                            done.run();
                            open(path, read);
                        },
                        e -> context.ask().tell(say("session-files.not-opened", PathQuestions.explain(path, e))));
    }

    private void open(Path path, SessionSet opened) {
        file = path;
        set = opened;
        coming = -1;
        findPlace();
        changed();
        prepare();
        ifAllowed(paths(), this::prepare);
    }

    private List<Path> paths() {
        List<Path> paths = new ArrayList<>();
        for (int i = 0; i < set.entries().size(); i++) {
            paths.add(path(i));
        }
        return paths;
    }

    /** Returns true if a session is in the folder of the set, or in one that the user has allowed. */
    private boolean isAllowed(Path session) {
        return session.startsWith(file.toAbsolutePath().getParent().normalize()) || allowed.have(session);
    }

    /** Does something with sessions, if need be after a question. */
    private void ifAllowed(List<Path> sessions, Runnable then) {
        List<String> elsewhere = sessions.stream()
                .filter(session -> !isAllowed(session))
                .map(AllowedFolders::folder)
                .distinct()
                .toList();
        if (elsewhere.isEmpty()) {
            then.run();
            return;
        }
        Path asked = file;
        allowed.ask(say("set-files.from-elsewhere", String.join(", ", elsewhere)), elsewhere, () -> {
            if (asked.equals(file)) {
                then.run();
            }
        });
    }

    /** Finds the position of the open session in the set. */
    private void findPlace() {
        place = -1;
        for (int i = 0; i < set.entries().size() && files.file() != null; i++) {
            if (path(i).equals(files.file().toAbsolutePath().normalize())) {
                place = i;
            }
        }
    }

    @Override
    public void change(UnaryOperator<SessionSet> change) {
        Path now = place < 0 ? null : path(place);
        set = change.apply(set);
        place = -1;
        for (int i = 0; i < set.entries().size(); i++) {
            place = path(i).equals(now) ? i : place;
        }
        if (place < 0) {
            findPlace();
        }
        SessionSet written = set;
        Path to = file;
        context.jobs()
                .start(
                        say("set-files.saving"),
                        progress -> {
                            SetFile.write(written, to);
                            return to;
                        },
                        saved -> {},
                        e -> context.ask().tell(say("session-files.not-saved", PathQuestions.explain(to, e))));
        changed();
        prepare();
    }

    @Override
    public void addThis() {
        if (files.file() == null) {
            context.ask().tell(say("set-files.save-this-session-first"));
        } else {
            add(files.file());
        }
    }

    @Override
    public void add() {
        questions.askToRead(
                FileKind.SESSION,
                say("set-files.add-the-session"),
                files.folder(),
                say("set-files.add"),
                (path, done) -> {
                    done.run();
                    add(path);
                });
    }

    private void add(Path session) {
        Path folder = file.toAbsolutePath().getParent();
        Path full = session.toAbsolutePath().normalize();
        if (!isAllowed(full)) {
            allowed.allowFolderOf(full);
        }
        boolean near = full.getRoot().equals(folder.getRoot());
        change(it -> it.with(new SessionSet.Entry((near ? folder.relativize(full) : full).toString())));
    }

    @Override
    public void go(int number) {
        if (set == null || number < 0 || number >= set.entries().size() || number == place && coming < 0) {
            return;
        }
        ifAllowed(List.of(path(number)), () -> read(number));
    }

    private void read(int number) {
        coming = number;
        Path path = path(number);
        files.read(
                path,
                path.equals(readyFile) ? ready : null,
                read -> {
                    if (coming == number) {
                        coming = -1;
                        files.unlessChanged(
                                say("session-files.before-opening", path.getFileName()),
                                () -> takeOn(number, path, read));
                    }
                },
                e -> {
                    coming = -1;
                    tellNotOpened(path, e);
                });
    }

    @Override
    public void step(int by) {
        go((coming < 0 ? place : coming) + by);
    }

    private void tellNotOpened(Path path, IOException e) {
        context.ask().tell(say("session-files.not-opened", PathQuestions.explain(path, e)));
    }

    private void takeOn(int number, Path path, SessionFiles.Loaded read) {
        if (set == null || number >= set.entries().size() || !path(number).equals(path)) {
            // The set has become another meanwhile.
            return;
        }
        place = number;
        Double tempo = set.entries().get(number).tempo();
        Session session = read.content().session();
        files.adopt(path, read.stamp());
        services.takeOn(
                tempo == null ? session : atTempo(session, tempo),
                read.content().performance());
        changed();
        prepare();
    }

    private static Session atTempo(Session session, double bpm) {
        List<TempoMap.Tempo> tempos = new ArrayList<>(session.tempo().tempos());
        tempos.set(0, new TempoMap.Tempo(0, bpm));
        return session.withTempo(new TempoMap(tempos, session.tempo().meters()));
    }

    /** Reads the next session in advance. */
    private void prepare() {
        Path next = place + 1 < set.entries().size() ? path(place + 1) : null;
        if (Objects.equals(next, readyFile)) {
            // The change was unrelated, such as an edit of a note: the next session is the same.
            return;
        }
        ready = null;
        readyFile = null;
        if (next != null && isAllowed(next)) {
            readyFile = next;
            files.read(
                    next,
                    null,
                    read -> {
                        if (next.equals(readyFile)) {
                            ready = read;
                        }
                    },
                    e -> {
                        if (next.equals(readyFile)) {
                            readyFile = null;
                        }
                        tellNotOpened(next, e);
                    });
        }
    }

    @Override
    public void export() {
        List<Path> all = paths();
        ifAllowed(all, () -> export(all));
    }

    private void export(List<Path> all) {
        String name = set.name();
        exports.ask(FileKind.PDF, say("set-files.export-all-sheets"), name + ".pdf", path -> {
            MiddleC middleC = context.session().middleC();
            return (to, progress) -> {
                List<Sheet> sheets = new ArrayList<>();
                for (Path session : all) {
                    progress.at((double) sheets.size() / all.size());
                    sheets.add(sheet(session));
                }
                Sheet together = Sheet.together(name, LocalDate.now(), sheets);
                SheetPdf.write(together, middleC, PaperSize.usual(Texts.users()), to);
            };
        });
    }

    private static Sheet sheet(Path path) throws IOException {
        SessionContent opened = SessionFile.read(path);
        return Sheet.of(opened.session(), opened.performance(), LocalDate.now());
    }

    @Override
    public void learn(boolean forNext) {
        learning = forNext;
        changed();
    }

    @Override
    public boolean isLearning() {
        return learning != null;
    }

    @Override
    public void leave() {
        set = null;
        file = null;
        ready = null;
        readyFile = null;
        learning = null;
        place = -1;
        coming = -1;
        changed();
    }
}
