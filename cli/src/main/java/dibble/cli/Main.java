package dibble.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.AccessDeniedException;
import java.nio.file.NoSuchFileException;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The command line. Errors are one line each; no stack trace reaches a user. */
@Command(
        name = "dibble",
        description = "Assigns, splits and remaps MIDI channels and key zones.",
        mixinStandardHelpOptions = true,
        version = "Dibble 0.1.0",
        subcommands = {RouteCommand.class, TraceCommand.class, CheckCommand.class, SortCommand.class, PortsCommand.class
        })
public final class Main implements Runnable {
    /** Bad arguments or bad input. */
    static final int BAD_INPUT = 2;

    private Main() {}

    public static void main(String[] args) {
        PrintWriter out = new PrintWriter(System.out, false, java.nio.charset.StandardCharsets.UTF_8);
        PrintWriter err = new PrintWriter(System.err, true, java.nio.charset.StandardCharsets.UTF_8);
        int code = run(out, err, args);
        out.flush();
        System.exit(code);
    }

    /** Runs a command; the exit code is the answer. */
    static int run(PrintWriter out, PrintWriter err, String... args) {
        CommandLine line = new CommandLine(new Main());
        line.setOut(out);
        line.setErr(err);
        line.setParameterExceptionHandler((e, words) -> {
            err.println("dibble: " + firstLine(e.getMessage()) + " (dibble "
                    + e.getCommandLine().getCommandName() + " --help tells more)");
            return BAD_INPUT;
        });
        line.setExecutionExceptionHandler((e, commandLine, result) -> {
            err.println("dibble: " + explain(e));
            return BAD_INPUT;
        });
        try {
            return line.execute(args);
        } catch (OutOfMemoryError e) {
            err.println("dibble: the files are too large for the memory that it is given ("
                    + (Runtime.getRuntime().maxMemory() >> 20) + " MiB)");
            return BAD_INPUT;
        } finally {
            out.flush();
        }
    }

    @Override
    public void run() {
        throw new BadInput("no command (expected route, trace, check, sort or ports)");
    }

    private static String explain(Exception e) {
        if (e instanceof BadInput) {
            return e.getMessage();
        }
        if (e instanceof NoSuchFileException) {
            return "no such file: " + e.getMessage();
        }
        if (e instanceof AccessDeniedException) {
            return "no permission: " + e.getMessage();
        }
        if (e instanceof IOException) {
            return firstLine(String.valueOf(e.getMessage()));
        }
        return "this should not have happened: " + e.getClass().getSimpleName() + ", " + firstLine(e.getMessage());
    }

    private static String firstLine(String text) {
        return text == null ? "" : text.lines().findFirst().orElse("");
    }
}
