package dibble.desktop.live;

import java.util.EnumMap;
import java.util.Map;
import javafx.scene.input.KeyCode;

/** The letter rows of a computer's keyboard as two octaves of keys, by their place on the usual layout. */
final class TypedKeys {
    private static final KeyCode[] LOWER = {
        KeyCode.Z,
        KeyCode.S,
        KeyCode.X,
        KeyCode.D,
        KeyCode.C,
        KeyCode.V,
        KeyCode.G,
        KeyCode.B,
        KeyCode.H,
        KeyCode.N,
        KeyCode.J,
        KeyCode.M,
        KeyCode.COMMA,
        KeyCode.L,
        KeyCode.PERIOD,
        KeyCode.SEMICOLON,
        KeyCode.SLASH
    };
    private static final KeyCode[] UPPER = {
        KeyCode.Q, KeyCode.DIGIT2, KeyCode.W, KeyCode.DIGIT3, KeyCode.E, KeyCode.R, KeyCode.DIGIT5, KeyCode.T,
        KeyCode.DIGIT6, KeyCode.Y, KeyCode.DIGIT7, KeyCode.U, KeyCode.I, KeyCode.DIGIT9, KeyCode.O, KeyCode.DIGIT0,
        KeyCode.P
    };
    private static final Map<KeyCode, Integer> STEPS = new EnumMap<>(KeyCode.class);

    static {
        for (int step = 0; step < LOWER.length; step++) {
            STEPS.put(LOWER[step], step);
        }
        for (int step = 0; step < UPPER.length; step++) {
            STEPS.put(UPPER[step], 12 + step);
        }
    }

    private TypedKeys() {}

    /** Semitones above the lowest C of the two octaves, or null for another key. */
    static Integer step(KeyCode code) {
        return STEPS.get(code);
    }
}
