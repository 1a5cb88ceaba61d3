package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.ports.Devices;
import dibble.ports.OutputPort;
import dibble.presentation.AppContext;
import dibble.presentation.Entries;
import dibble.presentation.FileKind;
import dibble.presentation.FrameScheduler;
import dibble.presentation.OtherPrograms;
import dibble.presentation.Prompter;
import dibble.presentation.Subscription;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sound.SoundEngine;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;

/**
 * The application without a window. The thread of the test is the one that edits; questions wait until the test answers
 * them.
 */
final class HeadlessApp implements AutoCloseable, Prompter, FrameScheduler, Entries {
    private static final int PATIENCE_SECONDS = 60;

    final AppServices services;
    final SessionFiles files;
    final MidiFiles midi;
    final Recovery recovery;
    final SetFiles sets;
    final List<String> told = new ArrayList<>();
    boolean quit;

    /** What is asked, or null; its answers; and who takes a text, where it asks for one. */
    String question;

    private List<Answer> answers = List.of();
    private TextTaker taker;

    /** Commits what is typed into a field now; null where nothing is. */
    Runnable entry;

    boolean hasDroppedEntry;

    private final BlockingQueue<Runnable> posted = new LinkedBlockingQueue<>();

    HeadlessApp(Session session, Path userFolder, Devices... more) {
        services = new AppServices(
                session,
                Performance.NEW,
                new AppServices.Surroundings(
                        SoundEngine.elsewhere(HeadlessApp::silent),
                        document -> OtherPrograms.NONE,
                        List.of(more),
                        userFolder,
                        this,
                        this,
                        this,
                        posted::add));
        PathQuestions questions = new PathQuestions(context());
        files = new SessionFiles(services, questions, () -> quit = true);
        Exports exports = new Exports(context(), files, questions);
        midi = new MidiFiles(context(), files, questions, exports);
        sets = new SetFiles(services, files, questions, exports);
        recovery = new Recovery(services, files);
    }

    private static OutputPort silent(String name) {
        return new OutputPort() {
            @Override
            public String name() {
                return name;
            }

            @Override
            public void send(int message, long stamp) {}
        };
    }

    AppContext context() {
        return services.context();
    }

    Session session() {
        return context().session();
    }

    /** Takes in what background work posts, until none is under way. */
    void settle() {
        try {
            while (context().jobs().running().isPresent() || !posted.isEmpty()) {
                Runnable next = posted.poll(PATIENCE_SECONDS, TimeUnit.SECONDS);
                assertThat(next).as("outcome of a job").isNotNull();
                next.run();
            }
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    /** Returns true if background work has come to something that was not taken in yet. */
    boolean hasPosted() {
        return !posted.isEmpty();
    }

    /** Gives an answer to the question, by its label, and settles. */
    void answer(String label) {
        answerAtOnce(label);
        settle();
    }

    /** Gives an answer to the question, and lets background work go on. */
    void answerAtOnce(String label) {
        Answer chosen = answers.stream()
                .filter(it -> it.label().equals(label))
                .findFirst()
                .orElseThrow(() -> new AssertionError(question + " " + answers));
        question = null;
        answers = List.of();
        chosen.action().run();
    }

    /** Types a path where one is asked for, and settles. */
    void type(Path path) {
        assertThat(taker).as(question).isNotNull();
        String asked = question;
        taker.take(path.toString(), () -> {
            if (asked.equals(question)) {
                question = null;
                taker = null;
            }
        });
        settle();
    }

    /** The answers to the question that is asked. */
    List<Answer> answers() {
        return answers;
    }

    boolean asksForText() {
        return taker != null;
    }

    /** Leaves the question without an answer. */
    void leave() {
        question = null;
        taker = null;
        answers = List.of();
    }

    String lastTold() {
        return told.isEmpty() ? "" : told.get(told.size() - 1);
    }

    @Override
    public void ask(String text, List<Answer> given) {
        question = text;
        answers = given;
        taker = null;
    }

    @Override
    public void ask(String text, List<Answer> given, String leaving) {
        ask(text, given);
    }

    @Override
    public void askText(String text, String given, String verb, List<Answer> more, TextTaker next) {
        question = text;
        answers = more;
        taker = next;
    }

    @Override
    public void askPath(FileKind kind, String text, String given, String verb, boolean saving, TextTaker next) {
        askText(text, given, verb, List.of(), next);
    }

    @Override
    public void tell(String text) {
        told.add(text);
    }

    @Override
    public void tell(String text, Answer answer) {
        told.add(text);
    }

    @Override
    public Subscription each(Runnable reader) {
        return Subscription.NONE;
    }

    @Override
    public void once(Runnable action) {
        posted.add(action);
    }

    @Override
    public void wake() {}

    @Override
    public void commit() {
        Runnable typed = entry;
        entry = null;
        if (typed != null) {
            typed.run();
        }
    }

    @Override
    public void drop() {
        hasDroppedEntry |= entry != null;
        entry = null;
    }

    @Override
    public void close() {
        services.close();
    }
}
