package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.files.SessionFile;
import dibble.gear.Source;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.recording.FileRouter;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
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

    @Option(names = "--source", paramLabel = "TRACK=ID", descriptionKey = "source")
    private Map<Integer, String> sourceOfTrack = new LinkedHashMap<>();

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
        SessionFile.Opened opened = files.session(sessionFile);
        Session session = opened.session();
        Performance performance = SessionInput.inScene(opened, scene, sessionFile);
        MidiFile midi = files.midi(input);
        if (output != null) {
            files.checkOutput(output);
        }
        String[] sources = sourcesOfTracks(session, midi);
        RoutedFile routed = new RoutedFile(session, session.routing(performance), events ? out() : null);
        FileRouter.route(midi, sources, routed.routing(), withSounds, routed.slots(), routed);
        if (output != null) {
            MidiFile made = routed.file(midi, sources);
            files.write(output, to -> MidiFileWriter.write(made, to));
        }
        return 0;
    }

    private String[] sourcesOfTracks(Session session, MidiFile midi) {
        int count = midi.tracks().size();
        sourceOfTrack.forEach((track, id) -> {
            if (track < 1 || track > count) {
                throw new BadInput(say("route-command.source-no-track-expected-1", track, id, count));
            }
            if (SessionInput.source(session, id).isEmpty()) {
                throw new BadInput(
                        say("route-command.source-no-source-expected-one", track, id, SessionInput.sources(session)));
            }
        });
        String[] sources = new String[count];
        List<String> passedOver = new ArrayList<>();
        boolean any = false;
        boolean hasEvents = false;
        for (int i = 0; i < count; i++) {
            MidiTrack track = midi.tracks().get(i);
            boolean plays = hasChannelMessages(track);
            hasEvents |= plays;
            String name = sourceOfTrack.getOrDefault(i + 1, track.name().orElse(""));
            Optional<Source> source = SessionInput.source(session, name);
            if (source.isPresent()) {
                sources[i] = source.get().id();
                any = true;
            } else if (plays) {
                passedOver.add(say("route-command.track-is-not-a-source", i + 1, name));
            }
        }
        if (!any && hasEvents) {
            throw new BadInput(say("route-command.no-track-of-names-a", input, SessionInput.sources(session)));
        }
        passedOver.forEach(files::tell);
        return sources;
    }

    private static boolean hasChannelMessages(MidiTrack track) {
        for (int i = 0; i < track.size(); i++) {
            if (track.isChannelMessage(i)) {
                return true;
            }
        }
        return false;
    }
}
