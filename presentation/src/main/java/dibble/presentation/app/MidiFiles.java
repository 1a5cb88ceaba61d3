package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.disk.AtomicFile;
import dibble.edits.FileImport;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiFormatException;
import dibble.presentation.AppContext;
import dibble.presentation.FileKind;
import dibble.presentation.Prompter;
import dibble.recording.TrackExport;
import dibble.routing.Routing;
import dibble.session.Kept;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Consumer;

/** MIDI files in and out. */
public final class MidiFiles {
    private static final String ENDING = ".mid";

    private final AppContext context;
    private final SessionFiles files;
    private final PathQuestions questions;
    private final Exports exports;

    /** Imports into the open session, and exports from it. */
    public MidiFiles(AppContext context, SessionFiles files, PathQuestions questions, Exports exports) {
        this.context = context;
        this.files = files;
        this.questions = questions;
        this.exports = exports;
    }

    /** The tracks of a session as a type 1 file. */
    public static MidiFile exported(Session session, Routing routing) {
        return TrackExport.type1(session.name(), session.tempo(), session.markers(), session.tracks(), routing);
    }

    /** Asks where, and writes the tracks as a file of type 1. */
    public void export() {
        export(say("midi-files.export-tracks-as-a-midi"), files.fileName(), MidiFiles::exported);
    }

    /** The same with everything on one track. */
    public void exportOneTrack() {
        export(
                say("midi-files.export-everything-on-one-track"),
                say("midi-files.on-one-track", files.fileName()),
                (session, routing) -> TrackExport.type0(
                        session.name(), session.tempo(), session.markers(), session.tracks(), routing));
    }

    private boolean hasNothing() {
        boolean nothing = context.session().tracks().stream()
                .allMatch(track -> track.sounding().size() == 0);
        if (nothing) {
            context.ask().tell(say("midi-files.nothing-to-export-yet-record"));
        }
        return nothing;
    }

    private void export(String question, String name, BiFunction<Session, Routing, MidiFile> export) {
        if (hasNothing()) {
            return;
        }
        exports.ask(FileKind.MIDI, question, name + ENDING, path -> {
            Kept kept = context.document().kept();
            return (to, progress) -> {
                MidiFile made = export.apply(kept.session(), kept.routing());
                progress.at(0.5);
                MidiFileWriter.write(made, to);
            };
        });
    }

    /** Asks for a folder, and writes a file for each track there. */
    public void exportFiles() {
        context.entries().commit();
        if (!hasNothing()) {
            Path suggested = files.exportFolder().resolve(say("midi-files.tracks", files.fileName()));
            questions.askToWrite(
                    FileKind.FOLDER,
                    say("midi-files.export-each-track-to-a"),
                    suggested,
                    say("midi-files.export"),
                    this::writeFiles);
        }
    }

    private void writeFiles(Path into, Runnable done) {
        Kept kept = context.document().kept();
        Session session = kept.session();
        Routing routing = kept.routing();
        context.jobs()
                .start(
                        say("midi-files.exporting-to", into.getFileName()),
                        progress -> {
                            Map<String, MidiFile> made = TrackExport.files(
                                    session.name(), session.tempo(), session.markers(), session.tracks(), routing);
                            Files.createDirectories(into);
                            for (String name : made.keySet()) {
                                if (Files.exists(into.resolve(name + ENDING))) {
                                    throw new FileAlreadyExistsException(
                                            into.resolve(name + ENDING).toString());
                                }
                            }
                            progress.commit();
                            int count = 0;
                            for (Map.Entry<String, MidiFile> file : made.entrySet()) {
                                progress.at((double) count++ / made.size());
                                AtomicFile.write(
                                        into.resolve(file.getKey() + ENDING),
                                        out -> MidiFileWriter.write(file.getValue(), out));
                            }
                            return count;
                        },
                        count -> {
                            done.run();
                            context.ask().tell(say("midi-files.files-exported-to", count, into));
                        },
                        e -> context.ask()
                                .tell(say(
                                        "midi-files.not-exported-already-exists-choose",
                                        e instanceof FileAlreadyExistsException,
                                        e.getMessage(),
                                        PathQuestions.explain(into, e))));
    }

    /** Asks for a MIDI file, which becomes a source with a lane for each of its channels. */
    public void bringIn() {
        questions.askToRead(
                FileKind.MIDI,
                say("midi-files.import-a-midi-file"),
                files.folder(),
                say("midi-files.import"),
                this::bringIn);
    }

    /** A file that was read, with its content for the session. */
    private record Found(String name, MidiFile file, FileImport read) {}

    /** Brings a MIDI file in. @param done run where it could be read */
    public void bringIn(Path path, Runnable done) {
        Session session = context.document().kept().session();
        Consumer<Found> into = context.forThisSession(String.valueOf(path.getFileName()), this::bringIn);
        context.jobs()
                .start(
                        say("midi-files.reading", path.getFileName()),
                        progress -> {
                            String bare = path.getFileName().toString().replaceFirst("\\.[^.]*$", "");
                            String name = bare.isBlank() ? say("midi-files.file") : bare;
                            MidiFile file = MidiFileReader.read(path);
                            progress.at(0.5);
                            return new Found(name, file, FileImport.of(session, file, name));
                        },
                        found -> {
                            done.run();
                            into.accept(found);
                        },
                        e -> context.ask().tell(say("midi-files.not-imported", explain(path, e))));
    }

    private void bringIn(Found found) {
        FileImport read = found.read;
        if (read.hasTempo() && !read.take().tempo().equals(context.session().tempo())) {
            askWhoseTempo(found);
        } else {
            bringIn(found, FileImport.Tempo.OF_THE_SESSION);
        }
    }

    private static String explain(Path path, IOException e) {
        return e instanceof MidiFormatException
                ? path.getFileName() + ": " + e.getMessage()
                : PathQuestions.explain(path, e);
    }

    private void askWhoseTempo(Found found) {
        Consumer<FileImport.Tempo> into = context.forThisSession(found.name, whose -> bringIn(found, whose));
        context.ask()
                .ask(
                        say(
                                "midi-files.has-its-own-tempo-the",
                                found.name,
                                SessionFormatter.tempo(found.read.take().tempo()),
                                SessionFormatter.tempo(context.session().tempo())),
                        List.of(
                                new Prompter.Answer(
                                        say("midi-files.use-its-tempo"),
                                        () -> into.accept(FileImport.Tempo.OF_THE_FILE)),
                                new Prompter.Answer(
                                        say("midi-files.keep-the-sessions-tempo"),
                                        () -> into.accept(FileImport.Tempo.OF_THE_SESSION))),
                        say("midi-files.cancel"));
    }

    private void bringIn(Found found, FileImport.Tempo whose) {
        String name = found.name;
        Performance performance = context.performance();
        context.jobs()
                .edit(
                        context.document(),
                        say("midi-files.importing", name),
                        say("midi-files.import-2", name),
                        // The file is interpreted again, since its source's name may be in use by now.
                        (session, progress) ->
                                FileImport.of(session, found.file, name).into(session, performance, whose),
                        () -> tell(found));
    }

    private void tell(Found found) {
        String remarks = found.file.remarks().isEmpty() ? "" : " " + String.join(" ", found.file.remarks());
        FileImport read = found.read;
        context.ask()
                .tell(say(
                        "midi-files.is-now-a-source-with",
                        found.name,
                        read.source().lanes().size(),
                        read.shared() > 0,
                        read.shared(),
                        remarks));
    }
}
