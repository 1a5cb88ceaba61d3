package dibble.gear;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Fields of a file that this version does not know, kept so that they can be written back.
 *
 * @param fields names to plain values: maps, lists, strings, numbers, booleans, null
 */
public record Extras(Map<String, Object> fields) {
    public static final Extras NONE = new Extras(Map.of());

    public Extras {
        fields = Collections.unmodifiableMap(new LinkedHashMap<>(fields));
    }
}
