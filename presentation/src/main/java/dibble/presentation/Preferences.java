package dibble.presentation;

import static dibble.presentation.UiText.say;

import dibble.files.IoWords;
import dibble.user.Memory;
import dibble.user.Settings;
import java.io.IOException;
import java.nio.file.Path;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The user's settings: each change holds at once and is kept. */
public final class Preferences {
    private static final Logger LOG = LoggerFactory.getLogger(Preferences.class);

    private final Path folder;
    private final Jobs jobs;
    private final Consumer<String> trouble;
    private final Observable<Settings> settings;
    private Memory memory;

    /**
     * @param folder the user's folder
     * @param jobs run the writing, since disks can be slow
     * @param trouble receives a line if the settings could not be read, or a change could not be written
     */
    public Preferences(Path folder, Jobs jobs, Consumer<String> trouble) {
        this.folder = folder;
        this.jobs = jobs;
        this.trouble = trouble;
        memory = Memory.read(folder);
        settings = new Observable<>(Settings.load(folder, trouble));
    }

    /** The settings as they are now. */
    public Settings get() {
        return settings.get();
    }

    /** Runs a listener with the settings now, and after each change. */
    public Subscription follow(Consumer<Settings> listener) {
        return settings.follow(listener);
    }

    /** Returns the data that Dibble remembers automatically. */
    public Memory memory() {
        return memory;
    }

    /** Changes the remembered data and writes it; a failure is only logged, since the loss does no harm. */
    public void remember(UnaryOperator<Memory> change) {
        Memory next = change.apply(memory);
        if (next.equals(memory)) {
            return;
        }
        memory = next;
        keep(next::write, e -> LOG.info("{} cannot be written: {}", folder, IoWords.of(e)));
    }

    /** A value that can write itself into a folder. */
    private interface Written {
        void into(Path folder) throws IOException;
    }

    private void keep(Written what, Consumer<IOException> failed) {
        jobs.start(
                say("preferences.saving-the-settings"),
                progress -> {
                    what.into(folder);
                    return what;
                },
                kept -> {},
                failed);
    }

    /** Returns the user's folder. */
    public Path folder() {
        return folder;
    }

    /** Changes them; where that cannot be kept, it holds until Dibble is closed. */
    public void change(UnaryOperator<Settings> change) {
        Settings next = change.apply(settings.get());
        if (next.equals(settings.get())) {
            return;
        }
        settings.set(next);
        keep(next::write, e -> trouble.accept(say("preferences.the-settings-could-not-be", folder, IoWords.of(e))));
    }
}
