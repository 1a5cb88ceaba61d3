package dibble.cli;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Runs commands like a terminal, and keeps their output. */
final class Terminal {
    private byte[] input = {};
    private ByteArrayOutputStream out = new ByteArrayOutputStream();
    private StringWriter err = new StringWriter();

    Terminal input(byte[] bytes) {
        input = bytes;
        return this;
    }

    /** The exit code. */
    int run(String... args) {
        out = new ByteArrayOutputStream();
        return run(out, args);
    }

    /** The same with standard output going elsewhere. */
    int run(OutputStream to, String... args) {
        err = new StringWriter();
        return Main.run(new ByteArrayInputStream(input), to, new PrintWriter(err, true), args);
    }

    String out() {
        return out.toString(StandardCharsets.UTF_8);
    }

    byte[] bytes() {
        return out.toByteArray();
    }

    String err() {
        return err.toString();
    }

    List<String> errors() {
        return err.toString().lines().toList();
    }

    /** An output that takes some bytes and then fails. */
    static OutputStream failing(String message) {
        return new OutputStream() {
            @Override
            public void write(int value) throws IOException {
                throw new IOException(message);
            }
        };
    }
}
