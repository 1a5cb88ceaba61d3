package dibble.files;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.cfg.JsonNodeFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.gear.UnknownFields;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import dibble.text.UserException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * The fields of one JSON object. Each is read once and validated; fields that were not read are {@link #extras}. An
 * error is one line with the path, the given value and the expected one. A null field counts as missing.
 */
public final class Fields {
    private static final ObjectMapper PLAIN = JsonMapper.builder()
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .disable(JsonNodeFeature.STRIP_TRAILING_BIGDECIMAL_ZEROES)
            .build();
    private static final Pattern NOTE = Pattern.compile("0{0,2}[0-9]|0?[1-9][0-9]|1[01][0-9]|12[0-7]");
    private static final int MAX_SHOWN = 60;

    private final JsonNode node;
    private final String path;
    private final Set<String> known = new HashSet<>();
    private final Map<String, Fields> inner = new LinkedHashMap<>();

    private Fields(JsonNode node, String path) {
        this.node = node;
        this.path = path;
    }

    /**
     * The fields of a node.
     *
     * @throws SessionFormatException where it is no object
     */
    public static Fields of(JsonNode node, String path) throws SessionFormatException {
        if (!node.isObject()) {
            throw wrong(path, node, say("fields.an-object"));
        }
        return new Fields(node, path);
    }

    public interface Reading<T> {
        T read(Fields fields) throws SessionFormatException;
    }

    /** Makes something of one value. */
    private interface Taking {
        void take(String at, JsonNode value) throws SessionFormatException;
    }

    String path() {
        return path;
    }

    /** The value of a field as it is; null where it is left out. */
    JsonNode get(String name) {
        known.add(name);
        JsonNode value = node.get(name);
        return value == null || value.isNull() ? null : value;
    }

    boolean has(String name) {
        return get(name) != null;
    }

    /** Returns the error for an unexpected value. */
    static SessionFormatException wrong(String at, JsonNode given, String expected) {
        return new SessionFormatException(say("fields.expected", SingleLineText.of(at), shown(given), expected));
    }

    private static String shown(JsonNode given) {
        if (given.isObject()) {
            return say("fields.an-object");
        }
        String text = given.isArray() ? say("fields.a-list-of", given.size()) : given.toString();
        return SingleLineText.of(text.length() > MAX_SHOWN ? text.substring(0, MAX_SHOWN) + "…" : text);
    }

    private SessionFormatException missing(String name) {
        return new SessionFormatException(say("fields.no-expected-one", path, name));
    }

    private String at(String name) {
        return path + "." + name;
    }

    /** A text; null where it is left out. */
    public String text(String name) throws SessionFormatException {
        JsonNode value = get(name);
        return value == null ? null : text(at(name), value);
    }

    /** Returns a text, or another where the field is missing. */
    public String text(String name, String otherwise) throws SessionFormatException {
        String text = text(name);
        return text == null ? otherwise : text;
    }

    private static String text(String at, JsonNode value) throws SessionFormatException {
        if (!value.isTextual()) {
            throw wrong(at, value, say("fields.a-text"));
        }
        return value.textValue();
    }

    /** A text that must be there. */
    public String required(String name) throws SessionFormatException {
        String text = text(name);
        if (text == null) {
            throw missing(name);
        }
        return text;
    }

    /** A text of a certain form; null where it is left out. */
    String form(String name, Form form) throws SessionFormatException {
        String text = text(name);
        if (text != null && !form.fits(text)) {
            throw wrong(at(name), get(name), form.words());
        }
        return text;
    }

    /** A text of a certain form that must be there. */
    String requiredForm(String name, Form form) throws SessionFormatException {
        required(name);
        return form(name, form);
    }

    /** Reads one of several words, and returns its value. */
    <T> T word(String name, T otherwise, Map<String, T> words) throws SessionFormatException {
        JsonNode value = get(name);
        return value == null ? otherwise : word(at(name), value, words);
    }

    private static <T> T word(String at, JsonNode value, Map<String, T> words) throws SessionFormatException {
        T meant = value.isTextual() ? words.get(value.textValue()) : null;
        if (meant == null) {
            throw wrong(
                    at,
                    value,
                    words.size() == 1
                            ? "\"" + words.keySet().iterator().next() + "\""
                            : say("fields.one-of", String.join(", ", words.keySet())));
        }
        return meant;
    }

    /** A whole number; null where it is left out. */
    public Integer number(String name, int low, int high) throws SessionFormatException {
        JsonNode value = get(name);
        return value == null ? null : (Integer) (int) whole(at(name), value, low, high);
    }

    /** Returns a whole number of a range, or another where the field is missing. */
    public int number(String name, int low, int high, int otherwise) throws SessionFormatException {
        Integer number = number(name, low, high);
        return number == null ? otherwise : number;
    }

    /** A whole number that must be there. */
    public long required(String name, long low, long high) throws SessionFormatException {
        JsonNode value = get(name);
        if (value == null) {
            throw missing(name);
        }
        return whole(at(name), value, low, high);
    }

    /** A whole number however it is written: {@code 3}, {@code 3.0}, {@code 3e0}. */
    static long whole(String at, JsonNode value, long low, long high) throws SessionFormatException {
        if (value.isInt() && value.intValue() >= low && value.intValue() <= high) {
            return value.intValue();
        }
        if (value.isNumber() && isWithin(value.decimalValue(), low, high)) {
            try {
                return value.decimalValue().longValueExact();
            } catch (ArithmeticException e) {
                // It has a fraction.
            }
        }
        throw wrong(at, value, say("common.to", low, high));
    }

    /** A number with a fraction that must be there. */
    public double required(String name, double low, double high) throws SessionFormatException {
        JsonNode value = get(name);
        if (value == null) {
            throw missing(name);
        }
        if (!value.isNumber() || !isWithin(value.decimalValue(), low, high)) {
            throw wrong(at(name), value, say("common.to", (long) low, (long) high));
        }
        return value.doubleValue();
    }

    /** A number with a fraction, or null. */
    public Double decimal(String name, double low, double high) throws SessionFormatException {
        return has(name) ? Double.valueOf(required(name, low, high)) : null;
    }

    private static boolean isWithin(BigDecimal number, double low, double high) {
        return number.compareTo(BigDecimal.valueOf(low)) >= 0 && number.compareTo(BigDecimal.valueOf(high)) <= 0;
    }

    boolean flag(String name, boolean otherwise) throws SessionFormatException {
        JsonNode value = get(name);
        return value == null ? otherwise : flag(at(name), value);
    }

    static boolean flag(String at, JsonNode value) throws SessionFormatException {
        if (!value.isBoolean()) {
            throw wrong(at, value, say("fields.true-or-false"));
        }
        return value.booleanValue();
    }

    /** Goes through a list; whether there is one. */
    private boolean each(String name, int most, Taking taking) throws SessionFormatException {
        JsonNode list = get(name);
        if (list == null) {
            return false;
        }
        each(at(name), list, most, taking);
        return true;
    }

    private static void each(String at, JsonNode list, int most, Taking taking) throws SessionFormatException {
        if (!list.isArray() || list.size() > most) {
            throw wrong(
                    at, list, most == Integer.MAX_VALUE ? say("fields.a-list") : say("fields.a-list-of-at-most", most));
        }
        for (int i = 0; i < list.size(); i++) {
            taking.take(at + "[" + i + "]", list.get(i));
        }
    }

    /** Whole numbers; null where they are left out. */
    List<Integer> numbers(String name, int low, int high) throws SessionFormatException {
        List<Integer> numbers = new ArrayList<>();
        boolean there = each(name, Integer.MAX_VALUE, (at, value) -> numbers.add((int) whole(at, value, low, high)));
        return there ? numbers : null;
    }

    /** Two whole numbers; null where they are left out. */
    List<Integer> pair(String name, int low, int high) throws SessionFormatException {
        List<Integer> pair = numbers(name, low, high);
        if (pair != null && pair.size() != 2) {
            throw wrong(at(name), get(name), say("fields.a-list-of-2"));
        }
        return pair;
    }

    List<Integer> pair(String name, int low, int high, List<Integer> otherwise) throws SessionFormatException {
        List<Integer> pair = pair(name, low, high);
        return pair == null ? otherwise : pair;
    }

    Range range(String name, Range otherwise) throws SessionFormatException {
        List<Integer> ends = pair(name, 0, 127);
        if (ends == null) {
            return otherwise;
        }
        if (ends.get(0) > ends.get(1)) {
            throw new SessionFormatException(
                    say("fields.range-to-expected-the-lower", at(name), ends.get(0), ends.get(1)));
        }
        return new Range(ends.get(0), ends.get(1));
    }

    /** Texts, each once; none where they are left out. */
    Set<String> texts(String name) throws SessionFormatException {
        Set<String> texts = new LinkedHashSet<>();
        each(name, Integer.MAX_VALUE, (at, value) -> texts.add(text(at, value)));
        return texts;
    }

    /** Goes through an object whose fields are named by notes. */
    private <T> Map<Integer, T> byNote(String name, Reader<T> reader) throws SessionFormatException {
        Map<Integer, T> byNote = new LinkedHashMap<>();
        JsonNode object = get(name);
        if (object == null) {
            return byNote;
        }
        for (Map.Entry<String, JsonNode> field : of(object, at(name)).node.properties()) {
            if (!field.getValue().isNull()) {
                if (!NOTE.matcher(field.getKey()).matches()) {
                    throw new SessionFormatException(
                            say("fields.key-expected-0-to-127", at(name), SingleLineText.of(field.getKey())));
                }
                byNote.put(
                        Integer.parseInt(field.getKey()),
                        reader.read(at(name) + "." + field.getKey(), field.getValue()));
            }
        }
        return byNote;
    }

    private interface Reader<T> {
        T read(String at, JsonNode value) throws SessionFormatException;
    }

    /** Texts by note numbers. */
    Map<Integer, String> noteNames(String name) throws SessionFormatException {
        return byNote(name, Fields::text);
    }

    /** A note or 1 to 8 of them, by note numbers. */
    Map<Integer, List<Integer>> notesByNote(String name) throws SessionFormatException {
        return byNote(name, (at, value) -> {
            if (!value.isArray()) {
                return List.of((int) whole(at, value, 0, 127));
            }
            List<Integer> notes = new ArrayList<>();
            each(at, value, 8, (place, note) -> notes.add((int) whole(place, note, 0, 127)));
            if (notes.isEmpty()) {
                throw wrong(at, value, say("fields.1-to-8-notes"));
            }
            return notes;
        });
    }

    /** True or false by names. */
    Map<String, Boolean> flags(String name) throws SessionFormatException {
        Map<String, Boolean> flags = new LinkedHashMap<>();
        JsonNode object = get(name);
        if (object != null) {
            for (Map.Entry<String, JsonNode> field : of(object, at(name)).node.properties()) {
                if (!field.getValue().isNull()) {
                    flags.put(field.getKey(), flag(at(name) + "." + field.getKey(), field.getValue()));
                }
            }
        }
        return flags;
    }

    ChannelSet channels(String name, ChannelSet otherwise) throws SessionFormatException {
        JsonNode value = get(name);
        if (value == null) {
            return otherwise;
        }
        if (value.isTextual() && value.textValue().equals("all")) {
            return ChannelSet.ALL;
        }
        if (!value.isArray()) {
            throw wrong(at(name), value, say("fields.all-or-a-list-of"));
        }
        return ChannelSet.of(
                numbers(name, 1, 16).stream().mapToInt(Integer::intValue).toArray());
    }

    /** Reads a channel; returns null for a word that means a variable channel. */
    Integer channelOr(String name, String word) throws SessionFormatException {
        JsonNode value = get(name);
        if (value == null || value.isTextual() && value.textValue().equals(word)) {
            return null;
        }
        if (!value.isNumber()) {
            throw wrong(at(name), value, say("fields.or-1-to-16", word));
        }
        return number(name, 1, 16);
    }

    Set<EventKind> kinds(String name, Map<String, EventKind> words, Set<EventKind> otherwise)
            throws SessionFormatException {
        Set<EventKind> kinds = EnumSet.noneOf(EventKind.class);
        return each(name, Integer.MAX_VALUE, (at, value) -> kinds.add(word(at, value, words))) ? kinds : otherwise;
    }

    /** An object within, whose extras are among those of this one; one without fields where it is left out. */
    Fields object(String name) throws SessionFormatException {
        JsonNode value = get(name);
        Fields fields = of(value == null ? PLAIN.createObjectNode() : value, at(name));
        inner.put(name, fields);
        return fields;
    }

    /** An object within that must be there. */
    Fields requiredObject(String name) throws SessionFormatException {
        if (!has(name)) {
            throw missing(name);
        }
        return object(name);
    }

    /** Returns the items of an array of limited length; none where the field is missing. */
    public <T> List<T> list(String name, int most, Reading<T> reading) throws SessionFormatException {
        List<T> items = new ArrayList<>();
        each(name, most, (at, value) -> items.add(of(value, at).make(reading)));
        return items;
    }

    interface Naming<T> {
        String name(T item);
    }

    /**
     * Reads a list of values that keep no unknown fields. Those of the items are kept by this object, under a name of
     * each item.
     */
    public <T> List<T> list(String name, int most, Reading<T> reading, Naming<T> naming) throws SessionFormatException {
        return list(name, most, fields -> {
            T item = reading.read(fields);
            inner.put(name + " " + naming.name(item), fields);
            return item;
        });
    }

    /** Runs a reader; a rejected value becomes an error at this path. */
    public <T> T make(Reading<T> reading) throws SessionFormatException {
        try {
            return reading.read(this);
        } catch (UserException e) {
            throw new SessionFormatException(path + ": " + SingleLineText.of(e.getMessage()));
        }
    }

    /** Returns the fields that were not read, with those of nested objects. */
    public UnknownFields extras() {
        Map<String, Object> rest = new LinkedHashMap<>();
        for (Map.Entry<String, JsonNode> field : node.properties()) {
            if (!known.contains(field.getKey())) {
                rest.put(field.getKey(), field.getValue());
            }
        }
        Map<String, UnknownFields> within = new LinkedHashMap<>();
        inner.forEach((place, fields) -> {
            UnknownFields extras = fields.extras();
            if (!extras.isEmpty()) {
                within.put(place, extras);
            }
        });
        return rest.isEmpty() && within.isEmpty() ? UnknownFields.NONE : new UnknownFields(rest, within);
    }

    /** All fields of the object as extras. */
    UnknownFields everything() {
        return new Fields(node, path).extras();
    }

    /** Writes extras back behind the known fields. */
    public static void putAll(ObjectNode to, UnknownFields extras) {
        extras.fields().forEach((name, value) -> to.set(name, PLAIN.valueToTree(value)));
    }

    /** A value that was kept, as JSON on one line. */
    static String line(Object value) {
        return PLAIN.valueToTree(value).toString();
    }

    /** The fields of extras as the end of a JSON object, from the comma before them to its brace. */
    static String tail(UnknownFields extras) {
        ObjectNode node = PLAIN.createObjectNode();
        putAll(node, extras);
        return node.isEmpty() ? "}" : "," + node.toString().substring(1);
    }
}
