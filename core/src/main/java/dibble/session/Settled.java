package dibble.session;

import dibble.gear.Extras;
import java.util.List;

/**
 * A check's finding that the player has marked as intended.
 *
 * @param code the check
 * @param ids the things concerned
 */
public record Settled(String code, List<String> ids, Extras extras) {
    /** One that has no unknown fields. */
    public Settled(String code, List<String> ids) {
        this(code, ids, Extras.NONE);
    }

    public Settled {
        ids = List.copyOf(ids);
    }

    /** Whether it is about this finding. */
    public boolean isOf(String otherCode, List<String> otherIds) {
        return code.equals(otherCode) && ids.equals(otherIds);
    }
}
