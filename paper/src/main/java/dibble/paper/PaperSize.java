package dibble.paper;

import java.util.Locale;
import java.util.Set;

/** The sizes of paper that people print on, upright. */
public enum PaperSize {
    /** 210 × 297 mm (ISO 216). */
    A4("A4"),

    /** 8.5 × 11 inches (ANSI/ASME Y14.1). */
    LETTER("letter");

    /** Countries where people print on letter paper. */
    private static final Set<String> LETTERS = Set.of("US", "CA", "MX", "PH", "CL", "CO");

    private final String word;

    PaperSize(String word) {
        this.word = word;
    }

    /** Returns the usual size of a region. */
    public static PaperSize usual(Locale place) {
        return LETTERS.contains(place.getCountry()) ? LETTER : A4;
    }

    /** Its name in style sheets, on the command line and in settings. */
    public String word() {
        return word;
    }
}
