package dibble.files;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.databind.JsonNode;
import com.flipkart.zjsonpatch.DiffFlags;
import com.flipkart.zjsonpatch.JsonDiff;
import com.flipkart.zjsonpatch.JsonPatch;
import java.util.EnumSet;
import java.util.Set;

/** The difference between two consecutive routings as a JSON Patch (RFC 6902): a drag changes a single number. */
final class RoutingChange {
    private static final EnumSet<DiffFlags> SIMPLE =
            EnumSet.of(DiffFlags.OMIT_MOVE_OPERATION, DiffFlags.OMIT_COPY_OPERATION, DiffFlags.OMIT_VALUE_ON_REMOVE);

    /** Shorter than any routing that is worth a change. */
    private static final int SMALL = 400;

    /** A tilde in a path. The library does not read back every name that has one. */
    private static final String ESCAPED_TILDE = "~0";

    /** Without copying, a change is never larger than it is written. */
    private static final Set<String> OPERATIONS = Set.of("add", "remove", "replace");

    private RoutingChange() {}

    /** The change from one routing to the next; null where that would not be much shorter. */
    static JsonNode between(JsonNode before, JsonNode after) {
        if (before == null) {
            return null;
        }
        JsonNode change = JsonDiff.asJson(before, after, SIMPLE);
        String text = change.toString();
        if (text.contains(ESCAPED_TILDE)) {
            return null;
        }
        int length = text.length();
        return length < SMALL || length < after.toString().length() / 2 ? change : null;
    }

    /**
     * The routing after a change.
     *
     * @param at where the change is written
     */
    static JsonNode apply(String at, JsonNode change, JsonNode before) throws SessionFormatException {
        if (before == null) {
            throw new SessionFormatException(say("routing-change.a-change-without-a-routing", at));
        }
        if (!change.isArray()) {
            throw Fields.wrong(at, change, say("routing-change.a-list-of-changes"));
        }
        for (JsonNode step : change) {
            if (!OPERATIONS.contains(step.path("op").asText())) {
                throw Fields.wrong(at + ".op", step.path("op"), say("routing-change.add-remove-or-replace"));
            }
        }
        try {
            return JsonPatch.apply(change, before);
        } catch (RuntimeException e) {
            // The library throws several unrelated exceptions for a patch that does not fit.
            throw new SessionFormatException(say("routing-change.a-change-that-does-not", at));
        }
    }
}
