package dibble.files;

import com.fasterxml.jackson.core.io.JsonStringEncoder;
import com.fasterxml.jackson.databind.JsonNode;
import dibble.gear.UnknownFields;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.time.TempoMap;
import dibble.time.TempoRemap;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Collectors;

/**
 * A take as JSON Lines: a line for each event, each routing and each tempo, and one for the end. An instance writes the
 * lines of a take that grows; events are written by hand, since a long take has a million of them.
 */
public final class TakeLines {
    private static final int BLOCK = 1 << 16;

    /** Longer than any line of an event, but for its source's name where that is longer than a piece. */
    private static final int LONGEST_EVENT = 512;

    private static final int LONGEST_PIECE = 256;
    private static final JsonStringEncoder QUOTING = JsonStringEncoder.getInstance();

    /** The places within a take's extras: an event, lines before it that are none of ours, and other lines. */
    static final String EVENT = "event ";

    static final String BEFORE = "before ";
    static final String MARK = "mark ";
    static final String TEMPO = "tempo ";
    static final String METER = "meter ";
    static final String START = "start";
    static final String END = "end";

    /** Within the extras of a mark: those of the session in whose form its routing is. */
    static final String ROUTING = "routing";

    /** The pieces of an event's line, between its numbers. */
    static final byte[] T = ascii("{\"t\":");

    static final byte[] N = ascii(",\"n\":");
    static final byte[] FROM = ascii(",\"from\":\"");
    static final byte[] M = ascii("\",\"m\":[");
    static final byte[] TAIL = ascii("]}");
    static final byte[] ECHO_TAIL = ascii("],\"echo\":true}");

    private final OutputStream out;
    private final byte[] block = new byte[BLOCK];
    private int filled;
    private int events;
    private int marks;
    private JsonNode routing;
    private List<byte[]> names = List.of();

    /** The unknown fields of the file that the take was read from. */
    private final UnknownFields extras;

    /** The numbers of the events that have something of it, rising. */
    private final int[] withExtras;

    private int nextWithExtras;

    /** @param out is given whole lines, by {@link #flush} */
    public TakeLines(OutputStream out) {
        this(out, UnknownFields.NONE);
    }

    private TakeLines(OutputStream out, UnknownFields extras) {
        this.out = out;
        this.extras = extras;
        withExtras = extras.inner().keySet().stream()
                .filter(place -> place.startsWith(EVENT) || place.startsWith(BEFORE))
                .mapToInt(place -> Integer.parseInt(place.substring(place.indexOf(' ') + 1)))
                .sorted()
                .distinct()
                .toArray();
    }

    private static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    /** Returns the lines of a whole take. */
    public static byte[] write(Take take) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 16);
        write(take, out);
        return out.toByteArray();
    }

    /** Writes the lines of a whole take. */
    public static void write(Take take, OutputStream out) throws IOException {
        TakeLines lines = new TakeLines(out, take.extras());
        lines.begin(take.tempo(), take.start());
        lines.remaps(take.remaps());
        lines.follow(take.log(), take.sources(), take.marks());
        lines.end(take.length());
    }

    /**
     * Writes the lines before all events.
     *
     * @param tempo the tempo of the recording
     * @param start its start, in nanoseconds of that tempo
     */
    public void begin(TempoMap tempo, long start) throws IOException {
        put(tempos(tempo, 0));
        put(meters(tempo));
        if (start > 0 || !extras.at(START).isEmpty()) {
            put("{\"t\":0,\"start\":" + start + tail(START));
        }
        flush();
    }

    private void remaps(List<TempoRemap> remaps) throws IOException {
        for (TempoRemap remap : remaps) {
            put("{\"t\":0,\"remap\":{\"from\":" + changes(remap.from()) + ",\"to\":" + changes(remap.to()) + "}}\n");
        }
    }

    private static String changes(TempoMap tempo) {
        return tempo.tempos().stream()
                .map(at -> "{\"at\":" + at.at() + ",\"bpm\":" + at.bpm() + "}")
                .collect(Collectors.joining(",", "[", "]"));
    }

    /** The end of a line with what else its file said there. */
    private String tail(String place) {
        return Fields.tail(extras.at(place)) + "\n";
    }

    private String tempos(TempoMap tempo, int from) {
        StringBuilder lines = new StringBuilder();
        for (TempoMap.Tempo at : tempo.tempos().subList(from, tempo.tempos().size())) {
            lines.append(place(tempo, at.at()))
                    .append("\"tempo\":")
                    .append(at.bpm())
                    .append(tail(TEMPO + at.at()));
        }
        return lines.toString();
    }

    private String meters(TempoMap tempo) {
        StringBuilder lines = new StringBuilder();
        for (TempoMap.Meter at : tempo.meters()) {
            lines.append(place(tempo, at.at()))
                    .append("\"meter\":[")
                    .append(at.beats())
                    .append(',')
                    .append(at.unit())
                    .append(']')
                    .append(tail(METER + at.at()));
        }
        return lines.toString();
    }

    private static String place(TempoMap tempo, long tick) {
        return "{\"t\":" + tempo.nanos(tick) + ",\"n\":0,\"tick\":" + tick + ",";
    }

    /** Writes the events that were added to a take since the last call. */
    public void follow(EventStore log, List<String> sources, List<Take.Mark> all) throws IOException {
        if (names.size() != sources.size()) {
            names = sources.stream().map(QUOTING::quoteAsUTF8).toList();
        }
        int size = log.size();
        for (; events <= size; events++) {
            boolean more = nextWithExtras < withExtras.length && withExtras[nextWithExtras] == events;
            while (marks < all.size() && all.get(marks).position() <= events) {
                mark(all.get(marks++));
            }
            if (more) {
                nextWithExtras++;
                othersBefore(events);
            }
            if (events == size) {
                break;
            }
            event(log, events);
            if (more) {
                filled--;
                put(tail(EVENT + events));
            } else {
                block[filled++] = '\n';
            }
        }
        flush();
    }

    /** Lines that are none of ours. */
    private void othersBefore(int event) throws IOException {
        for (Object line : extras.at(BEFORE + event).fields().values()) {
            put(Fields.line(line) + "\n");
        }
    }

    private void mark(Take.Mark at) throws IOException {
        UnknownFields line = extras.at(MARK + (marks - 1));
        JsonNode next = SessionWriter.routingAlone(at.routing(), line.at(ROUTING));
        JsonNode change = RoutingChange.between(routing, next);
        put("{\"t\":" + at.stamp() + ",\"n\":" + at.position());
        put(change == null ? ",\"routing\":" + next : ",\"change\":" + change);
        put(Fields.tail(line) + "\n");
        routing = next;
    }

    private void event(EventStore log, int i) throws IOException {
        if (filled > BLOCK - LONGEST_EVENT) {
            flush();
        }
        put(T);
        number(log.stamp(i));
        put(N);
        number(i);
        put(FROM);
        put(names.get(log.source(i)));
        put(M);
        byte[] exclusive = log.exclusive(i);
        if (exclusive != null) {
            exclusive(exclusive);
            return;
        }
        int message = log.message(i);
        int length = ShortMessage.length(ShortMessage.status(message));
        for (int b = 0; b < length; b++) {
            if (b > 0) {
                block[filled++] = ',';
            }
            number(message >>> 8 * b & 0xFF);
        }
        put(log.isEcho(i) ? ECHO_TAIL : TAIL);
    }

    /** Ends with the brace of the line in the block. */
    private void exclusive(byte[] message) throws IOException {
        for (int b = 0; b < message.length; b++) {
            if (filled > BLOCK - LONGEST_EVENT) {
                flush();
            }
            if (b > 0) {
                block[filled++] = ',';
            }
            number(message[b] & 0xFF);
        }
        put(TAIL);
    }

    private void number(long value) {
        int digits = 1;
        for (long rest = value / 10; rest != 0; rest /= 10) {
            digits++;
        }
        for (int at = filled + digits - 1; at >= filled; at--) {
            block[at] = (byte) ('0' + value % 10);
            value /= 10;
        }
        filled += digits;
    }

    private void put(byte[] bytes) throws IOException {
        if (bytes.length > LONGEST_PIECE) {
            flush();
            out.write(bytes);
            return;
        }
        System.arraycopy(bytes, 0, block, filled, bytes.length);
        filled += bytes.length;
    }

    private void put(String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        flush();
        out.write(bytes);
    }

    /** Writes a change of the tempo; its lines replace the previous tempo from that point. */
    public void tempo(TempoMap before, TempoMap now) throws IOException {
        int same = 0;
        while (same < Math.min(before.tempos().size(), now.tempos().size())
                && before.tempos().get(same).equals(now.tempos().get(same))) {
            same++;
        }
        put(tempos(now, same));
        if (!before.meters().equals(now.meters())) {
            put(meters(now));
        }
        flush();
    }

    /** Writes the last line. */
    public void end(long length) throws IOException {
        put("{\"t\":" + length + ",\"end\":true" + tail(END));
        out.flush();
    }

    private void flush() throws IOException {
        out.write(block, 0, filled);
        filled = 0;
    }
}
