package dibble.edits;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.gear.StripRef;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.routing.Zone;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;

/**
 * A preview of ascending channels, outputs or notes for a row of items.
 *
 * @param rows the values, in the order of the items; items beyond the highest value have none and are left out
 * @param wanted the number of items
 * @param taken the channels of the series that other parts already have
 * @param edit the edit
 */
public record NumberSeries(List<Row> rows, int wanted, List<Integer> taken, UnaryOperator<Session> edit) {
    private static final int CHANNELS = 16;
    private static final int OUTPUTS = 64;
    private static final int NOTES = 127;

    /** The value for one item. */
    public record Row(String name, int value) {}

    public NumberSeries {
        rows = List.copyOf(rows);
        taken = List.copyOf(taken);
    }

    /** The values in their order. */
    public List<Integer> values() {
        return rows.stream().map(Row::value).toList();
    }

    /** The session with all of it done. */
    public Session apply(Session session) {
        return edit.apply(session);
    }

    /** As many values as there are things, or as fit below a bound. */
    private static List<Integer> count(int things, int start, int step, int most) {
        return IntStream.iterate(start, value -> value <= most, value -> value + step)
                .limit(things)
                .boxed()
                .toList();
    }

    private static List<Row> rows(List<String> names, List<Integer> values) {
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < values.size(); i++) {
            rows.add(new Row(names.get(i), values.get(i)));
        }
        return rows;
    }

    /**
     * Plans channels of parts.
     *
     * @param start the channel of the first part, 1-16
     * @param step how many channels lie from one part to the next, 1 or more
     */
    public static NumberSeries channels(Session session, List<PartRef> row, int start, int step) {
        List<Integer> values = count(row.size(), start, step, CHANNELS);
        List<Integer> taken = IntStream.range(0, values.size())
                .filter(i -> isTaken(session, row, row.get(i), values.get(i)))
                .mapToObj(values::get)
                .toList();
        return new NumberSeries(
                rows(names(session, row), values),
                row.size(),
                taken,
                eachPart(row, values, (part, channel) -> part.withChannel(channel)));
    }

    /** Plans outputs of strips, 1-64: of parts, or of keys of theirs. */
    public static NumberSeries outputs(Session session, List<StripRef> row, int start, int step) {
        List<Integer> values = count(row.size(), start, step, OUTPUTS);
        List<String> names = row.stream()
                .map(ref -> session.part(ref.part())
                        .map(part -> part.stripName(ref.key()))
                        .orElse(ref.part().toString()))
                .toList();
        return new NumberSeries(rows(names, values), row.size(), List.of(), before -> {
            Session planted = before;
            for (int i = 0; i < values.size(); i++) {
                int output = values.get(i);
                planted = StripEdits.change(planted, row.get(i), strip -> strip.withOutput(output));
            }
            return planted;
        });
    }

    private interface PartEdit {
        Part apply(Part part, int value);
    }

    private static UnaryOperator<Session> eachPart(List<PartRef> row, List<Integer> values, PartEdit edit) {
        return session -> {
            Session planted = session;
            for (int i = 0; i < values.size(); i++) {
                int value = values.get(i);
                planted = GearEdits.changePart(planted, row.get(i), part -> edit.apply(part, value));
            }
            return planted;
        };
    }

    private static List<String> names(Session session, List<PartRef> row) {
        return row.stream()
                .map(ref -> session.part(ref).map(Part::name).orElse(ref.toString()))
                .toList();
    }

    /** Returns true if another part on the same port has the channel as a fixed channel. */
    private static boolean isTaken(Session session, List<PartRef> row, PartRef ref, int channel) {
        String port = session.instrument(ref.instrument()).map(Instrument::port).orElse("");
        return session.instruments().stream()
                .filter(instrument -> instrument.port().equals(port))
                .flatMap(instrument -> instrument.parts().stream()
                        .filter(part -> !row.contains(instrument.ref(part)))
                        .map(Part::channel))
                .anyMatch(other -> other != null && other == channel);
    }

    /**
     * Plans notes of a zone for a row of keys, such as drum pads.
     *
     * @param keys the keys, from the lowest up
     * @param names the names of the keys, for the preview
     * @param start the note of the first key, 0-127
     */
    public static NumberSeries notes(String zone, Range keys, List<String> names, int start, int step) {
        List<Integer> values = count(keys.size(), start, step, NOTES);
        return new NumberSeries(
                rows(names, values),
                keys.size(),
                List.of(),
                session -> ZoneEdits.changeZone(session, zone, it -> mapped(it, keys, values)));
    }

    /** The transposition of the zone does not apply to keys that are mapped to a note. */
    private static Zone mapped(Zone zone, Range keys, List<Integer> notes) {
        Map<Integer, List<Integer>> map = new TreeMap<>(zone.noteMap());
        for (int i = 0; i < notes.size(); i++) {
            map.put(keys.low() + i, List.of(notes.get(i)));
        }
        return zone.with().noteMap(map).build();
    }

    /** Plans the channels of a sequencer's lanes; zones that take one lane's channel alone go with it. */
    public static NumberSeries lanes(Session session, String source, int start, int step) {
        List<SequencerLane> lanes = session.source(source).map(Source::lanes).orElse(List.of());
        List<Integer> values = count(lanes.size(), start, step, CHANNELS);
        List<String> names = lanes.stream().map(SequencerLane::name).toList();
        return new NumberSeries(
                rows(names, values), lanes.size(), List.of(), before -> onChannels(before, source, values));
    }

    private static Session onChannels(Session session, String id, List<Integer> values) {
        Source source = session.source(id).orElseThrow();
        List<SequencerLane> lanes = new ArrayList<>(source.lanes());
        Map<ChannelSet, ChannelSet> moved = new java.util.HashMap<>();
        TreeSet<Integer> letIn = new TreeSet<>();
        for (int i = 0; i < lanes.size(); i++) {
            SequencerLane lane = lanes.get(i);
            int channel = i < values.size() ? values.get(i) : lane.channel();
            lanes.set(i, lane.withChannel(channel));
            moved.putIfAbsent(ChannelSet.of(lane.channel()), ChannelSet.of(channel));
            letIn.add(channel);
        }
        boolean all = source.listen().equals(ChannelSet.ALL);
        ChannelSet listen =
                ChannelSet.of(letIn.stream().mapToInt(Integer::intValue).toArray());
        Session planted = GearEdits.changeSource(
                session,
                id,
                it -> it.with().lanes(lanes).listen(all ? it.listen() : listen).build());
        for (Zone zone : session.allZones()) {
            ChannelSet other = moved.get(zone.channels());
            if (zone.source().equals(id) && other != null) {
                planted = ZoneEdits.changeZone(
                        planted, zone.id(), it -> it.with().channels(other).build());
            }
        }
        return planted;
    }
}
