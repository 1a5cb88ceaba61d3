package dibble.presentation;

/**
 * An option with its label.
 *
 * @param <T> the type of the value
 * @param value the value; null for none
 */
public record Choice<T>(T value, String words) {
    @Override
    public String toString() {
        return words;
    }
}
