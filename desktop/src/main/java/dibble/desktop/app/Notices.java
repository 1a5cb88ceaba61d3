package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Desk;
import dibble.session.SessionWords;
import dibble.studio.Loop;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;

/** Tells what goes wrong by itself, once each: loops, a journal that cannot be kept, mistakes of Dibble's own. */
final class Notices {
    /** Where a mistake of Dibble's own stands, and what shows it. */
    private record Mistake(Path log, Runnable show) {}

    private final Workbench workbench;
    private final Desk desk;
    private final AtomicReference<Mistake> mistake = new AtomicReference<>();
    private boolean toldMistake;
    private List<Loop> toldLoops = List.of();
    private String toldTrouble;

    Notices(Workbench workbench) {
        this.workbench = workbench;
        desk = workbench.desk();
    }

    /**
     * Something went wrong in Dibble itself. It is said once: what comes after the first mistake is most often of its
     * making. Any thread.
     *
     * @param log where it stands
     * @param show shows that file
     */
    void noteMistake(Path log, Runnable show) {
        mistake.compareAndSet(null, new Mistake(log, show));
    }

    /** Whether there is something that was not told yet. Any thread. */
    boolean hasNews() {
        return mistake.get() != null && !toldMistake || !Objects.equals(workbench.recordingTrouble(), toldTrouble);
    }

    /** Tells what is new. */
    void follow() {
        tellMistake();
        tellLoops();
        tellJournal();
    }

    private void tellMistake() {
        Mistake noted = mistake.get();
        if (noted != null && !toldMistake) {
            toldMistake = true;
            desk.ask()
                    .tell(
                            say("notices.unexpected-error-in-dibble-your", noted.log),
                            new AskBar.Answer(say("common.show-it"), noted.show));
        }
    }

    private void tellLoops() {
        List<Loop> loops = desk.studio().loops();
        for (Loop loop : loops) {
            if (!toldLoops.contains(loop)) {
                desk.ask()
                        .tell(
                                say(
                                        "notices.loop-what-is-sent-to",
                                        SessionWords.port(loop.output(), desk.session()),
                                        SessionWords.port(loop.input(), desk.session())),
                                new AskBar.Answer(
                                        say("common.send-there-again"),
                                        () -> desk.studio().allowLoop(loop.output())));
            }
        }
        toldLoops = loops;
    }

    /** Tells of a recording that stopped, or that goes on in memory only. */
    private void tellJournal() {
        String trouble = workbench.recordingTrouble();
        if (!Objects.equals(trouble, toldTrouble)) {
            toldTrouble = trouble;
            if (trouble != null) {
                desk.ask().tell(trouble);
            }
        }
    }
}
