package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.presentation.AppContext;
import dibble.presentation.Prompter;
import java.nio.file.Path;
import java.util.List;

/** The folders, remembered in the settings, whose files strangers' sessions and sets may open. */
final class AllowedFolders {
    private final AppContext context;

    AllowedFolders(AppContext context) {
        this.context = context;
    }

    /** Returns true if a file is directly in a folder that the user has allowed. */
    boolean have(Path file) {
        return context.preferences().get().soundFolders().contains(folder(file));
    }

    /** Allows the folder of a file that the user chose. */
    void allowFolderOf(Path file) {
        allow(List.of(folder(file.toAbsolutePath().normalize())));
    }

    /**
     * Asks before files in other folders are opened: a session or a set may come from a stranger, and its paths may
     * point anywhere.
     *
     * @param then runs once the folders are allowed
     */
    void ask(String question, List<String> folders, Runnable then) {
        context.ask()
                .ask(
                        question,
                        List.of(new Prompter.Answer(say("sound-files.allow"), () -> {
                            allow(folders);
                            then.run();
                        })),
                        say("sound-files.leave-out"));
    }

    private void allow(List<String> folders) {
        context.preferences().change(settings -> settings.withMoreSoundFolders(folders));
    }

    /** The folder of a file, as it is remembered. */
    static String folder(Path file) {
        return String.valueOf(file.getParent());
    }
}
