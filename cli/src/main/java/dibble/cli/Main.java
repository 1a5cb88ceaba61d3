package dibble.cli;

import dibble.files.IoWords;
import dibble.files.OneLine;
import java.io.BufferedOutputStream;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.ScopeType;

/** The command line. Errors are one line each; no stack trace reaches a user. */
@Command(
        name = "dibble",
        description = "Assigns, splits and remaps MIDI channels and key zones.",
        synopsisHeading = "Usage: ",
        customSynopsis = {
            "dibble [FILE]",
            "       dibble demo [FOLDER]",
            "       dibble COMMAND [ARGUMENTS]",
            "       dibble test | bench [WHAT]"
        },
        descriptionHeading = "%n",
        optionListHeading = "%nOptions:%n",
        parameterListHeading = "%nArguments:%n",
        commandListHeading = "%nCommands that need no window:%n",
        footerHeading = "%nIn the window:%n",
        footer = {
            "  FILE          opens a session: NAME.dibble, or a bare session.json",
            "  demo          opens the window with the demo session playing on stand-ins;",
            "                where there is no display, draws its views into FOLDER",
            "  test          runs all tests; what follows goes to Maven",
            "  bench         runs the benchmarks; the README names them",
            "",
            "A file named - is standard input or output. A name that begins with - goes behind --."
        },
        exitCodeListHeading = "%nExit codes:%n",
        exitCodeList = {
            "0:done",
            "1:the answer is \"no\": check has found an error or a warning",
            "2:bad arguments, bad input, or output that cannot be written"
        },
        mixinStandardHelpOptions = true,
        version = "Dibble 0.1.0",
        scope = ScopeType.INHERIT,
        subcommands = {RouteCommand.class, TraceCommand.class, CheckCommand.class, SortCommand.class, PortsCommand.class
        })
public final class Main implements Runnable {
    /** Bad arguments or bad input. */
    static final int BAD_INPUT = 2;

    private static final int BLOCK = 1 << 16;

    private Main() {}

    public static void main(String[] args) {
        PrintWriter err = new PrintWriter(
                new OutputStreamWriter(new FileOutputStream(FileDescriptor.err), StandardCharsets.UTF_8), true);
        OutputStream out = new FileOutputStream(FileDescriptor.out);
        System.exit(run(System.in, out, err, args));
    }

    /**
     * Runs a command; the exit code is the answer.
     *
     * @param in what {@code -} reads
     * @param err is told what went wrong, a line each
     */
    public static int run(InputStream in, OutputStream output, PrintWriter err, String... args) {
        StandardOutput bytes = new StandardOutput(new BufferedOutputStream(output, BLOCK));
        PrintWriter out = new PrintWriter(new OutputStreamWriter(bytes, StandardCharsets.UTF_8));
        InOut files = new InOut(in, bytes, err);
        int code = run(files, out, err, args);
        out.flush();
        if (bytes.failure() == null) {
            return code;
        }
        if (!bytes.isReaderGone()) {
            files.tell("standard output: " + IoWords.of(bytes.failure()));
        }
        return BAD_INPUT;
    }

    private static int run(InOut files, PrintWriter out, PrintWriter err, String... args) {
        CommandLine line = new CommandLine(new Main(), new Commands(files));
        line.setOut(out);
        line.setErr(err);
        line.setExpandAtFiles(false);
        line.setUsageHelpAutoWidth(false);
        line.setParameterExceptionHandler((e, words) -> {
            String name = e.getCommandLine().getCommandName();
            files.tell(BadArguments.words(e) + "; dibble " + (name.equals("dibble") ? "" : name + " ")
                    + "--help tells more");
            return BAD_INPUT;
        });
        line.setExecutionExceptionHandler((e, commandLine, result) -> {
            if (!(e instanceof StandardOutput.Failed)) {
                files.tell(explain(e));
            }
            return BAD_INPUT;
        });
        try {
            int code = line.execute(args);
            if (code != BAD_INPUT) {
                files.tellRemarks();
            }
            return code;
        } catch (OutOfMemoryError e) {
            files.tell("the files are too large for the memory that it is given ("
                    + (Runtime.getRuntime().maxMemory() >> 20) + " MiB)");
            return BAD_INPUT;
        }
    }

    /** Makes the commands, and gives them what they read and write. */
    private record Commands(InOut files) implements CommandLine.IFactory {
        @Override
        public <K> K create(Class<K> type) throws Exception {
            K made = CommandLine.defaultFactory().create(type);
            if (made instanceof FileCommand command) {
                command.files = files;
            }
            return made;
        }
    }

    @Override
    public void run() {
        throw new BadInput("no command (expected one of route, trace, check, sort, ports; dibble --help tells more)");
    }

    private static String explain(Exception e) {
        if (e instanceof BadInput) {
            return e.getMessage();
        }
        if (e instanceof IOException io) {
            return IoWords.of(io);
        }
        return "a mistake in Dibble itself: " + e.getClass().getSimpleName() + ", "
                + OneLine.of(String.valueOf(e.getMessage()));
    }
}
