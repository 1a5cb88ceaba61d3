package dibble.session;

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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

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

    static byte[] write(Take take, TempoMap tempo) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 16);
        write(take, tempo, out);
        return out.toByteArray();
    }

    static void write(Take take, TempoMap tempo, OutputStream out) throws IOException {
        TakeLines lines = new TakeLines(out);
        lines.begin(tempo, take.start());
        lines.follow(take.log(), take.sources(), take.marks());
        lines.end(take.length());
    }

    /** Writes what comes before all events. */
    void begin(TempoMap tempo, long start) throws IOException {
        for (TempoMap.Tempo at : tempo.tempos()) {
            put("{\"t\":" + tempo.nanos(at.at()) + ",\"n\":0,\"tempo\":" + at.bpm() + "}\n");
        }
        if (start > 0) {
            put("{\"t\":0,\"start\":" + start + "}\n");
        }
        flush();
    }

    /** Writes what has come to a take since the last call. */
    void follow(EventLog log, List<String> sources, List<Take.Mark> all) throws IOException {
        if (names.size() != sources.size()) {
            names = sources.stream()
                    .map(id -> ("\"from\":\"" + id + "\",\"m\":[").getBytes(StandardCharsets.US_ASCII))
                    .toList();
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
        put("{\"t\":".getBytes(StandardCharsets.US_ASCII));
        number(log.stamp(i));
        put(N);
        number(i);
        block[filled++] = ',';
        put(names.get(log.source(i)));
        int message = log.message(i);
        int length = ShortMessage.length(ShortMessage.status(message));
        for (int b = 0; b < length; b++) {
            if (b > 0) {
                block[filled++] = ',';
            }
            number(message >>> 8 * b & 0xFF);
        }
        put(log.isEcho(i) ? ECHO_END : EVENT_END);
    }

    private static final byte[] N = ",\"n\":".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] EVENT_END = "]}\n".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] ECHO_END = "],\"echo\":true}\n".getBytes(StandardCharsets.US_ASCII);

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

    /** Writes the last line. */
    void end(long length) throws IOException {
        put("{\"t\":" + length + ",\"end\":true}\n");
        out.flush();
    }

    private void flush() throws IOException {
        out.write(block, 0, filled);
        filled = 0;
    }

    /** @throws SessionFormatException naming the file and the line */
    static Take read(String id, String name, byte[] bytes, String file) throws SessionFormatException {
        return new Reading(file, false).read(id, name, bytes);
    }

    /** Reads a journal, whose last line may be cut off: what was written until then is a take. */
    static Take readJournal(String id, String name, byte[] bytes, String file) throws SessionFormatException {
        return new Reading(file, true).read(id, name, bytes);
    }

    /** The reading of one take. */
    private static final class Reading {
        private final String file;
        private final boolean cutOff;
        private final Map<String, Integer> numbers = new LinkedHashMap<>();
        private final EventLog log = new EventLog();
        private final List<Take.Mark> marks = new ArrayList<>();
        private final int[] values = new int[4];
        private long length;
        private long start;

        Reading(String file, boolean cutOff) {
            this.file = file;
            this.cutOff = cutOff;
        }

        Take read(String id, String name, byte[] bytes) throws SessionFormatException {
            int end = bytes.length;
            if (cutOff) {
                while (end > 0 && bytes[end - 1] != '\n') {
                    end--;
                }
            }
            JsonParser parser = null;
            try {
                parser = JSON.getFactory().createParser(bytes, 0, end);
                while (parser.nextToken() != null) {
                    line(parser);
                }
                parser.close();
            } catch (JsonProcessingException e) {
                throw new SessionFormatException(file + ", line "
                        + (e.getLocation() == null ? 1 : e.getLocation().getLineNr()) + ": not JSON: "
                        + SessionReader.firstLine(e.getOriginalMessage()));
            } catch (IOException e) {
                throw new SessionFormatException(file + ": " + e.getMessage());
            }
            return new Take(id, name, List.copyOf(numbers.keySet()), log, marks, length, start);
        }

        private SessionFormatException wrong(JsonParser parser, String what) {
            return new SessionFormatException(
                    file + ", line " + parser.currentTokenLocation().getLineNr() + ": " + what);
        }

        private void line(JsonParser parser) throws IOException {
            if (parser.currentToken() != JsonToken.START_OBJECT) {
                throw wrong(parser, "no object (expected one on each line)");
            }
            long stamp = -1;
            int bytes = -1;
            String from = "";
            boolean echo = false;
            JsonNode routing = null;
            while (parser.nextToken() == JsonToken.FIELD_NAME) {
                String field = parser.currentName();
                JsonToken value = parser.nextToken();
                switch (field) {
                    case "t" -> stamp = value == JsonToken.VALUE_NUMBER_INT ? parser.getLongValue() : -1;
                    case "from" -> from = parser.getText();
                    case "m" -> bytes = bytes(parser);
                    case "echo" -> echo = value == JsonToken.VALUE_TRUE;
                    case "routing" -> routing = JSON.readTree(parser);
                    case "start" -> {
                        start = value == JsonToken.VALUE_NUMBER_INT ? parser.getLongValue() : -1;
                        if (start < 0) {
                            throw wrong(parser, "start " + parser.getText() + " (expected 0 or more)");
                        }
                    }
                    default -> parser.skipChildren();
                }
            }
            if (stamp < 0) {
                throw wrong(parser, "no time (expected \"t\", in nanoseconds)");
            }
            if (bytes >= 0) {
                int source = numbers.computeIfAbsent(from, key -> numbers.size());
                log.add(stamp, source, message(parser, bytes), echo);
            } else if (routing != null) {
                SessionReader.Read read = SessionReader.read(routing);
                Routing inForce = read.session().routing(read.performance());
                marks.add(new Take.Mark(log.size(), stamp, inForce));
            }
            length = Math.max(length, stamp);
        }

        private int bytes(JsonParser parser) throws IOException {
            if (parser.currentToken() != JsonToken.START_ARRAY) {
                throw wrong(parser, "\"m\" is no list (expected the bytes of a message)");
            }
            int count = 0;
            while (parser.nextToken() != JsonToken.END_ARRAY) {
                int value = parser.currentToken() == JsonToken.VALUE_NUMBER_INT ? parser.getIntValue() : -1;
                values[Math.min(count++, 3)] = value;
            }
            return count;
        }

        private int message(JsonParser parser, int count) throws SessionFormatException {
            try {
                return ShortMessage.parse(java.util.Arrays.copyOf(values, Math.min(4, count)));
            } catch (IllegalArgumentException e) {
                throw wrong(parser, e.getMessage());
            }
        }
    }
}
