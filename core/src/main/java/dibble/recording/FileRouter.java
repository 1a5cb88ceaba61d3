package dibble.recording;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.TrackMerge;
import dibble.routing.Router;
import dibble.routing.RouterOutput;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.SlotAllocator;
import java.util.List;

/**
 * Plays a standard MIDI file through a routing, each track as a source, without a clock: stamps are ticks. Equal ticks
 * keep the order of the tracks, and within a track that of the file; at the end of the longest track held notes are closed.
 */
public final class FileRouter {
    private FileRouter() {}

    /** Receives the output of a routed file. */
    public interface Output extends RouterOutput {
        /**
         * Takes a system exclusive event, which has no channel and goes on unchanged.
         *
         * @param instrument the id of the instrument that gets it
         * @param track the track of the input that it is an event of
         * @param at which event of the track it is
         */
        void exclusive(String instrument, MidiTrack track, int at);
    }

    /**
     * Routes a file.
     *
     * @param sources for each track the id of its source, or null for a track that is passed over
     * @param withSounds whether parts are given their sounds first, and those of scenes that are called
     * @param slots told all that the routing names; the output's numbers are its slots
     */
    public static void route(
            MidiFile file, String[] sources, Routing routing, boolean withSounds, SlotAllocator slots, Output output) {
        Router router = new Router(output);
        router.install(RoutingCompiler.compile(routing, slots), 0);
        if (withSounds) {
            sendSounds(routing, slots, router);
        }
        List<MidiTrack> tracks = file.atOnce().tracks();
        for (TrackMerge events = new TrackMerge(tracks, track -> sources[track] != null); events.next(); ) {
            String source = sources[events.track()];
            MidiTrack track = tracks.get(events.track());
            if (track.isChannelMessage(events.at())) {
                router.event(slots.source(source), track.message(events.at()), events.tick());
            } else if (track.isExclusive(events.at())) {
                sendExclusive(routing, source, track, events.at(), output);
            }
        }
        router.close(tracks.stream().mapToLong(MidiTrack::endTick).max().orElse(0));
    }

    /** Gives all parts their sounds, and those of the active scene. */
    public static void sendSounds(Routing routing, SlotAllocator slots, Router router) {
        for (Instrument instrument : routing.instruments()) {
            int port = slots.port(instrument.port());
            for (Part part : instrument.parts()) {
                routing.channels().channel(instrument.ref(part)).ifPresent(channel -> {
                    for (int message : instrument.messages(part.sound(), channel - 1)) {
                        router.giveSound(port, slots.instrument(instrument.id()), message, 0);
                    }
                });
            }
        }
        router.giveSounds();
        router.giveSceneSounds(0);
    }

    private static void sendExclusive(Routing routing, String source, MidiTrack track, int at, Output output) {
        for (String instrument : exclusiveTo(routing, source)) {
            output.exclusive(instrument, track, at);
        }
    }

    /** The ids of the instruments that get a source's system exclusive messages. */
    public static List<String> exclusiveTo(Routing routing, String source) {
        return routing.source(source).orElseThrow().sysexTo().stream()
                .filter(instrument -> routing.instrument(instrument).isPresent())
                .toList();
    }
}
