package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.text.Version;
import picocli.CommandLine.IVersionProvider;

/** The output of {@code --version}. */
final class VersionLine implements IVersionProvider {
    @Override
    public String[] getVersion() {
        return new String[] {say("main.version", Version.NUMBER)};
    }
}
