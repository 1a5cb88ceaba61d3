package dibble.presentation;

/**
 * Something that can be chosen, with the words for it.
 *
 * @param value what it stands for; null for nothing
 */
public record Choice(Object value, String words) {
    @Override
    public String toString() {
        return words;
    }
}
