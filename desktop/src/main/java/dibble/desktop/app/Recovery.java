package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Desk;
import dibble.files.Unfinished;
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
                        say("recovery.looking-what-an-earlier-run"),
                        progress -> workbench.unfinished(),
                        found -> found.stream().findFirst().ifPresent(this::offer));
    }

    private void offer(Unfinished left) {
        String what = left.recordings().isEmpty()
                ? say("recovery.edits-that-were-not-saved")
                : say("recovery.a-recording-that-was-going");
        String of = left.file().isEmpty()
                ? say("recovery.a-session-that-had-no")
                : Path.of(left.file()).getFileName().toString();
        desk.ask()
                .ask(
                        say("recovery.dibble-was-ended-in-the", WHEN.format(left.when()), what, of),
                        List.of(
                                new AskBar.Answer(
                                        say("recovery.bring-it-back"),
                                        () -> files.unlessChanged(
                                                say("recovery.bring-back-the-other-one"), () -> bringBack(left))),
                                new AskBar.Answer(say("recovery.throw-it-away"), () -> throwAway(left))),
                        say("common.later"));
    }

    private void throwAway(Unfinished left) {
        desk.jobs()
                .start(
                        say("recovery.throwing-it-away"),
                        progress -> {
                            left.discard();
                            return left;
                        },
                        gone -> offer(),
                        e -> desk.ask().tell(say("recovery.not-thrown-away", PathQuestions.explain(left.folder(), e))));
    }

    private void bringBack(Unfinished left) {
        Session before = desk.session();
        Playable playable = desk.studio().playable();
        desk.jobs()
                .start(
                        say("recovery.bringing-it-back"),
                        progress -> {
                            Unfinished.BroughtBack back = left.open();
                            playable.check(back.session(), back.performance());
                            return back;
                        },
                        back -> files.unlessChangedSince(
                                before, say("recovery.bring-back-the-other-one-2"), () -> put(left, back)),
                        e -> desk.ask()
                                .tell(say(
                                        "recovery.not-brought-back-it-stays",
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
                                        "recovery.it-is-back-what-was",
                                        left.folder(),
                                        PathQuestions.explain(left.folder(), e))));
    }

    private void tell(Workbench.Settled settled) {
        desk.ask()
                .tell(
                        settled.losses().isEmpty()
                                ? say("recovery.it-is-back-as-it")
                                : say(
                                        "recovery.it-is-back-but-not",
                                        SessionFiles.some(settled.losses()),
                                        settled.place()));
    }
}
