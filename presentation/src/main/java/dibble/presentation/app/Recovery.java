package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.journals.RecoverableWork;
import dibble.presentation.AppContext;
import dibble.presentation.Prompter;
import dibble.studio.Playable;
import dibble.text.Texts;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.List;

/** Asks about what an earlier run left behind, and brings it back. */
public final class Recovery {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofLocalizedDateTime(
                    FormatStyle.MEDIUM, FormatStyle.SHORT)
            .withLocale(Texts.users())
            .withZone(ZoneId.systemDefault());

    private final AppServices services;
    private final AppContext context;
    private final SessionFiles files;

    /** Recovers into the open session. */
    public Recovery(AppServices services, SessionFiles files) {
        this.services = services;
        this.files = files;
        context = services.context();
    }

    /** Asks about recoverable work, if there is any. */
    public void offer() {
        context.jobs()
                .start(
                        say("recovery.looking-for-unsaved-work"),
                        progress -> services.unfinished(),
                        found -> found.stream().findFirst().ifPresent(this::offer));
    }

    private void offer(RecoverableWork left) {
        String what =
                left.recordings().isEmpty() ? say("recovery.unsaved-edits") : say("recovery.a-recording-in-progress");
        String of = left.file().isEmpty()
                ? say("recovery.a-session-that-was-never")
                : Path.of(left.file()).getFileName().toString();
        context.ask()
                .ask(
                        say("recovery.dibble-did-not-close-properly", WHEN.format(left.when()), what, of),
                        List.of(
                                new Prompter.Answer(say("recovery.recover"), () -> bringBack(left)),
                                new Prompter.Answer(say("recovery.discard"), () -> throwAway(left))),
                        say("common.later"));
    }

    private void throwAway(RecoverableWork left) {
        context.jobs()
                .start(
                        say("recovery.discarding-it"),
                        progress -> {
                            left.discard();
                            return left;
                        },
                        gone -> offer(),
                        e -> context.ask()
                                .tell(say("recovery.not-discarded", PathQuestions.explain(left.folder(), e))));
    }

    private void bringBack(RecoverableWork left) {
        Playable playable = context.studio().playable();
        context.jobs()
                .start(
                        say("recovery.recovering"),
                        progress -> {
                            RecoverableWork.RecoveredWork back = left.open();
                            playable.check(back.session(), back.performance());
                            return back;
                        },
                        back -> files.unlessChanged(say("recovery.before-recovering"), () -> put(left, back)),
                        e -> context.ask()
                                .tell(say(
                                        "recovery.not-recovered-it-stays-in",
                                        PathQuestions.explain(left.folder(), e),
                                        left.folder())));
    }

    /** It is thrown away there only when all of it is kept here; what could not be brought back stays. */
    private void put(RecoverableWork left, RecoverableWork.RecoveredWork back) {
        services.openUnsaved(back.session(), back.performance());
        files.adopt(left.file().isEmpty() ? null : Path.of(left.file()), left.stamp());
        services.keepJournal();
        context.jobs()
                .start(
                        say("recovery.keeping-it"),
                        progress -> services.settle(left, back),
                        this::tell,
                        e -> context.ask()
                                .tell(say(
                                        "recovery.recovered-what-remains-of-it",
                                        left.folder(),
                                        PathQuestions.explain(left.folder(), e))));
    }

    private void tell(AppServices.Settled settled) {
        context.ask()
                .tell(
                        settled.losses().isEmpty()
                                ? say("recovery.recovered-save-it-to-keep")
                                : say(
                                        "recovery.recovered-but-some-of-it",
                                        SessionFiles.some(settled.losses()),
                                        settled.place()));
    }
}
