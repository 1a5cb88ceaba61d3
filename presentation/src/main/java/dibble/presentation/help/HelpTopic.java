package dibble.presentation.help;

import static dibble.presentation.UiText.say;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The pages of the help, which ship as Markdown. Those of the views are in the order of the work. */
public enum HelpTopic {
    GEAR(say("page.gear")),
    KEYS(say("common.keys")),
    CHANNELS(say("common.channels")),
    CONTROLS(say("page.controls")),
    TAKES(say("page.takes")),
    NOTES(say("help-topic.notes")),
    LEVELS(say("levels-view.title")),
    SOUNDS(say("sounds-view.title")),
    SCENES(say("common.scenes")),
    CHECKS(say("page.checks")),
    SHEET(say("sheet-view.routing-sheet")),
    SET(say("set-view.set")),
    SETTINGS(say("common.settings")),
    NOTHING_SOUNDS(say("window-commands.nothing-sounds-what-now")),
    WORDS(say("help.words")),
    ABOUT(say("window-commands.about-dibble"));

    private final String title;

    HelpTopic(String title) {
        this.title = title;
    }

    /** Returns the title of the page. */
    public String title() {
        return title;
    }

    /** As links and files name it: small letters and dashes. */
    public String id() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** The topic that a link leads to, such as {@code keys.md}. */
    public static Optional<HelpTopic> ofLink(String link) {
        return Arrays.stream(values())
                .filter(topic -> link.equals(topic.id() + ".md"))
                .findFirst();
    }

    /** Its text in Markdown. */
    public String text() {
        try (InputStream in = HelpTopic.class.getResourceAsStream("/dibble/presentation/help/" + id() + ".md")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
