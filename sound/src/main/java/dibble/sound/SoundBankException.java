package dibble.sound;

/** A file of sounds that cannot be used; the message says why in one line. */
public final class SoundBankException extends Exception {
    private static final long serialVersionUID = 1;

    SoundBankException(String message) {
        super(message);
    }
}
