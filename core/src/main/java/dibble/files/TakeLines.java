package dibble.files;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dibble.midi.ShortMessage;
import dibble.recording.EventLog;
import dibble.recording.Take;
import dibble.routing.Routing;
import dibble.time.TempoMap;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * A take as JSON Lines: a line for each event, each routing and each tempo, and one for the end. An instance writes the
 * lines of a take that grows; events are written by hand, since a long take has a million of them.
 */
final class TakeLines {
    private static final int BLOCK = 1 << 16;

    /** Longer than any line of an event. */
    private static final int LONGEST_EVENT = 512;

    private static final ObjectMapper JSON = new ObjectMapper(JsonFactory.builder()
            .streamReadConstraints(StreamReadConstraints.builder()
                    .maxNestingDepth(100)
                    .maxNameLength(1000)
                    .build())
            .build());

    /** The pieces of an event's line, between its numbers. */
    private static final byte[] T = ascii("{\"t\":");

    private static final byte[] N = ascii(",\"n\":");
    private static final byte[] FROM = ascii(",\"from\":\"");
    private static final byte[] M = ascii("\",\"m\":[");
    private static final byte[] TAIL = ascii("]}");
    private static final byte[] ECHO_TAIL = ascii("],\"echo\":true}");
    private static final int MOST_DIGITS = 18;
    private static final int EXCLUSIVE = 0xF0;
    private static final int EXCLUSIVE_END = 0xF7;

    private final OutputStream out;
    private final byte[] block = new byte[BLOCK];
    private int filled;
    private int events;
    private int marks;
    private List<byte[]> names = List.of();

    /** @param out is given whole lines, by {@link #flush} */
    TakeLines(OutputStream out) {
        this.out = out;
    }

    private static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    static byte[] write(Take take) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 16);
        write(take, out);
        return out.toByteArray();
    }

    static void write(Take take, OutputStream out) throws IOException {
        TakeLines lines = new TakeLines(out);
        lines.begin(take.tempo(), take.start());
        lines.follow(take.log(), take.sources(), take.marks());
        lines.end(take.length());
    }

    /**
     * Writes what comes before all events.
     *
     * @param tempo with which it is recorded
     * @param start where it begins, in nanoseconds of that tempo
     */
    void begin(TempoMap tempo, long start) throws IOException {
        put(tempos(tempo, 0));
        put(meters(tempo));
        if (start > 0) {
            put("{\"t\":0,\"start\":" + start + "}\n");
        }
        flush();
    }

    private static String tempos(TempoMap tempo, int from) {
        StringBuilder lines = new StringBuilder();
        for (TempoMap.Tempo at : tempo.tempos().subList(from, tempo.tempos().size())) {
            lines.append(place(tempo, at.at()))
                    .append("\"tempo\":")
                    .append(at.bpm())
                    .append("}\n");
        }
        return lines.toString();
    }

    private static String meters(TempoMap tempo) {
        StringBuilder lines = new StringBuilder();
        for (TempoMap.Meter at : tempo.meters()) {
            lines.append(place(tempo, at.at()))
                    .append("\"meter\":[")
                    .append(at.beats())
                    .append(',')
                    .append(at.unit())
                    .append("]}\n");
        }
        return lines.toString();
    }

    private static String place(TempoMap tempo, long tick) {
        return "{\"t\":" + tempo.nanos(tick) + ",\"n\":0,\"tick\":" + tick + ",";
    }

    /** Writes what has come to a take since the last call. */
    void follow(EventLog log, List<String> sources, List<Take.Mark> all) throws IOException {
        if (names.size() != sources.size()) {
            names = sources.stream().map(TakeLines::ascii).toList();
        }
        int size = log.size();
        for (; events <= size; events++) {
            while (marks < all.size() && all.get(marks).position() <= events) {
                Take.Mark at = all.get(marks++);
                put("{\"t\":" + at.stamp() + ",\"n\":" + at.position() + ",\"routing\":");
                put(JSON.writeValueAsString(SessionWriter.routingAlone(at.routing())));
                put("}\n");
            }
            if (events == size) {
                break;
            }
            event(log, events);
        }
        flush();
    }

    private void event(EventLog log, int i) throws IOException {
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
        block[filled++] = '\n';
    }

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
        block[filled++] = '\n';
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

    private void put(byte[] bytes) {
        System.arraycopy(bytes, 0, block, filled, bytes.length);
        filled += bytes.length;
    }

    private void put(String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        flush();
        out.write(bytes);
    }

    /** The tempo that was written is another from a change on; those that follow take the place of what was said. */
    void tempo(TempoMap before, TempoMap now) throws IOException {
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
    void end(long length) throws IOException {
        put("{\"t\":" + length + ",\"end\":true}\n");
        out.flush();
    }

    private void flush() throws IOException {
        out.write(block, 0, filled);
        filled = 0;
    }

    /**
     * Reads a take.
     *
     * @param otherwise the tempo and meter of a take that does not say its own
     * @throws SessionFormatException naming the file and the line
     */
    static Take read(String id, String name, byte[] bytes, String file, TempoMap otherwise)
            throws SessionFormatException {
        return new Reading(file, otherwise, false).read(id, name, bytes);
    }

    /** Reads a journal, whose last line may be cut off: what was written until then is a take. */
    static Take readJournal(String id, String name, byte[] bytes, String file, TempoMap otherwise)
            throws SessionFormatException {
        return new Reading(file, otherwise, true).read(id, name, bytes);
    }

    /** The reading of one take. */
    private static final class Reading {
        private final String file;
        private final boolean cutOff;
        private final List<byte[]> names = new ArrayList<>();
        private final EventLog log = new EventLog();
        private final List<Take.Mark> marks = new ArrayList<>();
        private final TempoMap otherwise;
        private final List<TempoMap.Tempo> tempos = new ArrayList<>();
        private final List<TempoMap.Meter> meters = new ArrayList<>();

        /** Where the last tempo began, in nanoseconds: an earlier version wrote no ticks. */
        private long tempoNanos;

        private long length;
        private long start;

        /** The line that is read, from 1, and the place in it. */
        private int number;

        private int at;

        Reading(String file, TempoMap otherwise, boolean cutOff) {
            this.file = file;
            this.otherwise = otherwise;
            this.cutOff = cutOff;
        }

        Take read(String id, String name, byte[] bytes) throws SessionFormatException {
            int end = bytes.length;
            if (cutOff) {
                while (end > 0 && bytes[end - 1] != '\n') {
                    end--;
                }
            }
            int from = 0;
            while (from < end) {
                number++;
                int to = from;
                while (to < end && bytes[to] != '\n') {
                    to++;
                }
                if (!event(bytes, from, to)) {
                    line(bytes, from, to);
                }
                from = to + 1;
            }
            List<String> sources = new ArrayList<>();
            names.forEach(source -> sources.add(new String(source, StandardCharsets.UTF_8)));
            return new Take(id, name, sources, log, marks, tempo(), length, start);
        }

        private TempoMap tempo() throws SessionFormatException {
            try {
                return new TempoMap(
                        tempos.isEmpty() ? otherwise.tempos() : tempos, meters.isEmpty() ? otherwise.meters() : meters);
            } catch (IllegalArgumentException e) {
                throw new SessionFormatException(file + ": " + e.getMessage());
            }
        }

        /**
         * Reads an event as it is written here, of which a take can have a million; false where the line is anything else,
         * though it may be an event that somebody else wrote.
         */
        private boolean event(byte[] bytes, int from, int to) {
            at = from;
            if (!skip(bytes, to, T)) {
                return false;
            }
            long stamp = number(bytes, to);
            if (stamp < 0 || !skip(bytes, to, N) || number(bytes, to) < 0 || !skip(bytes, to, FROM)) {
                return false;
            }
            int name = at;
            while (at < to
                    && (bytes[at] >= 'a' && bytes[at] <= 'z'
                            || bytes[at] >= '0' && bytes[at] <= '9'
                            || bytes[at] == '-')) {
                at++;
            }
            int nameEnd = at;
            if (!skip(bytes, to, M)) {
                return false;
            }
            int count = 0;
            int message = 0;
            do {
                long value = number(bytes, to);
                if (value < 0 || value > (count == 0 ? 0xEF : 0x7F) || count > 2) {
                    return false;
                }
                message |= (int) value << 8 * count++;
            } while (at < to && bytes[at++] == ',');
            at--;
            boolean echo = skip(bytes, to, ECHO_TAIL);
            if (!echo && !skip(bytes, to, TAIL)
                    || at != to
                    || !ShortMessage.isChannelStatus(message & 0xFF)
                    || count != ShortMessage.length(message & 0xFF)) {
                return false;
            }
            log.add(stamp, source(bytes, name, nameEnd), message, echo);
            length = Math.max(length, stamp);
            return true;
        }

        private boolean skip(byte[] bytes, int to, byte[] expected) {
            int end = at + expected.length;
            if (end > to || !Arrays.equals(bytes, at, end, expected, 0, expected.length)) {
                return false;
            }
            at = end;
            return true;
        }

        /** A whole number; -1 where there is none, or one that is too long. */
        private long number(byte[] bytes, int to) {
            int first = at;
            long value = 0;
            while (at < to && bytes[at] >= '0' && bytes[at] <= '9') {
                value = value * 10 + bytes[at++] - '0';
            }
            return at == first || at - first > MOST_DIGITS ? -1 : value;
        }

        private int source(byte[] bytes, int from, int to) {
            for (int i = 0; i < names.size(); i++) {
                byte[] name = names.get(i);
                if (Arrays.equals(bytes, from, to, name, 0, name.length)) {
                    return i;
                }
            }
            names.add(Arrays.copyOfRange(bytes, from, to));
            return names.size() - 1;
        }

        private void line(byte[] bytes, int from, int to) throws SessionFormatException {
            try (JsonParser parser = JSON.getFactory().createParser(bytes, from, to - from)) {
                if (parser.nextToken() != null) {
                    line(parser);
                }
                if (parser.nextToken() != null) {
                    throw wrong("more than one object (expected one on each line)");
                }
            } catch (JsonProcessingException e) {
                throw wrong("not JSON: " + SessionReader.firstLine(e.getOriginalMessage()));
            } catch (SessionFormatException e) {
                throw e;
            } catch (IOException e) {
                throw wrong(SessionReader.firstLine(String.valueOf(e.getMessage())));
            }
        }

        private SessionFormatException wrong(String what) {
            return new SessionFormatException(file + ", line " + number + ": " + what);
        }

        private void line(JsonParser parser) throws IOException {
            if (parser.currentToken() != JsonToken.START_OBJECT) {
                throw wrong("no object (expected one on each line)");
            }
            long stamp = -1;
            int[] bytes = null;
            String from = "";
            boolean echo = false;
            JsonNode routing = null;
            JsonNode tempo = null;
            JsonNode meter = null;
            long tick = -1;
            while (parser.nextToken() == JsonToken.FIELD_NAME) {
                String field = parser.currentName();
                JsonToken value = parser.nextToken();
                switch (field) {
                    case "t" -> stamp = value == JsonToken.VALUE_NUMBER_INT ? parser.getLongValue() : -1;
                    case "from" -> from = parser.getText();
                    case "m" -> bytes = bytes(parser);
                    case "echo" -> echo = value == JsonToken.VALUE_TRUE;
                    case "routing" -> routing = JSON.readTree(parser);
                    case "tempo" -> tempo = JSON.readTree(parser);
                    case "meter" -> meter = JSON.readTree(parser);
                    case "tick" -> tick = value == JsonToken.VALUE_NUMBER_INT ? parser.getLongValue() : -1;
                    case "start" -> {
                        start = value == JsonToken.VALUE_NUMBER_INT ? parser.getLongValue() : -1;
                        if (start < 0) {
                            throw wrong("start " + parser.getText() + " (expected 0 or more)");
                        }
                    }
                    default -> parser.skipChildren();
                }
            }
            if (stamp < 0) {
                throw wrong("no time (expected \"t\", in nanoseconds)");
            }
            if (tempo != null || meter != null) {
                // Places in the music, not in the take: they do not make it longer.
                time(stamp, tick, tempo, meter);
                return;
            }
            if (bytes != null) {
                byte[] name = from.getBytes(StandardCharsets.UTF_8);
                add(stamp, source(name, 0, name.length), bytes, echo);
            } else if (routing != null) {
                SessionReader.Read read = SessionReader.read(routing);
                Routing inForce = read.session().routing(read.performance());
                marks.add(new Take.Mark(log.size(), stamp, inForce));
            }
            length = Math.max(length, stamp);
        }

        private void time(long stamp, long tick, JsonNode tempo, JsonNode meter) throws SessionFormatException {
            try {
                if (tempo != null) {
                    long at = tick >= 0 ? tick : ticksUntil(stamp);
                    tempos.removeIf(before -> before.at() >= at);
                    tempos.add(new TempoMap.Tempo(at, tempo.asDouble(-1)));
                    tempoNanos = stamp;
                }
                if (meter != null) {
                    long at = tick >= 0 ? tick : ticksUntil(stamp);
                    meters.removeIf(before -> before.at() >= at);
                    meters.add(new TempoMap.Meter(
                            at, meter.path(0).asInt(), meter.path(1).asInt()));
                }
            } catch (IllegalArgumentException e) {
                throw wrong(e.getMessage());
            }
        }

        private long ticksUntil(long nanos) {
            if (tempos.isEmpty()) {
                return 0;
            }
            TempoMap.Tempo last = tempos.get(tempos.size() - 1);
            return last.at() + TempoMap.of(last.bpm()).ticks(nanos - tempoNanos);
        }

        private int[] bytes(JsonParser parser) throws IOException {
            if (parser.currentToken() != JsonToken.START_ARRAY) {
                throw wrong("\"m\" is no list (expected the bytes of a message)");
            }
            int[] bytes = new int[4];
            int count = 0;
            while (parser.nextToken() != JsonToken.END_ARRAY) {
                if (count == bytes.length) {
                    bytes = Arrays.copyOf(bytes, count * 2);
                }
                bytes[count++] = parser.currentToken() == JsonToken.VALUE_NUMBER_INT ? parser.getIntValue() : -1;
            }
            return Arrays.copyOf(bytes, count);
        }

        private void add(long stamp, int source, int[] bytes, boolean echo) throws SessionFormatException {
            if (bytes.length == 0 || bytes[0] != EXCLUSIVE) {
                try {
                    log.add(stamp, source, ShortMessage.parse(bytes), echo);
                } catch (IllegalArgumentException e) {
                    throw wrong(e.getMessage());
                }
                return;
            }
            byte[] message = new byte[bytes.length];
            for (int i = 0; i < bytes.length; i++) {
                boolean last = i == bytes.length - 1;
                if (i > 0 && (last ? bytes[i] != EXCLUSIVE_END : bytes[i] < 0 || bytes[i] > 127) || bytes.length == 1) {
                    throw wrong("byte " + bytes[i]
                            + " of a system exclusive message (expected 0 to 127, and 247 at its end)");
                }
                message[i] = (byte) bytes[i];
            }
            log.addExclusive(stamp, source, message);
        }
    }
}
