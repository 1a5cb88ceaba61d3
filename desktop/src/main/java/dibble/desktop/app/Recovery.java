package dibble.desktop.app;

import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Desk;
import dibble.files.Unfinished;
import dibble.session.Session;
import dibble.studio.Playable;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;

/** Asks about what an earlier run left behind, and brings it back. */
final class Recovery {
    private static final DateTimeFormatter WHEN =
            DateTimeFormatter.ofPattern("d MMM, HH:mm", Locale.ENGLISH).withZone(ZoneId.systemDefault());

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
                        "Looking what an earlier run left",
                        progress -> workbench.unfinished(),
                        found -> found.stream().findFirst().ifPresent(this::offer));
    }

    private void offer(Unfinished left) {
        String what = left.recordings().isEmpty() ? "edits that were not saved" : "a recording that was going on";
        String of = left.file().isEmpty()
                ? "a session that had no file yet"
                : Path.of(left.file()).getFileName().toString();
        desk.ask()
                .ask(
                        "Dibble was ended in the middle on " + WHEN.format(left.when()) + ". It has kept " + what
                                + ", of " + of + ".",
                        List.of(
                                new AskBar.Answer(
                                        "Bring it back",
                                        () -> files.unlessChanged("Bring back the other one?", () -> bringBack(left))),
                                new AskBar.Answer("Throw it away", () -> throwAway(left))),
                        "Later");
    }

    private void throwAway(Unfinished left) {
        desk.jobs()
                .start(
                        "Throwing it away",
                        progress -> {
                            left.discard();
                            return left;
                        },
                        gone -> offer(),
                        e -> desk.ask().tell("Not thrown away: " + PathQuestions.explain(left.folder(), e)));
    }

    private void bringBack(Unfinished left) {
        Session before = desk.session();
        Playable playable = desk.studio().playable();
        desk.jobs()
                .start(
                        "Bringing it back",
                        progress -> {
                            Unfinished.BroughtBack back = left.open();
                            playable.check(back.session(), back.performance());
                            return back;
                        },
                        back -> files.unlessChangedSince(
                                before, "Bring back the other one all the same?", () -> put(left, back)),
                        e -> desk.ask()
                                .tell("Not brought back: " + PathQuestions.explain(left.folder(), e) + ". It stays in "
                                        + left.folder()));
    }

    /** It is thrown away there only when all of it is kept here; what could not be brought back stays. */
    private void put(Unfinished left, Unfinished.BroughtBack back) {
        workbench.openUnsaved(back.session(), back.performance());
        files.adopt(left.file().isEmpty() ? null : Path.of(left.file()));
        workbench.keepJournal();
        desk.jobs()
                .start(
                        "Keeping it",
                        progress -> workbench.settle(left, back),
                        this::tell,
                        e -> desk.ask()
                                .tell("It is back; what was left of it stays in " + left.folder() + ": "
                                        + PathQuestions.explain(left.folder(), e)));
    }

    private void tell(Workbench.Settled settled) {
        desk.ask()
                .tell(
                        settled.losses().isEmpty()
                                ? "It is back as it was. Save it to keep it."
                                : "It is back, but not all of it could be read: " + SessionFiles.some(settled.losses())
                                        + ". What was there stays in " + settled.place());
    }
}
