package dibble.presentation;

/**
 * Something that can be chosen, with the words for it.
 *
 * @param <T> what is chosen from
 * @param value what it stands for; null for nothing
 */
public record Choice<T>(T value, String words) {
    @Override
    public String toString() {
        return words;
    }
}
