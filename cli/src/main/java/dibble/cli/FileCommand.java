package dibble.cli;

import dibble.files.SingleLineText;
import java.io.PrintWriter;
import java.util.concurrent.Callable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** A command that reads or writes files. */
abstract class FileCommand implements Callable<Integer> {
    @Spec
    CommandSpec spec;

    /** The input and output of the command. */
    InOut files;

    /** Returns the output for results. */
    final PrintWriter out() {
        return spec.commandLine().getOut();
    }

    /** Prints a line of results for people: names from files cannot do anything to a terminal. */
    final void print(String line) {
        out().println(SingleLineText.of(line));
    }
}
