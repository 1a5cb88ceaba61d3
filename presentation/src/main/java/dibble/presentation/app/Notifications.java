package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.presentation.AppContext;
import dibble.presentation.Prompter;
import dibble.session.SessionFormatter;
import dibble.studio.Loop;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;

/** Reports problems that no command caused, once each: loops, a failing journal, internal errors. */
public final class Notifications {
    /** The log of an internal error, and the action that shows it. */
    private record Mistake(Path log, Runnable show) {}

    private final AppServices services;
    private final AppContext context;
    private final AtomicReference<Mistake> mistake = new AtomicReference<>();
    private boolean toldMistake;
    private List<Loop> toldLoops = List.of();
    private String toldTrouble;
    private String toldSound;

    /** Watches the services. */
    public Notifications(AppServices services) {
        this.services = services;
        context = services.context();
    }

    /**
     * Reports an internal error. Only the first is reported: later ones are mostly its consequences. Any thread.
     *
     * @param log the log file
     * @param show shows that file
     */
    public void noteMistake(Path log, Runnable show) {
        mistake.compareAndSet(null, new Mistake(log, show));
    }

    /** Returns true if there is something that was not told yet. Any thread. */
    public boolean hasNews() {
        return mistake.get() != null && !toldMistake
                || !Objects.equals(services.recordingTrouble(), toldTrouble)
                || !Objects.equals(services.soundTrouble(), toldSound);
    }

    /** Reports new problems. */
    public void follow() {
        tellMistake();
        tellLoops();
        tellJournal();
        tellSound();
    }

    private void tellMistake() {
        Mistake noted = mistake.get();
        if (noted != null && !toldMistake) {
            toldMistake = true;
            context.ask()
                    .tell(
                            say("notices.unexpected-error-in-dibble-your", noted.log),
                            new Prompter.Answer(say("common.show-it"), noted.show));
        }
    }

    private void tellLoops() {
        List<Loop> loops = context.studio().loops();
        for (Loop loop : loops) {
            if (!toldLoops.contains(loop)) {
                context.ask()
                        .tell(
                                say(
                                        "notices.loop-what-is-sent-to",
                                        SessionFormatter.port(loop.output(), context.session()),
                                        SessionFormatter.port(loop.input(), context.session())),
                                new Prompter.Answer(
                                        say("common.send-there-again"),
                                        () -> context.studio().allowLoop(loop.output())));
            }
        }
        toldLoops = loops;
    }

    /** Tells of sounds that were taken out. */
    private void tellSound() {
        String trouble = services.soundTrouble();
        if (!Objects.equals(trouble, toldSound)) {
            toldSound = trouble;
            context.ask().tell(trouble);
        }
    }

    /** Tells of a recording that stopped, or that goes on in memory only. */
    private void tellJournal() {
        String trouble = services.recordingTrouble();
        if (!Objects.equals(trouble, toldTrouble)) {
            toldTrouble = trouble;
            if (trouble != null) {
                context.ask().tell(trouble);
            }
        }
    }
}
