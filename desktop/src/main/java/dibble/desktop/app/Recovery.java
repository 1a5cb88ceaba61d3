package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Desk;
import dibble.journals.Unfinished;
import dibble.session.Session;
import dibble.studio.Playable;
import dibble.text.Texts;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.List;

/** Asks about what an earlier run left behind, and brings it back. */
final class Recovery {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofLocalizedDateTime(
                    FormatStyle.MEDIUM, FormatStyle.SHORT)
            .withLocale(Texts.users())
            .withZone(ZoneId.systemDefault());

    private final Workbench workbench;
    private final Desk desk;
    private final SessionFiles files;

    Recovery(Workbench workbench, SessionFiles files) {
        this.workbench = workbench;
        this.files = files;
        desk = workbench.desk();
    }

    /** Asks about what is left, where there is something. */
    void offer() {
        desk.jobs()
                .start(
                        say("recovery.looking-for-unsaved-work"),
                        progress -> workbench.unfinished(),
                        found -> found.stream().findFirst().ifPresent(this::offer));
    }

    private void offer(Unfinished left) {
        String what =
                left.recordings().isEmpty() ? say("recovery.unsaved-edits") : say("recovery.a-recording-in-progress");
        String of = left.file().isEmpty()
                ? say("recovery.a-session-that-was-never")
                : Path.of(left.file()).getFileName().toString();
        desk.ask()
                .ask(
                        say("recovery.dibble-did-not-close-properly", WHEN.format(left.when()), what, of),
                        List.of(
                                new AskBar.Answer(
                                        say("recovery.recover"),
                                        () -> files.unlessChanged(
                                                say("recovery.before-recovering"), () -> bringBack(left))),
                                new AskBar.Answer(say("recovery.discard"), () -> throwAway(left))),
                        say("common.later"));
    }

    private void throwAway(Unfinished left) {
        desk.jobs()
                .start(
                        say("recovery.discarding-it"),
                        progress -> {
                            left.discard();
                            return left;
                        },
                        gone -> offer(),
                        e -> desk.ask().tell(say("recovery.not-discarded", PathQuestions.explain(left.folder(), e))));
    }

    private void bringBack(Unfinished left) {
        Session before = desk.session();
        Playable playable = desk.studio().playable();
        desk.jobs()
                .start(
                        say("recovery.recovering"),
                        progress -> {
                            Unfinished.BroughtBack back = left.open();
                            playable.check(back.session(), back.performance());
                            return back;
                        },
                        back -> files.unlessChangedSince(
                                before, say("recovery.before-recovering"), () -> put(left, back)),
                        e -> desk.ask()
                                .tell(say(
                                        "recovery.not-recovered-it-stays-in",
                                        PathQuestions.explain(left.folder(), e),
                                        left.folder())));
    }

    /** It is thrown away there only when all of it is kept here; what could not be brought back stays. */
    private void put(Unfinished left, Unfinished.BroughtBack back) {
        workbench.openUnsaved(back.session(), back.performance());
        files.adopt(left.file().isEmpty() ? null : Path.of(left.file()));
        workbench.keepJournal();
        desk.jobs()
                .start(
                        say("recovery.keeping-it"),
                        progress -> workbench.settle(left, back),
                        this::tell,
                        e -> desk.ask()
                                .tell(say(
                                        "recovery.recovered-what-remains-of-it",
                                        left.folder(),
                                        PathQuestions.explain(left.folder(), e))));
    }

    private void tell(Workbench.Settled settled) {
        desk.ask()
                .tell(
                        settled.losses().isEmpty()
                                ? say("recovery.recovered-save-it-to-keep")
                                : say(
                                        "recovery.recovered-but-some-of-it",
                                        SessionFiles.some(settled.losses()),
                                        settled.place()));
    }
}
