package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.disk.AtomicFile;
import dibble.disk.SessionFile;
import dibble.disk.Streams;
import dibble.files.IoWords;
import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import dibble.files.SingleLineText;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFormatException;
import dibble.routing.RoutingQueries;
import dibble.session.SessionSet;
import dibble.text.UserException;
import dibble.user.SetFile;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * The input and output of a command: files, or standard input and output, which are named {@code -}. A problem is
 * reported in a line that names the file.
 */
final class InOut {
    static final String STANDARD = "-";

    /** The most that a session from standard input may be: 512 MiB. */
    private static final long MAX_BYTES = 512L << 20;

    private final InputStream in;
    private final OutputStream out;
    private final PrintWriter err;
    private final Map<String, String> read = new HashMap<>();
    private final List<String> remarks = new ArrayList<>();

    InOut(InputStream in, OutputStream out, PrintWriter err) {
        this.in = in;
        this.out = out;
        this.err = err;
    }

    /** A sentence to standard error. */
    void tell(String text) {
        err.println(say("in-out.dibble", SingleLineText.of(text)));
    }

    /** Reports tolerated violations of a format in the input. */
    void tellRemarks() {
        remarks.forEach(this::tell);
    }

    /** A name as it is fit to be printed. */
    private static String shown(String name) {
        return name.equals(STANDARD) ? say("in-out.standard-input") : SingleLineText.of(name);
    }

    /** Records the use of a file, so that no input is read twice or overwritten. */
    void claim(String name, String as) {
        if (name.isEmpty()) {
            throw new BadInput(say("in-out.the-name-of-is-empty", as));
        }
        String before = read.putIfAbsent(name, as);
        if (before != null && !before.equals(as) && name.equals(STANDARD)) {
            throw new BadInput(say("in-out.standard-input-is-both-and", before, as));
        }
    }

    /** Opens a session. */
    SessionContent session(String name) {
        claim(name, "SESSION");
        try {
            SessionContent opened = name.equals(STANDARD)
                    ? Streams.ofFile(in, shown(name), MAX_BYTES, SessionFile::read)
                    : SessionFile.read(path(name));
            RoutingQueries.check(opened.session().routing(opened.performance()));
            return opened;
        } catch (UserException e) {
            throw new BadInput(shown(name) + ": " + e.getMessage());
        } catch (SessionFormatException e) {
            throw new BadInput(shown(name) + ": " + e.getMessage());
        } catch (IOException e) {
            throw failed(name, e);
        }
    }

    /** Opens a set. */
    SessionSet set(String name) {
        claim(name, "SESSION");
        try {
            return Streams.read(path(name), MAX_BYTES, SetFile::read);
        } catch (SessionFormatException e) {
            throw new BadInput(shown(name) + ": " + e.getMessage());
        } catch (IOException e) {
            throw failed(name, e);
        }
    }

    /** Reads a MIDI file. */
    MidiFile midi(String name) {
        claim(name, "IN.mid");
        try {
            MidiFile file = read(name);
            file.remarks().forEach(remark -> remarks.add(shown(name) + ": " + remark));
            return file;
        } catch (MidiFormatException e) {
            throw new BadInput(shown(name) + ": " + e.getMessage());
        } catch (IOException e) {
            throw failed(name, e);
        }
    }

    private MidiFile read(String name) throws IOException {
        return name.equals(STANDARD)
                ? MidiFileReader.read(in)
                : Streams.read(path(name), MidiFileReader.MAX_BYTES, MidiFileReader::read);
    }

    static Path path(String name) {
        try {
            return Path.of(name);
        } catch (InvalidPathException e) {
            throw new BadInput(say("in-out.not-a-valid-file-name", SingleLineText.of(name)));
        }
    }

    private static BadInput failed(String name, IOException e) {
        boolean missing = e instanceof NoSuchFileException;
        String words = IoWords.of(e);
        return new BadInput(missing || words.contains(shown(name)) ? words : shown(name) + ": " + words);
    }

    /**
     * Rejects an output that is also an input.
     *
     * @param name the name of the output
     */
    void checkOutput(String name) {
        if (name.isEmpty()) {
            throw new BadInput(say("in-out.the-output-name-is-empty"));
        }
        for (Map.Entry<String, String> input : read.entrySet()) {
            if (!name.equals(STANDARD)
                    && !input.getKey().equals(STANDARD)
                    && isSame(path(name), path(input.getKey()))) {
                throw new BadInput(say("in-out.o-is-also-expected-another", SingleLineText.of(name), input.getValue()));
            }
        }
    }

    private static boolean isSame(Path one, Path other) {
        try {
            return Files.exists(one) && Files.isSameFile(one, other) && !AtomicFile.isStream(one);
        } catch (IOException e) {
            return one.toAbsolutePath()
                    .normalize()
                    .equals(other.toAbsolutePath().normalize());
        }
    }

    /** Writes a file that a command makes. */
    void write(String name, AtomicFile.Content content) {
        checkOutput(name);
        try {
            if (name.equals(STANDARD)) {
                content.to(out);
                out.flush();
            } else {
                AtomicFile.write(path(name), content);
            }
        } catch (StandardOutput.Failed e) {
            // That is said once, at the end.
            return;
        } catch (IOException e) {
            throw failed(name, e);
        }
    }
}
