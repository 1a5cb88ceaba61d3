package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.files.SingleLineText;
import java.nio.file.Files;
import java.util.List;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** Messages for invalid arguments of a command, in place of those of the parser. */
final class BadArguments {
    private BadArguments() {}

    /** Returns one line, without the name of the application. */
    static String words(CommandLine.ParameterException e) {
        CommandLine command = e.getCommandLine();
        String name = command.getCommandName();
        if (e.getCause() instanceof BadInput bad) {
            return bad.getMessage();
        }
        if (e instanceof CommandLine.UnmatchedArgumentException unmatched) {
            return unmatched(unmatched, command);
        }
        if (e instanceof CommandLine.MissingParameterException missing) {
            String what = missing.getMissing().stream().map(BadArguments::shown).collect(Collectors.joining(" and "));
            return what.isEmpty()
                    ? say("bad-arguments.an-argument-is-missing")
                    : say("bad-arguments.are-missing", what, what.contains(" and "));
        }
        if (e instanceof CommandLine.MutuallyExclusiveArgsException) {
            return say("bad-arguments.takes-only-one-event-at", name);
        }
        if (e instanceof CommandLine.OverwrittenOptionException) {
            return say(
                    "bad-arguments.an-option-appears-twice-expected",
                    e.getArgSpec() == null,
                    e.getArgSpec() == null ? "" : shown(e.getArgSpec()));
        }
        if (e.getArgSpec() != null && e.getValue() != null) {
            return say(
                    "bad-arguments.expected",
                    label(e.getArgSpec()),
                    SingleLineText.of(e.getValue()),
                    expected(e.getArgSpec()));
        }
        return e.getArgSpec() == null
                ? say("bad-arguments.these-arguments-cannot-be-combined")
                : say("bad-arguments.the-value-of-is-missing", shown(e.getArgSpec()), expected(e.getArgSpec()));
    }

    private static String unmatched(CommandLine.UnmatchedArgumentException e, CommandLine command) {
        String given = e.getUnmatched().isEmpty() ? "" : e.getUnmatched().get(0);
        List<String> near = e.getSuggestions();
        String hint = near.isEmpty() ? "" : say("bad-arguments.did-you-mean", near.get(0));
        if (given.startsWith("-")) {
            return say("bad-arguments.no-option", SingleLineText.of(given), hint);
        }
        if (!command.getSubcommands().isEmpty()) {
            if (Files.exists(InOut.path(given))) {
                return say("bad-arguments.cannot-be-opened-expected-a", SingleLineText.of(given));
            }
            return isFileName(given)
                    ? say("bad-arguments.no-such-file", SingleLineText.of(given))
                    : say(
                            "bad-arguments.no-command-expected-one-of",
                            SingleLineText.of(given),
                            near.isEmpty(),
                            String.join(", ", command.getSubcommands().keySet()),
                            hint);
        }
        return say("bad-arguments.is-one-argument-too-many", SingleLineText.of(given));
    }

    /** Returns true if an argument looks like the name of a file to open. */
    private static boolean isFileName(String given) {
        return given.contains("/") || given.contains(".");
    }

    private static String label(ArgSpec spec) {
        return spec instanceof OptionSpec option ? option.longestName() : spec.paramLabel();
    }

    private static String shown(ArgSpec spec) {
        return spec instanceof PositionalParamSpec || spec.arity().max() == 0
                ? label(spec)
                : label(spec) + " " + spec.paramLabel();
    }

    private static String expected(ArgSpec spec) {
        Class<?> type =
                spec.isMultiValue() && spec.auxiliaryTypes().length > 0 ? spec.auxiliaryTypes()[0] : spec.type();
        if (type == Integer.class || type == int.class) {
            return spec.isMultiValue() ? spec.paramLabel() : say("bad-arguments.a-whole-number");
        }
        return spec.paramLabel();
    }
}
