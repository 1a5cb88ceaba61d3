package dibble.presentation.app;

import dibble.presentation.help.HelpTopic;

/** Actions of the window that commands need and that are no matter of the session. */
public interface WindowActions {
    /** Returns the view that is shown. */
    Page page();

    /** Shows a view. */
    void show(Page page);

    /** Shows a view, or the one before where it is shown already. */
    void turn(Page page);

    /** Shows the large display of scenes, or the list again. */
    void turnLargeScenes();

    /** Shows a page of the help. */
    void help(HelpTopic topic);

    /** Lists all commands. */
    void listCommands();

    /** Starts or stops the demo performance of the stand-ins. */
    void playDemo();

    /** Begins the first five minutes, or goes on with them. */
    void firstMinutes();

    /** Asks which files of sound are to be made. */
    void exportSound();

    /** Shows earlier messages again. */
    void tellAgain();

    /** Changes between the day and the night theme. */
    void switchTheme();

    /** Shows the log of events. */
    void showEvents();

    /** Explains the effect of a key. */
    void why();

    /** Releases the keys that are held on the computer's keyboard. */
    void releaseTypedKeys();
}
