package dibble.desktop.settings;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.Preferences;
import dibble.midi.MiddleC;
import dibble.session.Document;

/** What the settings do beyond themselves. Knows no nodes. */
final class SettingsPresenter {
    private final Document document;
    private final Preferences preferences;

    SettingsPresenter(Document document, Preferences preferences) {
        this.document = document;
        this.preferences = preferences;
    }

    /** Names octaves in another way: in this session, as one step, and in new ones. */
    void name(MiddleC naming) {
        preferences.change(settings -> settings.withMiddleC(naming));
        document.edit(say("edit.name-of-note-60"), session -> session.withMiddleC(naming));
    }
}
