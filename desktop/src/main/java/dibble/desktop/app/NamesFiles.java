package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.gear.NamesActions;
import dibble.desktop.ui.Desk;
import dibble.edits.GearEdits;
import dibble.files.NamesFile;
import dibble.gear.SoundNames;

/** Device name documents in and out. */
final class NamesFiles implements NamesActions {
    private final Desk desk;
    private final SessionFiles files;
    private final PathQuestions questions;
    private final Exports exports;

    NamesFiles(Desk desk, SessionFiles files, PathQuestions questions, Exports exports) {
        this.desk = desk;
        this.files = files;
        this.questions = questions;
        this.exports = exports;
    }

    @Override
    public void bringIn(String instrument) {
        questions.askToRead(
                PathQuestions.Kind.NAMES,
                say("names-files.import"),
                files.exportFolder(),
                say("midi-files.import"),
                (path, done) -> desk.jobs()
                        .start(
                                say("sheet-files.reading", path.getFileName()),
                                progress -> NamesFile.read(path),
                                names -> {
                                    done.run();
                                    take(instrument, names);
                                },
                                e -> desk.ask().tell(say("sheet-files.not-imported", PathQuestions.explain(path, e)))));
    }

    private void take(String instrument, SoundNames names) {
        desk.document()
                .edit(
                        say("edit.sound-names"),
                        session -> GearEdits.changeInstrument(session, instrument, it -> it.named(names)));
        desk.ask()
                .tell(say(
                        "names-files.imported",
                        names.maker() + " " + names.model(),
                        names.banks().size(),
                        names.count()));
    }

    @Override
    public void export(SoundNames names) {
        String name = (names.maker() + " " + names.model()).strip();
        exports.ask(
                PathQuestions.Kind.NAMES,
                say("names-files.export"),
                (name.isEmpty() ? say("names-files.names") : name) + ".midnam",
                path -> (to, progress) -> to.write(NamesFile.midnam(names)));
    }
}
