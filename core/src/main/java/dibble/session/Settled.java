package dibble.session;

import java.util.List;

/**
 * A check's finding that the player has marked as intended.
 *
 * @param code the check
 * @param ids the things concerned
 */
public record Settled(String code, List<String> ids) {
    public Settled {
        ids = List.copyOf(ids);
    }
}
