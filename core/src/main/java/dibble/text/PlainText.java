package dibble.text;

import static dibble.text.CoreText.say;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;

/** Text of files: UTF-8, or UTF-16 where a byte order mark or the first two bytes say so. Anything else is refused, not guessed. */
public final class PlainText {
    private PlainText() {}

    /**
     * Decodes a text, without its byte order mark.
     *
     * @throws UserException with the number of the line where it is no text in that encoding
     */
    public static String decode(byte[] bytes) {
        return decode(bytes, StandardCharsets.UTF_8);
    }

    /**
     * Decodes a text that is in another encoding where it is not UTF-16, without its byte order mark.
     *
     * @throws UserException with the number of the line where it is no text in that encoding
     */
    public static String decode(byte[] bytes, Charset otherwise) {
        Charset charset = charset(bytes, otherwise);
        CharsetDecoder decoder = charset.newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        ByteBuffer from = ByteBuffer.wrap(bytes);
        CharBuffer to = CharBuffer.allocate((int) Math.ceil(bytes.length * (double) decoder.maxCharsPerByte()) + 1);
        boolean failed = decoder.decode(from, to, true).isError();
        String text = to.flip().toString();
        if (failed) {
            throw new UserException(say(
                    "plain-text.other-encoding",
                    1 + text.chars().filter(c -> c == '\n').count()));
        }
        return text.startsWith("\uFEFF") ? text.substring(1) : text;
    }

    private static Charset charset(byte[] bytes, Charset otherwise) {
        int first = bytes.length < 2 ? 0 : (bytes[0] & 0xFF) << 8 | bytes[1] & 0xFF;
        if (first == 0xFEFF || first == '<') {
            return StandardCharsets.UTF_16BE;
        }
        return first == 0xFFFE || first == '<' << 8 ? StandardCharsets.UTF_16LE : otherwise;
    }
}
