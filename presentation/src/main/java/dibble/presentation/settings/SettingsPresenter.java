package dibble.presentation.settings;

import static dibble.presentation.UiText.say;

import dibble.midi.MiddleC;
import dibble.presentation.Preferences;
import dibble.session.Document;

/** The effects of the settings on the application. */
public final class SettingsPresenter {
    private final Document document;
    private final Preferences preferences;

    /** Presents the settings beside a document. */
    public SettingsPresenter(Document document, Preferences preferences) {
        this.document = document;
        this.preferences = preferences;
    }

    /** Names octaves in another way: in this session, as one step, and in new ones. */
    public void name(MiddleC naming) {
        preferences.change(settings -> settings.withMiddleC(naming));
        document.edit(say("edit.name-of-note-60"), session -> session.withMiddleC(naming));
    }
}
