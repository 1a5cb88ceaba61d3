package dibble.midi;

import static dibble.text.CoreText.say;

import java.util.Map;
import java.util.TreeMap;

/** The program names of General MIDI level 1, as the standard lists them. */
public final class GeneralMidi {
    private static final String[] PROGRAMS = (say("general-midi.acoustic-grand-piano-bright-acoustic")).split(";");

    private static final int FIRST_PERCUSSION = 35;

    private static final String[] PERCUSSION = (say("general-midi.acoustic-bass-drum-bass-drum")).split(";");

    private static final int FAMILY = 8;
    private static final String[] FAMILIES = (say("general-midi.families")).split(";");

    private GeneralMidi() {}

    /** The percussion sounds of the notes 35-81 on the percussion channel. */
    public static Map<Integer, String> percussion() {
        Map<Integer, String> names = new TreeMap<>();
        for (int i = 0; i < PERCUSSION.length; i++) {
            names.put(FIRST_PERCUSSION + i, PERCUSSION[i]);
        }
        return names;
    }

    /** The name of program 0-127, with its number as the trade prints it (1-128): {@code 9 Celesta}. */
    public static String program(int program) {
        return program + 1 + " " + PROGRAMS[program];
    }

    /** The name of program 0-127 alone. */
    public static String name(int program) {
        return PROGRAMS[program];
    }

    /** The family of program 0-127: eight programs each. */
    public static String family(int program) {
        return FAMILIES[program / FAMILY];
    }
}
