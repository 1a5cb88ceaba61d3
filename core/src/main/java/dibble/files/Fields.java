package dibble.files;

import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.gear.Extras;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;

/**
 * The fields of one JSON object that the schema has found good, read one by one; those that nobody asked for are the
 * object's {@link #extras}. Knows its path, for errors.
 */
final class Fields {
    /** Numbers that nobody here reads come back as they were written, however large. */
    private static final ObjectMapper PLAIN = JsonMapper.builder()
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .build();

    private final JsonNode node;
    private final String path;
    private final Set<String> known = new HashSet<>();

    Fields(JsonNode node, String path) {
        this.node = node;
        this.path = path;
    }

    interface Reading<T> {
        T read(Fields fields) throws SessionFormatException;
    }

    String path() {
        return path;
    }

    JsonNode get(String name) {
        known.add(name);
        JsonNode value = node.get(name);
        return value == null || value.isNull() ? null : value;
    }

    boolean has(String name) {
        return get(name) != null;
    }

    String text(String name, String otherwise) {
        JsonNode value = get(name);
        return value == null ? otherwise : value.asText();
    }

    Integer number(String name) {
        JsonNode value = get(name);
        return value == null ? null : (Integer) whole(name, value);
    }

    int number(String name, int otherwise) {
        JsonNode value = get(name);
        return value == null ? otherwise : whole(name, value);
    }

    /** A number, which must not be cut to fit. */
    private static int whole(String name, JsonNode value) {
        if (!value.canConvertToInt()) {
            throw new IllegalArgumentException(
                    name + " " + value.asText() + " (expected at most " + Integer.MAX_VALUE + ")");
        }
        return value.intValue();
    }

    boolean flag(String name, boolean otherwise) {
        JsonNode value = get(name);
        return value == null ? otherwise : value.booleanValue();
    }

    List<Integer> numbers(String name) {
        JsonNode value = get(name);
        if (value == null) {
            return null;
        }
        List<Integer> numbers = new ArrayList<>();
        value.forEach(number -> numbers.add(whole(name, number)));
        return numbers;
    }

    List<Integer> numbers(String name, List<Integer> otherwise) {
        List<Integer> numbers = numbers(name);
        return numbers == null ? otherwise : numbers;
    }

    /** Texts by note numbers. */
    Map<Integer, String> noteNames(String name) {
        Map<Integer, String> names = new LinkedHashMap<>();
        JsonNode value = get(name);
        if (value != null) {
            value.properties()
                    .forEach(entry -> names.put(
                            Integer.parseInt(entry.getKey()), entry.getValue().asText()));
        }
        return names;
    }

    Set<String> names(String name) {
        Set<String> names = new LinkedHashSet<>();
        JsonNode value = get(name);
        if (value != null) {
            value.forEach(text -> names.add(text.asText()));
        }
        return names;
    }

    Range range(String name, Range otherwise) throws SessionFormatException {
        List<Integer> ends = numbers(name);
        return ends == null ? otherwise : at(name, () -> new Range(ends.get(0), ends.get(1)));
    }

    ChannelSet channels(String name, ChannelSet otherwise) {
        JsonNode value = get(name);
        if (value == null) {
            return otherwise;
        }
        return value.isTextual()
                ? ChannelSet.ALL
                : ChannelSet.of(
                        numbers(name).stream().mapToInt(Integer::intValue).toArray());
    }

    Set<EventKind> kinds(String name, Set<EventKind> otherwise) {
        JsonNode value = get(name);
        if (value == null) {
            return otherwise;
        }
        Set<EventKind> kinds = EnumSet.noneOf(EventKind.class);
        value.forEach(word -> EventKind.ofWord(word.asText()).ifPresent(kinds::add));
        return kinds;
    }

    Fields object(String name) {
        JsonNode value = get(name);
        return new Fields(value == null ? PLAIN.createObjectNode() : value, path + "." + name);
    }

    <T> List<T> list(String name, Reading<T> reading) throws SessionFormatException {
        List<T> items = new ArrayList<>();
        JsonNode value = get(name);
        for (int i = 0; value != null && i < value.size(); i++) {
            items.add(new Fields(value.get(i), path + "." + name + "[" + i + "]").make(reading));
        }
        return items;
    }

    /** Runs a reading; what a value refuses becomes an error at this path. */
    <T> T make(Reading<T> reading) throws SessionFormatException {
        try {
            return reading.read(this);
        } catch (IllegalArgumentException e) {
            throw new SessionFormatException(path + ": " + e.getMessage());
        }
    }

    private <T> T at(String name, Supplier<T> making) throws SessionFormatException {
        try {
            return making.get();
        } catch (IllegalArgumentException e) {
            throw new SessionFormatException(path + "." + name + ": " + e.getMessage());
        }
    }

    /** The fields that nobody asked for. */
    Extras extras() {
        Map<String, Object> rest = new LinkedHashMap<>();
        Iterator<Map.Entry<String, JsonNode>> fields = node.properties().iterator();
        while (fields.hasNext()) {
            Map.Entry<String, JsonNode> field = fields.next();
            if (!known.contains(field.getKey())) {
                rest.put(field.getKey(), PLAIN.convertValue(field.getValue(), Object.class));
            }
        }
        return rest.isEmpty() ? Extras.NONE : new Extras(rest);
    }

    /** All fields of the object as extras. */
    Extras everything() {
        return new Fields(node, path).extras();
    }

    /** Writes extras back behind the known fields. */
    static void putAll(ObjectNode to, Extras extras) {
        extras.fields().forEach((name, value) -> to.set(name, PLAIN.valueToTree(value)));
    }
}
