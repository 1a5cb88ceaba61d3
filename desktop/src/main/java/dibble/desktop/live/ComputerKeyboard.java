package dibble.desktop.live;

import dibble.user.Settings;
import java.util.EnumMap;
import java.util.Map;
import javafx.scene.input.KeyCode;

/** The letter rows of a computer's keyboard as two octaves of keys, by their place. */
final class ComputerKeyboard {
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

    private ComputerKeyboard() {}

    /** Semitones above the lowest C of the two octaves, or null for another key. */
    static Integer step(KeyCode code, Settings.Letters layout) {
        return STEPS.get(place(code, layout));
    }

    /** The key of the first layout that lies where this one does in another. */
    private static KeyCode place(KeyCode code, Settings.Letters layout) {
        return switch (layout) {
            case QWERTY -> code;
            case QWERTZ ->
                switch (code) {
                    case Y -> KeyCode.Z;
                    case Z -> KeyCode.Y;
                    case MINUS -> KeyCode.SLASH;
                    default -> code;
                };
            case AZERTY ->
                switch (code) {
                    case A -> KeyCode.Q;
                    case Q -> KeyCode.A;
                    case Z -> KeyCode.W;
                    case W -> KeyCode.Z;
                    case M -> KeyCode.SEMICOLON;
                    case COMMA -> KeyCode.M;
                    case SEMICOLON -> KeyCode.COMMA;
                    case COLON -> KeyCode.PERIOD;
                    case EXCLAMATION_MARK -> KeyCode.SLASH;
                    default -> digit(code);
                };
        };
    }

    /** The digits of this layout are typed with Shift; their keys are named after the unshifted character. */
    private static KeyCode digit(KeyCode code) {
        return switch (code) {
            case AMPERSAND -> KeyCode.DIGIT1;
            case QUOTEDBL -> KeyCode.DIGIT3;
            case LEFT_PARENTHESIS -> KeyCode.DIGIT5;
            case MINUS -> KeyCode.DIGIT6;
            case UNDERSCORE -> KeyCode.DIGIT8;
            default -> code;
        };
    }
}
