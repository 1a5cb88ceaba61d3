package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.text.UserException;

/** The name of a part in a session: its instrument's id and its own. */
public record PartRef(String instrument, String part) {
    /** @throws UserException where the text is not {@code instrument/part} */
    public static PartRef parse(String text) {
        int slash = text.indexOf('/');
        if (slash < 1 || slash == text.length() - 1 || text.indexOf('/', slash + 1) >= 0) {
            throw new UserException(say("part-ref.part-expected-instrument-part", text));
        }
        return new PartRef(Ids.check(text.substring(0, slash)), Ids.check(text.substring(slash + 1)));
    }

    @Override
    public String toString() {
        return instrument + "/" + part;
    }
}
