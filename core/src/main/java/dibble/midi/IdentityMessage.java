package dibble.midi;

import java.util.Arrays;
import java.util.HexFormat;
import java.util.Optional;

/** The question who a device is, and its answer: universal non-real-time system exclusive 06 01 and 06 02. */
public final class IdentityMessage {
    /** The manufacturer id that the standard reserves for non-commercial use. */
    public static final String NON_COMMERCIAL = "7D";

    private static final int NON_REAL_TIME = 0x7E;
    private static final int EVERY_DEVICE = 0x7F;
    private static final int GENERAL = 0x06;
    private static final int SHORTEST_ANSWER = 14;

    private IdentityMessage() {}

    /**
     * The identity reply of a device.
     *
     * @param maker the manufacturer id in hexadecimal: two digits, or six for ids that begin with 00
     * @param family the family number, 0-16383
     * @param model the number in the family, 0-16383
     * @param version the four numbers of the version, separated by points
     */
    public record Answer(String maker, int family, int model, String version) {
        /** The answer as the message that a device sends. */
        public byte[] bytes() {
            byte[] makersNumber = HexFormat.of().parseHex(maker);
            String[] numbers = version.split("\\.");
            int at = 5 + makersNumber.length;
            byte[] bytes = new byte[at + 9];
            byte[] head = {(byte) Status.EXCLUSIVE, NON_REAL_TIME, 0, GENERAL, 2};
            System.arraycopy(head, 0, bytes, 0, head.length);
            System.arraycopy(makersNumber, 0, bytes, 5, makersNumber.length);
            bytes[at] = (byte) (family & 0x7F);
            bytes[at + 1] = (byte) (family >> 7);
            bytes[at + 2] = (byte) (model & 0x7F);
            bytes[at + 3] = (byte) (model >> 7);
            for (int i = 0; i < 4; i++) {
                bytes[at + 4 + i] = Byte.parseByte(numbers[i]);
            }
            bytes[at + 8] = (byte) Status.EXCLUSIVE_END;
            return bytes;
        }
    }

    /** Returns the identity request, for all devices. */
    public static byte[] request() {
        return new byte[] {(byte) Status.EXCLUSIVE, NON_REAL_TIME, EVERY_DEVICE, GENERAL, 1, (byte) Status.EXCLUSIVE_END
        };
    }

    /** Returns true if a system exclusive message is an identity request. */
    public static boolean isRequest(byte[] message) {
        return message.length == 6 && isGeneral(message, 1);
    }

    private static boolean isGeneral(byte[] message, int which) {
        return message[0] == (byte) Status.EXCLUSIVE
                && message[1] == NON_REAL_TIME
                && message[3] == GENERAL
                && message[4] == which;
    }

    /** Returns the reply of a device, or empty if the message is not a reply. */
    public static Optional<Answer> answer(byte[] message) {
        if (message.length < SHORTEST_ANSWER || !isGeneral(message, 2)) {
            return Optional.empty();
        }
        // Makers' numbers that begin with 0 have three bytes.
        int length = message[5] == 0 ? 3 : 1;
        int at = 5 + length;
        if (message.length < at + 8) {
            return Optional.empty();
        }
        String maker = HexFormat.of().withUpperCase().formatHex(Arrays.copyOfRange(message, 5, at));
        String version = message[at + 4] + "." + message[at + 5] + "." + message[at + 6] + "." + message[at + 7];
        return Optional.of(new Answer(
                maker,
                message[at] & 0x7F | (message[at + 1] & 0x7F) << 7,
                message[at + 2] & 0x7F | (message[at + 3] & 0x7F) << 7,
                version));
    }
}
