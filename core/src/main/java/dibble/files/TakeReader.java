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
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Reads the lines of a take, as {@link TakeLines} writes them, or as somebody else does. An instance reads one. */
final class TakeReader {
    private static final ObjectMapper JSON = new ObjectMapper(JsonFactory.builder()
            .streamReadConstraints(StreamReadConstraints.builder()
                    .maxNestingDepth(100)
                    .maxNameLength(1000)
                    .build())
            .build());
    private static final int MOST_DIGITS = 18;
    private static final int EXCLUSIVE = 0xF0;
    private static final int EXCLUSIVE_END = 0xF7;

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

    TakeReader(String file, TempoMap otherwise, boolean cutOff) {
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
        if (!skip(bytes, to, TakeLines.T)) {
            return false;
        }
        long stamp = number(bytes, to);
        if (stamp < 0 || !skip(bytes, to, TakeLines.N) || number(bytes, to) < 0 || !skip(bytes, to, TakeLines.FROM)) {
            return false;
        }
        int name = at;
        while (at < to
                && (bytes[at] >= 'a' && bytes[at] <= 'z' || bytes[at] >= '0' && bytes[at] <= '9' || bytes[at] == '-')) {
            at++;
        }
        int nameEnd = at;
        if (!skip(bytes, to, TakeLines.M)) {
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
        boolean echo = skip(bytes, to, TakeLines.ECHO_TAIL);
        if (!echo && !skip(bytes, to, TakeLines.TAIL)
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
                throw wrong(
                        "byte " + bytes[i] + " of a system exclusive message (expected 0 to 127, and 247 at its end)");
            }
            message[i] = (byte) bytes[i];
        }
        log.addExclusive(stamp, source, message);
    }

    /**
     * Reads a take.
     *
     * @param otherwise the tempo and meter of a take that does not say its own
     * @throws SessionFormatException naming the file and the line
     */
    static Take read(String id, String name, byte[] bytes, String file, TempoMap otherwise)
            throws SessionFormatException {
        return new TakeReader(file, otherwise, false).read(id, name, bytes);
    }

    /** Reads a journal, whose last line may be cut off: what was written until then is a take. */
    static Take readJournal(String id, String name, byte[] bytes, String file, TempoMap otherwise)
            throws SessionFormatException {
        return new TakeReader(file, otherwise, true).read(id, name, bytes);
    }
}
