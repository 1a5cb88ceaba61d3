package dibble.cli;

import dibble.files.AtomicFile;
import dibble.files.SessionFile;
import dibble.gear.Source;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiFormatException;
import dibble.midi.MidiTrack;
import dibble.recording.FileRouter;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code dibble route}: plays a recorded performance through a session's routing. */
@Command(
        name = "route",
        description = "Plays a recorded performance through the routing of a session.",
        mixinStandardHelpOptions = true)
final class RouteCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "SESSION", description = "a session: NAME.dibble, or a bare session.json")
    private Path sessionFile;

    @Parameters(
            index = "1",
            paramLabel = "IN.mid",
            description = "what was played; each track is a source, by its name")
    private Path input;

    @Option(
            names = {"-o", "--output"},
            paramLabel = "OUT.mid",
            description = "the file to write")
    private Path output;

    @Option(names = "--events", description = "print each outgoing message as a line of JSON")
    private boolean events;

    @Option(names = "--scene", paramLabel = "ID", description = "the scene that holds")
    private String scene;

    @Option(names = "--source", paramLabel = "TRACK=ID", description = "track TRACK (from 1) is this source")
    private Map<Integer, String> sourceOfTrack = new LinkedHashMap<>();

    @Option(names = "--with-sounds", description = "send each part's bank, program, volume and pan first")
    private boolean withSounds;

    @Override
    public Integer call() throws IOException {
        if (output == null && !events) {
            throw new BadInput("nowhere to write to (expected -o OUT.mid or --events)");
        }
        SessionFile.Opened opened = SessionInput.open(sessionFile);
        Session session = opened.session();
        Performance performance = SessionInput.inScene(opened, scene, sessionFile);
        MidiFile midi = readMidi();
        String[] sources = sourcesOfTracks(session, midi);
        PrintWriter out = spec.commandLine().getOut();
        RoutedFile routed = new RoutedFile(session, session.routing(performance), events ? out : null);
        FileRouter.route(midi, sources, routed.routing(), withSounds, routed.slots(), routed);
        if (output != null) {
            AtomicFile.write(output, MidiFileWriter.write(routed.file(midi)));
        }
        return 0;
    }

    private MidiFile readMidi() throws IOException {
        try {
            return MidiFileReader.read(input);
        } catch (MidiFormatException e) {
            throw new BadInput(input + ": " + e.getMessage());
        }
    }

    private String[] sourcesOfTracks(Session session, MidiFile midi) {
        int count = midi.tracks().size();
        sourceOfTrack.forEach((track, id) -> {
            if (track < 1 || track > count) {
                throw new BadInput(
                        "--source " + track + "=" + id + ": no track " + track + " (expected 1 to " + count + ")");
            }
            if (SessionInput.source(session, id).isEmpty()) {
                throw new BadInput("--source " + track + "=" + id + ": no source \"" + id + "\" (expected one of "
                        + SessionInput.sources(session) + ")");
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
                passedOver.add("dibble: track " + (i + 1) + " \"" + name + "\" is no source and is passed over");
            }
        }
        if (!any && hasEvents) {
            throw new BadInput("no track of " + input + " names a source (expected one of "
                    + SessionInput.sources(session) + ", or --source TRACK=ID)");
        }
        passedOver.forEach(spec.commandLine().getErr()::println);
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
