package dibble.presentation.app;

import static dibble.presentation.UiText.say;

import dibble.presentation.help.HelpTopic;
import java.util.List;

/** The views, in the order of the work. */
public enum Page {
    GEAR(HelpTopic.GEAR),
    KEYS(HelpTopic.KEYS),
    CHANNELS(HelpTopic.CHANNELS),
    CONTROLS(HelpTopic.CONTROLS),
    TAKES(HelpTopic.TAKES),
    LEVELS(HelpTopic.LEVELS),

    /** These have no tab: scene and checks are at the top, and all are in the menus. */
    SOUNDS(HelpTopic.SOUNDS),
    SCENES(HelpTopic.SCENES),
    CHECKS(HelpTopic.CHECKS),
    SHEET(HelpTopic.SHEET),
    SET(HelpTopic.SET),
    SETTINGS(HelpTopic.SETTINGS),
    HELP(say("menu-strip.help"), HelpTopic.GEAR);

    /** Those that have a tab. */
    public static final List<Page> TABS = List.of(GEAR, KEYS, CHANNELS, CONTROLS, TAKES, LEVELS);

    private final String title;
    private final HelpTopic help;

    Page(HelpTopic help) {
        this(help.title(), help);
    }

    Page(String title, HelpTopic help) {
        this.title = title;
        this.help = help;
    }

    /** Returns its title. */
    public String title() {
        return title;
    }

    /** The page of the help that is about it. */
    public HelpTopic help() {
        return help;
    }
}
