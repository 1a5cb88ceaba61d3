package dibble.midi;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;

/** Messages as people type them: <em>F#3 96</em>, <em>CC 64 127</em>, <em>program 9</em>, <em>bend 8192</em>,
 * <em>RPN 0 256</em>, <em>CC14 7 8192</em>. */
public final class MessageText {
    private static final int DEFAULT_VELOCITY = 96;
    private static final int FOURTEEN_BITS = 16_383;

    private MessageText() {}

    /**
     * Parses a message; programs count from 1, as users know them.
     *
     * @param channel the channel, 0-15
     * @throws UserException with one line that names the expected form
     */
    public static HeardMessage parse(String text, int channel, MiddleC middleC) {
        List<String> words = Arrays.asList(
                text.strip().toLowerCase(Locale.ROOT).replace(',', ' ').split("\\s+"));
        HeardMessage heard = switch (words.get(0)) {
            case "rpn", "nrpn" ->
                HeardMessage.parameter(
                        channel,
                        words.get(0).equals("nrpn"),
                        number(text, words, 1, 0, FOURTEEN_BITS - 1),
                        number(text, words, 2, 0, FOURTEEN_BITS));
            case "cc14" ->
                HeardMessage.pair(channel, number(text, words, 1, 0, 31), number(text, words, 2, 0, FOURTEEN_BITS));
            default -> HeardMessage.alone(message(text, words, channel, middleC));
        };
        if (words.size() > 4) {
            throw unreadable(text);
        }
        return heard;
    }

    private static int message(String text, List<String> words, int channel, MiddleC middleC) {
        return switch (words.get(0)) {
            case "cc", "controller" ->
                ShortMessage.controller(
                        channel,
                        number(text, words, 1, 0, 127),
                        words.size() > 2 ? number(text, words, 2, 0, 127) : 127);
            case "program" -> ShortMessage.programChange(channel, number(text, words, 1, 1, 128) - 1);
            case "bend" -> {
                int bend = number(text, words, 1, 0, FOURTEEN_BITS);
                yield ShortMessage.of(ShortMessage.PITCH_BEND, channel, bend & 0x7F, bend >> 7);
            }
            case "pressure" ->
                ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, channel, number(text, words, 1, 0, 127), 0);
            case "poly", "key" -> {
                if (words.size() < 2 || !words.get(1).equals("pressure")) {
                    throw unreadable(text);
                }
                yield ShortMessage.of(
                        ShortMessage.KEY_PRESSURE,
                        channel,
                        note(text, words, 2, middleC),
                        number(text, words, 3, 0, 127));
            }
            default -> ShortMessage.noteOn(channel, note(text, words, 0, middleC), velocity(text, words));
        };
    }

    private static int velocity(String text, List<String> words) {
        int last = words.size() - 1;
        return last == 0 ? DEFAULT_VELOCITY : number(text, words, last, 1, 127);
    }

    private static int note(String text, List<String> words, int at, MiddleC middleC) {
        OptionalInt note = at < words.size() ? NoteNames.parse(words.get(at), middleC) : OptionalInt.empty();
        return note.orElseThrow(() -> unreadable(text));
    }

    private static int number(String text, List<String> words, int at, int lowest, int highest) {
        if (at < words.size() && words.get(at).matches("\\d{1,5}")) {
            int value = Integer.parseInt(words.get(at));
            if (value >= lowest && value <= highest) {
                return value;
            }
        }
        throw unreadable(text);
    }

    private static UserException unreadable(String text) {
        return new UserException(say("message-text.expected-a-key-such-as", text.strip()));
    }
}
