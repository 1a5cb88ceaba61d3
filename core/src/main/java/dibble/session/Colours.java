package dibble.session;

import dibble.gear.Instrument;
import dibble.gear.Part;
import java.util.ArrayList;
import java.util.List;

/** Gives every part a colour of its own, once and for good. */
public final class Colours {
    private static final int COUNT = 16;

    private Colours() {}

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
