package dibble.gear;

/** The kinds of sources. */
public enum SourceKind {
    KEYBOARD,
    PADS,
    PEDALS,
    CONTROLS,
    SEQUENCER,
    FILE
}
