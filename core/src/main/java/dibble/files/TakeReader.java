package dibble.files;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.cfg.JsonNodeFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import dibble.gear.UnknownFields;
import dibble.midi.ShortMessage;
import dibble.midi.Status;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.routing.Routing;
import dibble.text.UserException;
import dibble.time.TempoMap;
import dibble.time.TempoRemap;
import dibble.work.Progress;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A reader of the lines of a take, whether {@link TakeLines} or another application wrote them. An instance reads one
 * take.
 */
public final class TakeReader {
    /** The latest time that a line may have: 31 years. */
    private static final long LATEST = 999_999_999_999_999_999L;

    /** The most characters of the routings of a take, with their common parts: they are read one by one. */
    private static final long MAX_ROUTINGS = 4L << 30;

    /** A change seldom makes a routing longer: it is looked at only now and then. */
    private static final int BETWEEN_MEASURES = 16;

    private static final ObjectMapper JSON = JsonMapper.builder(JsonFactory.builder()
                    .streamReadConstraints(StreamReadConstraints.builder()
                            .maxNestingDepth(100)
                            .maxNameLength(1000)
                            .build())
                    .build())
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .disable(JsonNodeFeature.STRIP_TRAILING_BIGDECIMAL_ZEROES)
            .enable(JsonParser.Feature.STRICT_DUPLICATE_DETECTION)
            .build();
    /** The longest line of a take: 16 MiB. */
    public static final int LONGEST_LINE = 16 << 20;

    /** Lines from one word about the progress to the next, less one. */
    private static final int EVERY = 0xFFF;

    private static final int MAX_DIGITS = 18;

    /**
     * The content of a recording that was cut off.
     *
     * @param losses the lines that could not be read, with the problem of each
     */
    public record Recovered(Take take, List<String> losses) {}

    private final String file;
    private final List<byte[]> names = new ArrayList<>();
    private final Map<ByteBuffer, Integer> numbers = new HashMap<>();
    private int lastSource = -1;
    private final EventStore log = new EventStore();
    private final List<Take.Mark> marks = new ArrayList<>();
    private JsonNode routing;
    private long routingSize;
    private long routingsRead;
    private final TempoMap otherwise;
    private final List<TempoMap.Tempo> tempos = new ArrayList<>();
    private final List<TempoMap.Meter> meters = new ArrayList<>();
    private final List<TempoRemap> remaps = new ArrayList<>();
    private final Map<String, UnknownFields> extras = new LinkedHashMap<>();

    /** The start of the last tempo in nanoseconds: an earlier version wrote no ticks. */
    private long tempoNanos;

    private long length;
    private long start;

    /** When the last event was: an event that says an earlier time was decided after it all the same. */
    private long lastEvent;

    /** The line that is read, from 1, and the place in it. */
    private int number;

    private int at;

    private TakeReader(String file, TempoMap otherwise) {
        this.file = file;
        this.otherwise = otherwise;
    }

    /** @param losses is given what cannot be read; null where that refuses the take */
    private void lines(byte[] bytes, int end, List<String> losses, Progress progress) throws SessionFormatException {
        int from = 0;
        while (from < end) {
            if ((++number & EVERY) == 0) {
                progress.at((double) from / end);
            }
            int to = from;
            boolean blank = true;
            while (to < end && bytes[to] != '\n') {
                blank &= bytes[to] == ' ' || bytes[to] == '\t' || bytes[to] == '\r';
                to++;
            }
            if (!blank && !event(bytes, from, to)) {
                try {
                    if (to - from > LONGEST_LINE) {
                        throw wrong(say("take-reader.a-line-of-bytes-expected", to - from, LONGEST_LINE));
                    }
                    line(bytes, from, to);
                } catch (SessionFormatException e) {
                    if (losses == null) {
                        throw e;
                    }
                    losses.add(e.getMessage());
                }
            }
            from = to + 1;
        }
    }

    private Take take(String id, String name, UnknownFields entry) throws SessionFormatException {
        List<String> sources = new ArrayList<>();
        names.forEach(source -> sources.add(new String(source, StandardCharsets.UTF_8)));
        Map<String, UnknownFields> all = new LinkedHashMap<>(entry.inner());
        all.putAll(extras);
        return new Take(
                id, name, sources, log, marks, tempo(), length, start, remaps, new UnknownFields(entry.fields(), all));
    }

    private TempoMap tempo() throws SessionFormatException {
        try {
            return new TempoMap(
                    tempos.isEmpty() ? otherwise.tempos() : tempos, meters.isEmpty() ? otherwise.meters() : meters);
        } catch (UserException e) {
            throw new SessionFormatException(file + ": " + e.getMessage());
        }
    }

    private long inOrder(long stamp) {
        lastEvent = Math.max(lastEvent, stamp);
        length = Math.max(length, lastEvent);
        return lastEvent;
    }

    /**
     * Reads an event in the form that Dibble writes, since a take can have a million. Returns false for any other line,
     * which may still be an event of another application.
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
        log.add(inOrder(stamp), source(bytes, name, nameEnd), message, echo);
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
        return at == first || at - first > MAX_DIGITS ? -1 : value;
    }

    private int source(byte[] bytes, int from, int to) {
        if (lastSource >= 0) {
            byte[] last = names.get(lastSource);
            if (Arrays.equals(bytes, from, to, last, 0, last.length)) {
                return lastSource;
            }
        }
        Integer known = numbers.get(ByteBuffer.wrap(bytes, from, to - from));
        if (known == null) {
            byte[] name = Arrays.copyOfRange(bytes, from, to);
            known = names.size();
            names.add(name);
            numbers.put(ByteBuffer.wrap(name), known);
        }
        lastSource = known;
        return known;
    }

    private String here() {
        return say("take-reader.line", file, number);
    }

    private SessionFormatException wrong(String what) {
        return new SessionFormatException(here() + ": " + what);
    }

    private void line(byte[] bytes, int from, int to) throws SessionFormatException {
        JsonNode node;
        try {
            node = JsonTree.read(JSON, bytes, from, to - from);
        } catch (JsonProcessingException e) {
            throw wrong(SessionReader.whatIsWrong(e));
        } catch (IOException e) {
            throw wrong(say("take-reader.not-utf-8-text-expected"));
        }
        Fields.of(node, here() + ": $").make(fields -> {
            line(fields, node, to - from);
            return fields;
        });
    }

    private void line(Fields f, JsonNode node, int size) throws SessionFormatException {
        long stamp = f.required("t", 0, LATEST);
        f.get("n");
        if (f.has("tempo") || f.has("meter")) {
            // Places in the music, not in the take: they do not make it longer.
            time(f, stamp);
        } else if (f.has("m")) {
            event(f, stamp);
        } else if (f.has("routing") || f.has("change")) {
            mark(f, stamp, size);
        } else if (f.has("remap")) {
            remaps.add(f.object("remap").make(TakeReader::remap));
        } else if (f.has("start")) {
            start = f.required("start", 0, LATEST);
            keep(TakeLines.START, f.extras());
        } else if (f.has("end")) {
            keep(TakeLines.END, f.extras());
            length = Math.max(length, stamp);
        } else {
            keepLine(node);
        }
    }

    private static TempoRemap remap(Fields f) throws SessionFormatException {
        return new TempoRemap(changes(f, "from"), changes(f, "to"));
    }

    private static TempoMap changes(Fields f, String name) throws SessionFormatException {
        return new TempoMap(
                f.list(name, SessionReader.MAX_ITEMS, SessionReader::tempoChange, at -> String.valueOf(at.at())),
                List.of(new TempoMap.Meter(0, 4, 4)));
    }

    private void keep(String place, UnknownFields of) {
        if (!of.isEmpty()) {
            extras.put(place, of);
        }
    }

    private void keepLine(JsonNode node) {
        String place = TakeLines.BEFORE + log.size();
        Map<String, Object> lines = new LinkedHashMap<>(
                extras.getOrDefault(place, UnknownFields.NONE).fields());
        lines.put(String.valueOf(lines.size()), node);
        extras.put(place, new UnknownFields(lines));
    }

    private void mark(Fields f, long stamp, int size) throws SessionFormatException {
        JsonNode whole = f.get("routing");
        JsonNode change = f.get("change");
        routing = whole != null ? whole : RoutingChange.apply(here() + ": $.change", change, routing);
        if (whole != null) {
            routingSize = size;
        } else if (marks.size() % BETWEEN_MEASURES == 0) {
            routingSize = routing.toString().length();
        }
        routingsRead += routingSize + size;
        if (routingsRead > MAX_ROUTINGS) {
            throw wrong(say("take-reader.more-routings-than-can-be", MAX_ROUTINGS >> 30));
        }
        SessionReader.Read read;
        try {
            read = SessionReader.read(routing);
        } catch (SessionFormatException e) {
            throw wrong(say("take-reader.in-its-routing", e.getMessage()));
        }
        UnknownFields ofSession = read.session().extras();
        UnknownFields line = f.extras();
        keep(
                TakeLines.MARK + marks.size(),
                ofSession.isEmpty() ? line : new UnknownFields(line.fields(), Map.of(TakeLines.ROUTING, ofSession)));
        Routing next = read.session().routing(read.performance());
        Routing before = marks.isEmpty() ? next : marks.get(marks.size() - 1).routing();
        marks.add(new Take.Mark(log.size(), inOrder(stamp), sharing(next, before)));
    }

    /**
     * Returns a routing that shares equal parts with the previous one: a take can have thousands of similar routings.
     */
    private static Routing sharing(Routing next, Routing before) {
        return new Routing(
                sharing(next.sources(), before.sources()),
                sharing(next.instruments(), before.instruments()),
                next.channels().equals(before.channels()) ? before.channels() : next.channels(),
                sharing(next.always(), before.always()),
                sharing(next.controls(), before.controls()),
                sharing(next.scenes(), before.scenes()),
                next.sceneSwitch(),
                next.activeScene());
    }

    private static <T> List<T> sharing(List<T> next, List<T> before) {
        if (next.equals(before)) {
            return before;
        }
        Map<T, T> known = new HashMap<>();
        before.forEach(item -> known.put(item, item));
        return next.stream().map(item -> known.getOrDefault(item, item)).toList();
    }

    private void time(Fields f, long stamp) throws SessionFormatException {
        Integer beats = null;
        Integer unit = null;
        Double bpm = f.has("tempo") ? (Double) f.required("tempo", 5.0, 999.0) : null;
        if (f.has("meter")) {
            List<Integer> meter = f.pair("meter", 1, 64);
            beats = meter.get(0);
            unit = meter.get(1);
        }
        long tick = f.has("tick") ? f.required("tick", 0, SessionReader.LAST_TICK) : ticksUntil(stamp);
        if (bpm != null) {
            tempos.removeIf(before -> before.at() >= tick);
            tempos.add(new TempoMap.Tempo(tick, bpm));
            tempoNanos = stamp;
        }
        if (beats != null) {
            meters.removeIf(before -> before.at() >= tick);
            meters.add(new TempoMap.Meter(tick, beats, unit));
        }
        keep((bpm != null ? TakeLines.TEMPO : TakeLines.METER) + tick, f.extras());
    }

    private long ticksUntil(long nanos) {
        if (tempos.isEmpty()) {
            return 0;
        }
        TempoMap.Tempo last = tempos.get(tempos.size() - 1);
        return last.at() + TempoMap.of(last.bpm()).ticks(nanos - tempoNanos);
    }

    private void event(Fields f, long stamp) throws SessionFormatException {
        byte[] name = f.text("from", "").getBytes(StandardCharsets.UTF_8);
        int[] bytes =
                f.numbers("m", 0, 255).stream().mapToInt(Integer::intValue).toArray();
        boolean echo = f.flag("echo", false);
        UnknownFields more = f.extras();
        if (bytes.length > 0 && bytes[0] == Status.EXCLUSIVE) {
            byte[] exclusive = exclusive(bytes);
            keep(TakeLines.EVENT + log.size(), more);
            log.addExclusive(inOrder(stamp), source(name, 0, name.length), exclusive);
        } else {
            int message = ShortMessage.parse(bytes);
            keep(TakeLines.EVENT + log.size(), more);
            log.add(inOrder(stamp), source(name, 0, name.length), message, echo);
        }
    }

    private byte[] exclusive(int[] bytes) throws SessionFormatException {
        byte[] message = new byte[bytes.length];
        for (int i = 0; i < bytes.length; i++) {
            boolean last = i == bytes.length - 1;
            if (i > 0 && (last ? bytes[i] != Status.EXCLUSIVE_END : bytes[i] > 127) || bytes.length == 1) {
                throw wrong(say("take-reader.byte-of-a-sysex-message", bytes[i]));
            }
            message[i] = (byte) bytes[i];
        }
        return message;
    }

    /**
     * Reads a take.
     *
     * @param said the fields of the take in the session
     * @param otherwise the tempo and meter for a take without them
     * @throws SessionFormatException with the file and the line
     */
    public static Take read(SessionReader.SaidOfTake said, byte[] bytes, TempoMap otherwise, Progress progress)
            throws SessionFormatException {
        TakeReader reader = new TakeReader(said.file(), otherwise);
        reader.lines(bytes, bytes.length, null, progress);
        return reader.take(said.id(), said.name(), said.extras());
    }

    /**
     * Reads a journal, whose last line may be cut off: everything before is a take. A line that cannot be read affects
     * no other.
     *
     * @throws SessionFormatException if there is no take in it
     */
    public static Recovered readJournal(String id, String name, byte[] bytes, String file, TempoMap otherwise)
            throws SessionFormatException {
        int end = bytes.length;
        while (end > 0 && bytes[end - 1] != '\n') {
            end--;
        }
        TakeReader reader = new TakeReader(file, otherwise);
        List<String> losses = new ArrayList<>();
        reader.lines(bytes, end, losses, Progress.NONE);
        return new Recovered(reader.take(id, name, UnknownFields.NONE), losses);
    }
}
