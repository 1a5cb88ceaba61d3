package dibble.sound;

import static dibble.text.CoreText.say;

import java.nio.charset.StandardCharsets;

/**
 * Looks whether the chunks of a RIFF file lie within each other, before it is given to the JDK's readers: those reserve
 * as much memory as a chunk says it has.
 */
final class RiffCheck {
    private static final int HEAD = 8;
    private static final int DEEPEST = 16;

    private final byte[] bytes;

    private RiffCheck(byte[] bytes) {
        this.bytes = bytes;
    }

    /** The type of the file, four letters. */
    static String type(byte[] bytes) throws SoundBankException {
        if (bytes.length < HEAD + 4 || !text(bytes, 0).equals("RIFF")) {
            throw new SoundBankException(say("sound-bank.no-riff"));
        }
        RiffCheck check = new RiffCheck(bytes);
        int end = check.end(0, bytes.length);
        check.chunks(HEAD + 4, end, 1);
        return text(bytes, HEAD);
    }

    private static String text(byte[] bytes, int at) {
        return new String(bytes, at, 4, StandardCharsets.ISO_8859_1);
    }

    private void chunks(int from, int to, int depth) throws SoundBankException {
        for (int at = from; at < to; ) {
            int end = end(at, to);
            if (text(bytes, at).equals("LIST") || text(bytes, at).equals("RIFF")) {
                if (depth == DEEPEST || end < at + HEAD + 4) {
                    throw damaged(at);
                }
                chunks(at + HEAD + 4, end, depth + 1);
            }
            // Chunks begin at even places.
            at = end + (end - at & 1);
        }
    }

    /** Returns the end of a chunk within a limit. */
    private int end(int at, int before) throws SoundBankException {
        if (before - at < HEAD) {
            throw damaged(at);
        }
        long size = 0;
        for (int i = 7; i >= 4; i--) {
            size = size << 8 | bytes[at + i] & 0xFF;
        }
        if (size > before - at - HEAD) {
            throw damaged(at);
        }
        return at + HEAD + (int) size;
    }

    private static SoundBankException damaged(int at) {
        return new SoundBankException(say("sound-bank.damaged-at", at));
    }
}
