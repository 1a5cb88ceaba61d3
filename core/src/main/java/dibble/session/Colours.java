package dibble.session;

import dibble.gear.Instrument;
import dibble.gear.Part;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** The sixteen colors of parts, the same in all views. Assigns each part a permanent color. */
public final class Colours {
    private static final int COUNT = 16;
    private static final List<String> HEX = List.of(
            "#6F608C", "#DEB86B", "#B696C9", "#674A48", "#71895D", "#7CC7FB", "#F6A1BB", "#523E9F", "#207E27",
            "#23B189", "#897AE1", "#0D6ABB", "#822871", "#8DA523", "#932601", "#1D8FA6");
    private static final Set<Integer> WHITE_INK = Set.of(1, 4, 8, 9, 12, 13, 15);
    private static final String DARK_INK = "#14150F";
    private static final String NO_PART = "#6F6B5C";

    private Colours() {}

    /** The colour of a part as {@code #RRGGBB}; a quiet grey for 0, no part. */
    public static String hex(int colour) {
        return colour == 0 ? NO_PART : HEX.get(colour - 1);
    }

    /** The ink that is read on that colour, likewise. */
    public static String inkHex(int colour) {
        return colour == 0 || WHITE_INK.contains(colour) ? "#FFFFFF" : DARK_INK;
    }

    /** The instruments with a colour for each part that had none: the one used least so far, the lowest first. */
    public static List<Instrument> give(List<Instrument> instruments) {
        int[] uses = new int[COUNT + 1];
        instruments.forEach(instrument -> instrument.parts().forEach(part -> uses[part.colour()]++));
        List<Instrument> coloured = new ArrayList<>();
        for (Instrument instrument : instruments) {
            List<Part> parts = new ArrayList<>();
            for (Part part : instrument.parts()) {
                parts.add(part.colour() > 0 ? part : part.withColour(next(uses)));
            }
            coloured.add(instrument.withParts(parts));
        }
        return coloured;
    }

    private static int next(int[] uses) {
        int best = 1;
        for (int colour = 2; colour <= COUNT; colour++) {
            if (uses[colour] < uses[best]) {
                best = colour;
            }
        }
        uses[best]++;
        return best;
    }
}
