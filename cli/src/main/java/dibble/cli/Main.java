package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.files.IoWords;
import dibble.files.SingleLineText;
import dibble.text.Texts;
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
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ScopeType;
import picocli.CommandLine.Spec;

/** The command line. Errors are one line each; no stack trace reaches a user. */
@Command(
        name = "dibble",
        resourceBundle = CliText.BUNDLE,
        mixinStandardHelpOptions = true,
        versionProvider = VersionLine.class,
        scope = ScopeType.INHERIT,
        subcommands = {
            RouteCommand.class,
            TraceCommand.class,
            CheckCommand.class,
            SortCommand.class,
            QuantizeCommand.class,
            EditCommand.class,
            RenderCommand.class,
            SheetCommand.class,
            CompareCommand.class,
            PortsCommand.class
        })
public final class Main implements Runnable {
    /** Bad arguments or bad input. */
    static final int BAD_INPUT = 2;

    private static final int BLOCK = 1 << 16;

    @Spec
    private CommandSpec spec;

    private Main() {}

    /** Runs a command; ends with its exit code. */
    public static void main(String[] args) {
        PrintWriter err = new PrintWriter(
                new OutputStreamWriter(new FileOutputStream(FileDescriptor.err), StandardCharsets.UTF_8), true);
        OutputStream out = new FileOutputStream(FileDescriptor.out);
        System.exit(run(System.in, out, err, args));
    }

    /**
     * Runs a command and returns its exit code.
     *
     * @param in the input for {@code -}
     * @param err receives a line for each problem
     */
    public static int run(InputStream in, OutputStream output, PrintWriter err, String... args) {
        Texts.forTerminal();
        StandardOutput bytes = new StandardOutput(new BufferedOutputStream(output, BLOCK));
        PrintWriter out = new PrintWriter(new OutputStreamWriter(bytes, StandardCharsets.UTF_8));
        InOut files = new InOut(in, bytes, err);
        int code = run(files, out, err, args);
        out.flush();
        if (bytes.failure() == null) {
            return code;
        }
        if (!bytes.isReaderGone()) {
            files.tell(say("main.standard-output", IoWords.of(bytes.failure())));
        }
        return BAD_INPUT;
    }

    /** All commands with their arguments, for pages of a manual and for completion in shells; they cannot be run. */
    public static CommandLine commands() {
        return commands(null);
    }

    private static CommandLine commands(InOut files) {
        CommandLine line = new CommandLine(new Main(), new Commands(files));
        // Each command shows its own arguments, not those of the whole.
        line.getSubcommands()
                .values()
                .forEach(it -> it.getCommandSpec().usageMessage().customSynopsis(new String[0]));
        return line;
    }

    private static int run(InOut files, PrintWriter out, PrintWriter err, String... args) {
        CommandLine line = commands(files);
        line.setOut(out);
        line.setErr(err);
        line.setExpandAtFiles(false);
        line.setUsageHelpAutoWidth(false);
        line.setParameterExceptionHandler((e, words) -> {
            String name = e.getCommandLine().getCommandName();
            files.tell(say("main.see-dibble-help", BadArguments.words(e), name.equals("dibble"), name));
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
            files.tell(say("main.the-files-are-too-large", Runtime.getRuntime().maxMemory() >> 20));
            return BAD_INPUT;
        }
    }

    /** Creates the commands with their input and output. */
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
        throw new BadInput(say(
                "main.no-command-expected-one-of",
                String.join(", ", spec.subcommands().keySet())));
    }

    private static String explain(Exception e) {
        if (e instanceof BadInput) {
            return e.getMessage();
        }
        if (e instanceof IOException io) {
            return IoWords.of(io);
        }
        return say(
                "main.unexpected-error",
                e.getClass().getSimpleName(),
                SingleLineText.of(String.valueOf(e.getMessage())));
    }
}
