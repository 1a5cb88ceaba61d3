package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.gear.Source;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Option;

/** The sources of the tracks of a recorded performance. */
final class SourceOptions {
    @Option(names = "--source", paramLabel = "TRACK=ID", descriptionKey = "source")
    private Map<Integer, String> sourceOfTrack = new LinkedHashMap<>();

    /** Returns true if anything was said. */
    boolean isEmpty() {
        return sourceOfTrack.isEmpty();
    }

    /**
     * Returns the id of the source of each track, by the command line or the name of the track; null to skip a track.
     *
     * @param input the name of the file in messages
     */
    String[] ofTracks(Session session, MidiFile midi, String input, InOut files) {
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
