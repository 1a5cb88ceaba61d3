package dibble.desktop.app;

import java.util.List;

/** The views that there are, in the order of the work. */
enum Page {
    GEAR("Gear"),
    KEYS("Keys"),
    CHANNELS("Channels"),
    CONTROLS("Controls"),
    TAKES("Takes"),

    /** These have no tab: scene and checks have their places at the top, all stand in the session's menu. */
    SCENES("Scenes"),
    CHECKS("Checks"),
    SETTINGS("Settings");

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
