package dibble.cli;

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
@Command(
        name = "route",
        description = {
            "Plays a recorded performance through the routing of a session.",
            "",
            "Each track of IN.mid is a source, by its name: the id or the name of a source, in capitals or not. The"
                    + " file that is made has what concerns the whole of the other one (tempo, meter, markers) on its"
                    + " first track, then a track for each destination that got anything, then what belongs to none."
        },
        footerHeading = "%nExamples:%n",
        footer = {
            "  dibble route round.dibble played.mid -o routed.mid",
            "  dibble route round.dibble played.mid --source 2=larkspur --events",
            "  dibble route round.dibble - -o - < played.mid > routed.mid"
        })
final class RouteCommand extends FileCommand {
    @Parameters(
            index = "0",
            paramLabel = "SESSION",
            description = "a session: NAME.dibble, or a bare session.json; - is standard input")
    private String sessionFile;

    @Parameters(index = "1", paramLabel = "IN.mid", description = "what was played; - is standard input")
    private String input;

    @Option(
            names = {"-o", "--output"},
            paramLabel = "OUT.mid",
            description = "the file to write; - is standard output")
    private String output;

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
        if (events && InOut.STANDARD.equals(output)) {
            throw new BadInput("--events and -o - both go to standard output (expected a file for one of them)");
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
                passedOver.add("track " + (i + 1) + " \"" + name + "\" is no source and is passed over");
            }
        }
        if (!any && hasEvents) {
            throw new BadInput("no track of " + input + " names a source (expected one of "
                    + SessionInput.sources(session) + ", or --source TRACK=ID)");
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
