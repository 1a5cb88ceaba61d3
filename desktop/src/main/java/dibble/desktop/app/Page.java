package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import java.util.List;

/** The views that there are, in the order of the work. */
enum Page {
    GEAR(say("page.gear")),
    KEYS(say("common.keys")),
    CHANNELS(say("common.channels")),
    CONTROLS(say("page.controls")),
    TAKES(say("page.takes")),

    /** These have no tab: scene and checks have their places at the top, all stand in the session's menu. */
    SCENES(say("common.scenes")),
    CHECKS(say("page.checks")),
    SETTINGS(say("common.settings")),
    HELP(say("menu-strip.help"));

    /** Those that have a tab. */
    static final List<Page> TABS = List.of(GEAR, KEYS, CHANNELS, CONTROLS, TAKES);

    private final String title;

    Page(String title) {
        this.title = title;
    }

    String title() {
        return title;
    }
}
