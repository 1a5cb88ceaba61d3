package dibble.midi;

/** How note 60 is named. It changes names only, never what sounds. */
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
