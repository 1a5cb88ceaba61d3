package dibble.gear;

/** What a source is. */
public enum SourceKind {
    KEYBOARD,
    PADS,
    PEDALS,
    CONTROLS,
    SEQUENCER,
    FILE
}
