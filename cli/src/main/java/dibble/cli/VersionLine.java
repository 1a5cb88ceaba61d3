package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.text.Version;
import picocli.CommandLine.IVersionProvider;

/** What {@code --version} prints. */
final class VersionLine implements IVersionProvider {
    @Override
    public String[] getVersion() {
        return new String[] {say("main.version", Version.NUMBER)};
    }
}
