package dibble.cli;

import dibble.demo.LamplightersRound;
import dibble.disk.Streams;
import dibble.files.SessionContent;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.util.List;

/**
 * Runs the common parts of the commands once, on the demo session. The launcher records the classes that it loads, so
 * that later runs start faster.
 */
final class WarmUp {
    private WarmUp() {}

    public static void main(String[] args) throws IOException {
        byte[] session = SessionContent.json(LamplightersRound.session(), LamplightersRound.performance());
        PrintWriter nowhere = new PrintWriter(OutputStream.nullOutputStream());
        for (List<String> command : List.of(
                List.of("check", "-"),
                List.of("check", "--json", "-"),
                List.of("trace", "-", "--source", "larkspur", "--note", "60"),
                List.of("check", "no such file"),
                List.of("--help"))) {
            Main.run(
                    new ByteArrayInputStream(session),
                    OutputStream.nullOutputStream(),
                    nowhere,
                    command.toArray(String[]::new));
        }
        try (InputStream in = new ByteArrayInputStream(session)) {
            Streams.ofFile(
                    in,
                    "",
                    session.length,
                    copy -> Main.run(in, OutputStream.nullOutputStream(), nowhere, "check", copy.toString()));
        }
    }
}
