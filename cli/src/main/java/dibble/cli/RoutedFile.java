package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.FileRouter;
import dibble.routing.Destination;
import dibble.routing.Routing;
import dibble.routing.SlotAllocator;
import dibble.session.Session;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * Collects the output of a routed file, a track for each destination and one for the system exclusive of an instrument,
 * and prints it as lines of JSON on request.
 */
final class RoutedFile implements FileRouter.Output {
    private final Session session;
    private final Routing routing;
    private final SlotAllocator slots = new SlotAllocator();
    private final PrintWriter lines;
    private final MidiTrack.Builder[] tracks = new MidiTrack.Builder[SlotAllocator.MAX_PORTS * 16];
    private final Map<String, MidiTrack.Builder> exclusives = new LinkedHashMap<>();
    private final int[] firstInstrument = new int[SlotAllocator.MAX_PORTS * 16];

    /** @param lines where each message is printed to, or null */
    RoutedFile(Session session, Routing routing, PrintWriter lines) {
        this.session = session;
        this.routing = routing;
        this.lines = lines;
    }

    Routing routing() {
        return routing;
    }

    SlotAllocator slots() {
        return slots;
    }

    @Override
    public boolean send(long tick, int port, int message, int instrument) {
        int destination = port * 16 + ShortMessage.channel(message);
        if (tracks[destination] == null) {
            tracks[destination] = new MidiTrack.Builder();
            firstInstrument[destination] = instrument;
        }
        tracks[destination].add(tick, message);
        if (lines != null) {
            int length = ShortMessage.length(ShortMessage.status(message));
            StringBuilder line = line(tick, slots.instrumentId(instrument));
            line.append(ShortMessage.channel(message) + 1).append(",\"message\":[");
            for (int b = 0; b < length; b++) {
                line.append(b == 0 ? "" : ",").append(message >>> 8 * b & 0xFF);
            }
            lines.append(line.append("]}\n"));
        }
        return true;
    }

    @Override
    public void exclusive(String instrument, MidiTrack track, int at) {
        exclusives.computeIfAbsent(instrument, id -> new MidiTrack.Builder()).copy(track, at);
        if (lines != null) {
            StringBuilder line = line(track.tick(at), instrument).append("null,\"message\":[");
            line.append(track.status(at));
            for (byte b : track.data(at)) {
                line.append(',').append(b & 0xFF);
            }
            lines.append(line.append("]}\n"));
        }
    }

    /** The beginning of a line; ids have no characters that JSON escapes. */
    private static StringBuilder line(long tick, String instrument) {
        return new StringBuilder(80)
                .append("{\"tick\":")
                .append(tick)
                .append(",\"to\":\"")
                .append(instrument)
                .append("\",\"channel\":");
    }

    /**
     * Returns the type 1 file: first the events that apply to the whole input, then a track for each destination with
     * output, then events without a destination, such as lyrics, texts and unrouted system exclusive, by the tracks of
     * the input.
     *
     * @param sources for each track of the input the id of its source, or null
     */
    MidiFile file(MidiFile input, String[] sources) {
        MidiFile atOnce = input.atOnce();
        List<MidiTrack> out = new ArrayList<>();
        out.add(atOnce.conductor());
        names().forEach((destination, name) -> out.add(named(name, tracks[destination])));
        for (Instrument instrument : session.instruments()) {
            if (exclusives.containsKey(instrument.id())) {
                out.add(named(instrument.name(), exclusives.get(instrument.id())));
            }
        }
        for (int i = 0; i < sources.length; i++) {
            MidiTrack track = atOnce.tracks().get(i);
            MidiTrack.Builder others = others(track, sources[i]);
            if (others.size() > 0) {
                out.add(named(
                        say(
                                "routed-file.other-events",
                                track.name().isPresent(),
                                track.name().orElse(""),
                                i + 1),
                        others));
            }
        }
        return new MidiFile(1, input.division(), out);
    }

    private MidiTrack.Builder others(MidiTrack track, String source) {
        boolean taken =
                source != null && !FileRouter.exclusiveTo(routing, source).isEmpty();
        MidiTrack.Builder others = new MidiTrack.Builder();
        for (int i = 0; i < track.size(); i++) {
            boolean kept = track.isExclusive(i)
                    ? !taken
                    : !track.isChannelMessage(i)
                            && !MidiFile.isConducted(track, i)
                            && !track.isMeta(i, MidiTrack.META_TRACK_NAME);
            if (kept) {
                others.copy(track, i);
            }
        }
        return others;
    }

    private static MidiTrack named(String name, MidiTrack.Builder events) {
        MidiTrack.Builder named = new MidiTrack.Builder().text(0, MidiTrack.META_TRACK_NAME, name);
        MidiTrack from = events.build();
        for (int i = 0; i < from.size(); i++) {
            named.copy(from, i);
        }
        return named.build();
    }

    /** The destinations that got anything, in the order of the session, with their names. */
    private Map<Integer, String> names() {
        Map<Integer, String> names = new LinkedHashMap<>();
        for (Instrument instrument : session.instruments()) {
            int port = slots.port(instrument.port()) * 16;
            for (Part part : instrument.parts()) {
                routing.destination(instrument.ref(part))
                        .map(Destination::channel)
                        .map(channel -> port + channel - 1)
                        .filter(destination -> tracks[destination] != null)
                        .ifPresent(
                                destination -> names.putIfAbsent(destination, instrument.name() + " / " + part.name()));
            }
            bareChannels(instrument).forEach((destination, channel) -> {
                if (!isParts(destination)) {
                    names.putIfAbsent(destination, instrument.name() + " / " + channel);
                }
            });
        }
        return names;
    }

    private Map<Integer, Integer> bareChannels(Instrument instrument) {
        Map<Integer, Integer> channels = new TreeMap<>();
        int port = slots.port(instrument.port()) * 16;
        int slot = slots.instrument(instrument.id());
        for (int channel = 0; channel < 16; channel++) {
            if (tracks[port + channel] != null && firstInstrument[port + channel] == slot) {
                channels.put(port + channel, channel + 1);
            }
        }
        return channels;
    }

    private boolean isParts(int destination) {
        Set<Destination> parts = new HashSet<>();
        routing.instruments()
                .forEach(instrument -> instrument
                        .parts()
                        .forEach(part ->
                                routing.destination(instrument.ref(part)).ifPresent(parts::add)));
        return parts.contains(new Destination(slots.portName(destination / 16), destination % 16 + 1));
    }
}
