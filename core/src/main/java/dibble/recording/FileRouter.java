package dibble.recording;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.Source;
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
    private static final int EXCLUSIVE = 0xF0;
    private static final int EXCLUSIVE_GOES_ON = 0xF7;

    private FileRouter() {}

    /** Takes what a routed file sends. */
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

    /** A place in a track of the input. */
    private static final class Reading {
        final MidiTrack track;
        final int order;
        final Source source;
        final int slot;
        int at;

        Reading(MidiTrack track, int order, Source source, int slot) {
            this.track = track;
            this.order = order;
            this.source = source;
            this.slot = slot;
        }

        boolean findEvent() {
            while (at < track.size() && !track.isChannelMessage(at) && !isExclusive()) {
                at++;
            }
            return at < track.size();
        }

        boolean isExclusive() {
            int status = track.status(at);
            return status == EXCLUSIVE || status == EXCLUSIVE_GOES_ON;
        }

        long tick() {
            return track.tick(at);
        }
    }

    /**
     * Routes a file.
     *
     * @param sources for each track the id of its source, or null for a track that is passed over
     * @param withSounds whether parts are given their sounds first, and those of scenes that are called
     * @param slots told all that the routing names; the output's numbers are its slots
     */
    public static void route(
            MidiFile file, String[] sources, Routing routing, boolean withSounds, Slots slots, Output output) {
        Router router = new Router(output);
        router.install(RoutingCompiler.compile(routing, slots), 0);
        if (withSounds) {
            sendSounds(routing, slots, router);
        }
        PriorityQueue<Reading> next =
                new PriorityQueue<>(Comparator.comparingLong(Reading::tick).thenComparingInt(r -> r.order));
        for (int i = 0; i < sources.length; i++) {
            if (sources[i] != null) {
                Source source = routing.source(sources[i]).orElseThrow();
                Reading reading = new Reading(file.tracks().get(i), i, source, slots.source(sources[i]));
                if (reading.findEvent()) {
                    next.add(reading);
                }
            }
        }
        long tick = 0;
        while (!next.isEmpty()) {
            Reading reading = next.poll();
            Reading other = next.peek();
            do {
                if (reading.isExclusive()) {
                    sendExclusive(reading, routing, output);
                } else {
                    tick = reading.tick();
                    router.event(reading.slot, reading.track.message(reading.at), tick);
                }
                reading.at++;
            } while (reading.findEvent() && (other == null || comesFirst(reading, other)));
            if (reading.at < reading.track.size()) {
                next.add(reading);
            }
        }
        router.close(tick);
    }

    private static void sendSounds(Routing routing, Slots slots, Router router) {
        for (Instrument instrument : routing.instruments()) {
            int port = slots.port(instrument.port());
            for (Part part : instrument.parts()) {
                routing.channels().channel(instrument.ref(part)).ifPresent(channel -> {
                    for (int message : part.sound().messages(channel - 1)) {
                        router.giveSound(port, slots.instrument(instrument.id()), message, 0);
                    }
                });
            }
        }
        router.giveSounds();
        router.giveSceneSounds(0);
    }

    private static void sendExclusive(Reading reading, Routing routing, Output output) {
        for (String instrument : reading.source.sysexTo()) {
            if (routing.instrument(instrument).isPresent()) {
                output.exclusive(instrument, reading.track, reading.at);
            }
        }
    }

    private static boolean comesFirst(Reading reading, Reading other) {
        return reading.tick() < other.tick() || reading.tick() == other.tick() && reading.order < other.order;
    }
}
