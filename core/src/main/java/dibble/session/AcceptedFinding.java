package dibble.session;

import dibble.gear.UnknownFields;
import java.util.List;

/**
 * A check's finding that the player has marked as intended.
 *
 * @param code the check
 * @param ids the things concerned
 */
public record AcceptedFinding(String code, List<String> ids, UnknownFields extras) {
    /** One that has no unknown fields. */
    public AcceptedFinding(String code, List<String> ids) {
        this(code, ids, UnknownFields.NONE);
    }

    public AcceptedFinding {
        ids = List.copyOf(ids);
    }

    /** Returns true if it is about this finding. */
    public boolean isOf(String otherCode, List<String> otherIds) {
        return code.equals(otherCode) && ids.equals(otherIds);
    }
}
