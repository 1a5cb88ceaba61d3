package dibble.paper;

/** The sizes of paper that people print on, upright. */
public enum PaperSize {
    /** 210 × 297 mm (ISO 216). */
    A4("A4"),

    /** 8.5 × 11 inches (ANSI/ASME Y14.1). */
    LETTER("letter");

    private final String word;

    PaperSize(String word) {
        this.word = word;
    }

    /** Its name in style sheets, on the command line and in settings. */
    public String word() {
        return word;
    }
}
