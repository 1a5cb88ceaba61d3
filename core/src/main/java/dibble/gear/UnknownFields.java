package dibble.gear;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Fields of a file that this version does not know. They are kept to be written back.
 *
 * @param fields values by name, which only readers and writers of files inspect
 * @param inner the fields of nested values that are not objects in this model, by their position: {@code to},
 *     {@code tempo 960}
 */
public record UnknownFields(Map<String, Object> fields, Map<String, UnknownFields> inner) {
    /** No unknown fields. */
    public static final UnknownFields NONE = new UnknownFields(Map.of(), Map.of());

    public UnknownFields {
        fields = Collections.unmodifiableMap(new LinkedHashMap<>(fields));
        inner = Collections.unmodifiableMap(new LinkedHashMap<>(inner));
    }

    /** Fields of a thing that has nothing within it. */
    public UnknownFields(Map<String, Object> fields) {
        this(fields, Map.of());
    }

    /** Those of the thing at a place within. */
    public UnknownFields at(String place) {
        return inner.getOrDefault(place, NONE);
    }

    /** Returns true if there is none, here or within. */
    public boolean isEmpty() {
        return fields.isEmpty() && inner.isEmpty();
    }
}
