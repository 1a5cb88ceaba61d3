package dibble.session;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Channels counted up for a row of parts, from a start with a step, to be looked at before it is done.
 *
 * @param channels what each part would get, in their order; those beyond 16 get none and are not in it
 * @param wanted how many parts there are
 * @param taken which of the channels somebody outside the row has already
 */
public record Plant(Map<PartRef, Integer> channels, int wanted, List<Integer> taken) {
    private static final int MOST = 16;

    /**
     * Plans channels.
     *
     * @param start the channel of the first part, 1-16
     * @param step how many channels lie from one part to the next, 1 or more
     */
    public static Plant channels(Session session, List<PartRef> row, int start, int step) {
        Map<PartRef, Integer> channels = new LinkedHashMap<>();
        int channel = start;
        for (PartRef ref : row) {
            if (channel > MOST) {
                break;
            }
            channels.put(ref, channel);
            channel += step;
        }
        List<Integer> taken = channels.entrySet().stream()
                .filter(entry -> isTaken(session, row, entry.getKey(), entry.getValue()))
                .map(Map.Entry::getValue)
                .toList();
        return new Plant(channels, row.size(), taken);
    }

    /** Whether a part on the same port, outside the row, is fixed on the channel. */
    private static boolean isTaken(Session session, List<PartRef> row, PartRef ref, int channel) {
        String port = session.instrument(ref.instrument()).map(Instrument::port).orElse("");
        return session.instruments().stream()
                .filter(instrument -> instrument.port().equals(port))
                .flatMap(instrument -> instrument.parts().stream()
                        .filter(part -> !row.contains(instrument.ref(part)))
                        .map(Part::channel))
                .anyMatch(other -> other != null && other == channel);
    }

    /** The session with the parts on these channels. */
    public Session apply(Session session) {
        Session planted = session;
        for (Map.Entry<PartRef, Integer> entry : channels.entrySet()) {
            planted = Edits.changePart(planted, entry.getKey(), part -> part.withChannel(entry.getValue()));
        }
        return planted;
    }
}
