package dibble.sound;

import java.util.List;
import java.util.Map;

/**
 * A sound of a bank, as a channel selects it.
 *
 * @param bank controllers 0 and 32, as a list of two
 * @param program 0-127
 * @param drums whether each key is a separate sound
 * @param keyNames the names of keys, for drums only
 */
public record Preset(String name, List<Integer> bank, int program, boolean drums, Map<Integer, String> keyNames) {
    public Preset {
        bank = List.copyOf(bank);
        keyNames = Map.copyOf(keyNames);
    }
}
