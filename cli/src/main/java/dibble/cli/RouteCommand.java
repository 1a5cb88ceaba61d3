package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.files.SessionContent;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.recording.FileRouter;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code dibble route}: plays a recorded performance through a session's routing. */
@Command(name = "route")
final class RouteCommand extends FileCommand {
    @Parameters(index = "0", paramLabel = "SESSION", descriptionKey = "session")
    private String sessionFile;

    @Parameters(index = "1", paramLabel = "IN.mid", descriptionKey = "in")
    private String input;

    @Option(
            names = {"-o", "--output"},
            paramLabel = "OUT.mid",
            descriptionKey = "output")
    private String output;

    @Option(names = "--events", descriptionKey = "events")
    private boolean events;

    @Option(names = "--scene", paramLabel = "ID", descriptionKey = "scene")
    private String scene;

    @Mixin
    private SourceOptions sourceOfTrack;

    @Option(names = "--with-sounds", descriptionKey = "with-sounds")
    private boolean withSounds;

    @Override
    public Integer call() throws IOException {
        if (output == null && !events) {
            throw new BadInput(say("route-command.no-output-expected-o-out"));
        }
        if (events && InOut.STANDARD.equals(output)) {
            throw new BadInput(say("route-command.events-and-o-both-go"));
        }
        files.claim(sessionFile, "SESSION");
        files.claim(input, "IN.mid");
        SessionContent opened = files.session(sessionFile);
        Session session = opened.session();
        Performance performance = SessionInput.inScene(opened, scene, sessionFile);
        MidiFile midi = files.midi(input);
        if (output != null) {
            files.checkOutput(output);
        }
        String[] sources = sourceOfTrack.ofTracks(session, midi, input, files);
        RoutedFile routed = new RoutedFile(session, session.routing(performance), events ? out() : null);
        FileRouter.route(midi, sources, routed.routing(), withSounds, routed.slots(), routed);
        if (output != null) {
            MidiFile made = routed.file(midi, sources);
            files.write(output, to -> MidiFileWriter.write(made, to));
        }
        return 0;
    }
}
