package dibble.midi;

/** The name of note 60. It changes names only, never the sound. */
public enum MiddleC {
    C3(3),
    C4(4),
    C5(5);

    private final int octave;

    MiddleC(int octave) {
        this.octave = octave;
    }

    /** The octave number that note 60 bears. */
    int octave() {
        return octave;
    }
}
