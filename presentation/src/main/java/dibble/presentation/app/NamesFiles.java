package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.edits.GearEdits;
import dibble.files.NamesFile;
import dibble.gear.SoundNames;
import dibble.presentation.AppContext;
import dibble.presentation.FileKind;
import dibble.presentation.gear.NamesActions;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/** Device name documents in and out. */
public final class NamesFiles implements NamesActions {
    private final AppContext context;
    private final SessionFiles files;
    private final PathQuestions questions;
    private final Exports exports;

    /** Imports and exports names of the open session. */
    public NamesFiles(AppContext context, SessionFiles files, PathQuestions questions, Exports exports) {
        this.context = context;
        this.files = files;
        this.questions = questions;
        this.exports = exports;
    }

    @Override
    public void bringIn(String instrument) {
        questions.askToRead(
                FileKind.NAMES,
                say("names-files.import"),
                files.exportFolder(),
                say("midi-files.import"),
                (path, done) -> {
                    List<String> remarks = new ArrayList<>();
                    Consumer<SoundNames> into = context.forThisSession(
                            String.valueOf(path.getFileName()), names -> take(instrument, names, remarks));
                    context.jobs()
                            .start(
                                    say("sheet-files.reading", path.getFileName()),
                                    progress -> NamesFile.read(path, remarks::add),
                                    names -> {
                                        done.run();
                                        into.accept(names);
                                    },
                                    e -> context.ask()
                                            .tell(say("sheet-files.not-imported", PathQuestions.explain(path, e))));
                });
    }

    private void take(String instrument, SoundNames names, List<String> remarks) {
        context.document()
                .edit(
                        say("edit.sound-names"),
                        session -> GearEdits.changeInstrument(session, instrument, it -> it.named(names)));
        context.ask()
                .tell(say(
                        "names-files.imported",
                        names.maker() + " " + names.model(),
                        names.banks().size(),
                        names.count(),
                        remarks.size(),
                        String.join("; ", remarks)));
    }

    @Override
    public void export(SoundNames names) {
        String name = (names.maker() + " " + names.model()).strip();
        exports.ask(
                FileKind.NAMES,
                say("names-files.export"),
                (name.isEmpty() ? say("names-files.names") : name) + ".midnam",
                path -> (to, progress) -> to.write(NamesFile.midnam(names)));
    }
}
