package dibble.gear;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;

/**
 * The channels of all parts. On each port, fixed channels come first. Then every auto part keeps its channel if no
 * earlier part has it. The rest get a free one: a drum part 10 if possible, else the lowest; any other part the lowest
 * except 10.
 *
 * @param channels the channels 1-16 of all parts that have one
 */
public record ChannelPlan(Map<PartRef, Integer> channels) {
    private static final int DRUMS = 10;

    public ChannelPlan {
        channels = Map.copyOf(channels);
    }

    /**
     * Plans the channels.
     *
     * @param now the channels 1-16 that auto parts have at present
     */
    public static ChannelPlan of(List<Instrument> instruments, Map<PartRef, Integer> now) {
        Map<String, Integer> takenByPort = new HashMap<>();
        Map<PartRef, Integer> channels = new LinkedHashMap<>();
        for (Instrument instrument : instruments) {
            for (Part part : instrument.parts()) {
                if (part.channel() != null) {
                    channels.put(instrument.ref(part), part.channel());
                    takenByPort.merge(instrument.port(), 1 << part.channel(), (a, b) -> a | b);
                }
            }
        }
        eachAuto(instruments, (instrument, part) -> {
            Integer kept = now.get(instrument.ref(part));
            int taken = takenByPort.getOrDefault(instrument.port(), 0);
            if (kept != null && (taken & 1 << kept) == 0) {
                channels.put(instrument.ref(part), kept);
                takenByPort.put(instrument.port(), taken | 1 << kept);
            }
        });
        eachAuto(instruments, (instrument, part) -> {
            if (!channels.containsKey(instrument.ref(part))) {
                int taken = takenByPort.getOrDefault(instrument.port(), 0);
                int free = free(taken, part.drums());
                if (free > 0) {
                    channels.put(instrument.ref(part), free);
                    takenByPort.put(instrument.port(), taken | 1 << free);
                }
            }
        });
        return new ChannelPlan(channels);
    }

    private interface EachPart {
        void visit(Instrument instrument, Part part);
    }

    private static void eachAuto(List<Instrument> instruments, EachPart visitor) {
        for (Instrument instrument : instruments) {
            for (Part part : instrument.parts()) {
                if (part.channel() == null) {
                    visitor.visit(instrument, part);
                }
            }
        }
    }

    private static int free(int taken, boolean drums) {
        if (drums && (taken & 1 << DRUMS) == 0) {
            return DRUMS;
        }
        for (int channel = 1; channel <= 16; channel++) {
            if ((taken & 1 << channel) == 0 && channel != DRUMS) {
                return channel;
            }
        }
        return 0;
    }

    /** The channel 1-16 of a part; empty where none is left for it, or where there is no such part. */
    public OptionalInt channel(PartRef part) {
        Integer channel = channels.get(part);
        return channel == null ? OptionalInt.empty() : OptionalInt.of(channel);
    }
}
