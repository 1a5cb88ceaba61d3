package dibble.cli;

import dibble.files.OneLine;
import java.nio.file.Files;
import java.util.List;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** Says what is wrong with the arguments of a command: in our words, not in those of what parses them. */
final class BadArguments {
    private BadArguments() {}

    /** One line, without what the program is called. */
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
                    ? "something is missing"
                    : what + (what.contains(" and ") ? " are" : " is") + " missing";
        }
        if (e instanceof CommandLine.MutuallyExclusiveArgsException) {
            return "of the things that " + name + " can be asked about, one at a time is expected";
        }
        if (e instanceof CommandLine.OverwrittenOptionException) {
            return (e.getArgSpec() == null ? "an option" : shown(e.getArgSpec())) + " is given twice (expected once)";
        }
        if (e.getArgSpec() != null && e.getValue() != null) {
            return label(e.getArgSpec()) + " " + OneLine.of(e.getValue()) + " (expected " + expected(e.getArgSpec())
                    + ")";
        }
        return e.getArgSpec() == null
                ? "these arguments do not go together"
                : shown(e.getArgSpec()) + " has no value that can be read (expected " + expected(e.getArgSpec()) + ")";
    }

    private static String unmatched(CommandLine.UnmatchedArgumentException e, CommandLine command) {
        String given = e.getUnmatched().isEmpty() ? "" : e.getUnmatched().get(0);
        List<String> near = e.getSuggestions();
        String hint = near.isEmpty() ? "" : " (did you mean " + near.get(0) + "?)";
        if (given.startsWith("-")) {
            return "no option " + OneLine.of(given) + hint;
        }
        if (!command.getSubcommands().isEmpty()) {
            if (Files.exists(InOut.path(given))) {
                return OneLine.of(given) + " is no file that can be opened (expected a session)";
            }
            return isFileName(given)
                    ? "no such file: " + OneLine.of(given)
                    : "no command \"" + OneLine.of(given) + "\""
                            + (near.isEmpty()
                                    ? " (expected one of "
                                            + String.join(
                                                    ", ",
                                                    command.getSubcommands().keySet()) + ")"
                                    : hint);
        }
        return "\"" + OneLine.of(given) + "\" is one too many";
    }

    /** What looks like a file was meant to be opened. */
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
            return spec.isMultiValue() ? spec.paramLabel() : "a whole number";
        }
        return spec.paramLabel();
    }
}
