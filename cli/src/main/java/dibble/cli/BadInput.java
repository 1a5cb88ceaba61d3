package dibble.cli;

/** Bad arguments or bad input, with the one line that says so. */
final class BadInput extends RuntimeException {
    BadInput(String message) {
        super(message);
    }
}
