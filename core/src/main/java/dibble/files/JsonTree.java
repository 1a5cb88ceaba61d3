package dibble.files;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.exc.StreamConstraintsException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;

/** Reads JSON whose numbers may be anything. */
public final class JsonTree {
    private JsonTree() {}

    /** Reads a document. */
    public static JsonNode read(ObjectMapper json, byte[] bytes) throws IOException {
        return read(json, bytes, 0, bytes.length);
    }

    /**
     * Reads a document within some bytes.
     *
     * @throws StreamConstraintsException also for a number with too large an exponent. The library throws an unchecked
     *     exception for it.
     */
    static JsonNode read(ObjectMapper json, byte[] bytes, int from, int length) throws IOException {
        try {
            return json.readTree(bytes, from, length);
        } catch (ArithmeticException | NumberFormatException e) {
            throw new StreamConstraintsException("number", JsonLocation.NA);
        }
    }
}
