package dibble.checks;

/** The severity of a finding. */
public enum Level {
    ERROR,
    WARNING,
    NOTE
}
