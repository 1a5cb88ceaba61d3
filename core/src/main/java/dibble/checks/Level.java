package dibble.checks;

/** How much a finding matters. */
public enum Level {
    ERROR,
    WARNING,
    NOTE
}
