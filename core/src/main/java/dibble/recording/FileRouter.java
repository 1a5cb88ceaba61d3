package dibble.recording;

import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.routing.Router;
import dibble.routing.RouterOutput;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.Slots;
import java.util.Comparator;
import java.util.PriorityQueue;

/**
 * Plays a standard MIDI file through a routing, each track as a source, without a clock: stamps are ticks. Equal ticks
 * keep the order of the tracks, and within a track that of the file; at the last event what is held is closed.
 */
public final class FileRouter {
    private FileRouter() {}

    /** A place in a track of the input. */
    private static final class Reading {
        final MidiTrack track;
        final int order;
        final int source;
        int at;

        Reading(MidiTrack track, int order, int source) {
            this.track = track;
            this.order = order;
            this.source = source;
        }

        boolean findChannelMessage() {
            while (at < track.size() && !track.isChannelMessage(at)) {
                at++;
            }
            return at < track.size();
        }

        long tick() {
            return track.tick(at);
        }
    }

    /**
     * Routes a file.
     *
     * @param sources for each track the id of its source, or null for a track that is passed over
     * @param slots told all that the routing names; the output's numbers are its slots
     */
    public static void route(MidiFile file, String[] sources, Routing routing, Slots slots, RouterOutput output) {
        Router router = new Router(output);
        router.install(RoutingCompiler.compile(routing, slots), 0);
        PriorityQueue<Reading> next =
                new PriorityQueue<>(Comparator.comparingLong(Reading::tick).thenComparingInt(r -> r.order));
        for (int i = 0; i < sources.length; i++) {
            if (sources[i] != null) {
                Reading reading = new Reading(file.tracks().get(i), i, slots.source(sources[i]));
                if (reading.findChannelMessage()) {
                    next.add(reading);
                }
            }
        }
        long tick = 0;
        while (!next.isEmpty()) {
            Reading reading = next.poll();
            Reading other = next.peek();
            do {
                tick = reading.tick();
                router.event(reading.source, reading.track.message(reading.at), tick);
                reading.at++;
            } while (reading.findChannelMessage() && (other == null || comesFirst(reading, other)));
            if (reading.at < reading.track.size()) {
                next.add(reading);
            }
        }
        router.close(tick);
    }

    private static boolean comesFirst(Reading reading, Reading other) {
        return reading.tick() < other.tick() || reading.tick() == other.tick() && reading.order < other.order;
    }
}
