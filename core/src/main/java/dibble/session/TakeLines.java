package dibble.session;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dibble.midi.ShortMessage;
import dibble.recording.EventLog;
import dibble.recording.Take;
import dibble.routing.Routing;
import dibble.time.TempoMap;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A take as JSON Lines: a line for each event, each routing and each tempo, and one for the end. */
final class TakeLines {
    private static final JsonFactory FACTORY = new JsonFactory();
    private static final ObjectMapper JSON = new ObjectMapper();

    private TakeLines() {}

    static byte[] write(Take take, TempoMap tempo) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 16);
        try (JsonGenerator json = FACTORY.createGenerator(out)) {
            json.setRootValueSeparator(null);
            json.setCodec(JSON);
            for (TempoMap.Tempo at : tempo.tempos()) {
                json.writeStartObject();
                json.writeNumberField("t", tempo.nanos(at.at()));
                json.writeNumberField("n", 0);
                json.writeNumberField("tempo", at.bpm());
                end(json);
            }
            int mark = 0;
            EventLog log = take.log();
            for (int i = 0; i <= log.size(); i++) {
                while (mark < take.marks().size() && take.marks().get(mark).position() <= i) {
                    Take.Mark at = take.marks().get(mark++);
                    json.writeStartObject();
                    json.writeNumberField("t", at.stamp());
                    json.writeNumberField("n", at.position());
                    json.writeFieldName("routing");
                    json.writeTree(SessionWriter.routingAlone(at.routing()));
                    end(json);
                }
                if (i < log.size()) {
                    event(json, take, i);
                }
            }
            json.writeStartObject();
            json.writeNumberField("t", take.length());
            json.writeBooleanField("end", true);
            end(json);
        }
        return out.toByteArray();
    }

    private static void event(JsonGenerator json, Take take, int i) throws IOException {
        json.writeStartObject();
        json.writeNumberField("t", take.log().stamp(i));
        json.writeNumberField("n", i);
        json.writeStringField("from", take.sources().get(take.log().source(i)));
        json.writeArrayFieldStart("m");
        for (byte b : ShortMessage.bytes(take.log().message(i))) {
            json.writeNumber(b & 0xFF);
        }
        json.writeEndArray();
        if (take.log().isEcho(i)) {
            json.writeBooleanField("echo", true);
        }
        end(json);
    }

    private static void end(JsonGenerator json) throws IOException {
        json.writeEndObject();
        json.writeRaw('\n');
    }

    /** @throws SessionFormatException naming the file and the line */
    static Take read(String id, String name, byte[] bytes, String file) throws SessionFormatException {
        Map<String, Integer> numbers = new LinkedHashMap<>();
        EventLog log = new EventLog();
        List<Take.Mark> marks = new ArrayList<>();
        long length = 0;
        int number = 0;
        for (String line : (Iterable<String>) new String(bytes, StandardCharsets.UTF_8).lines()::iterator) {
            number++;
            String place = file + ", line " + number;
            if (line.isBlank()) {
                continue;
            }
            JsonNode node = SessionReader.parse(line.getBytes(StandardCharsets.UTF_8), place);
            if (!node.path("t").isIntegralNumber()) {
                throw new SessionFormatException(place + ": no time (expected \"t\", in nanoseconds)");
            }
            long stamp = node.get("t").longValue();
            if (node.has("m")) {
                int source = numbers.computeIfAbsent(node.path("from").asText(), key -> numbers.size());
                log.add(
                        stamp,
                        source,
                        message(node.get("m"), place),
                        node.path("echo").asBoolean());
            } else if (node.has("routing")) {
                SessionReader.Read read = SessionReader.read(node.get("routing"));
                Routing routing = read.session().routing(read.performance());
                marks.add(new Take.Mark(log.size(), stamp, routing));
            }
            length = Math.max(length, stamp);
        }
        return new Take(id, name, List.copyOf(numbers.keySet()), log, marks, length);
    }

    private static int message(JsonNode bytes, String place) throws SessionFormatException {
        int[] values = new int[bytes.size()];
        for (int i = 0; i < values.length; i++) {
            values[i] = bytes.get(i).asInt(-1);
        }
        try {
            return ShortMessage.parse(values);
        } catch (IllegalArgumentException e) {
            throw new SessionFormatException(place + ": " + e.getMessage());
        }
    }
}
