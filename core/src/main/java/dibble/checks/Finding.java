package dibble.checks;

import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Something that a check has found.
 *
 * @param code the check's code, as in the contract
 * @param ids the things concerned: ids of sources, instruments, zones, control maps, scenes and tracks, parts as
 *     {@code instrument/part}
 * @param text one sentence for people
 */
public record Finding(String code, Level level, List<String> ids, String text, Optional<Fix> mend) {
    public Finding {
        ids = List.copyOf(ids);
        // It may begin with the name of a thing, which is small within a sentence.
        text = text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
    }
}
