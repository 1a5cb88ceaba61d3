package dibble.presentation;

import static dibble.presentation.UiText.say;

import java.util.List;

/** The kinds of files that are asked for. */
public enum FileKind {
    SESSION(say("path-questions.dibble-sessions"), "*.dibble", "*.json"),
    MIDI(say("path-questions.midi-files"), "*.mid", "*.midi", "*.rmi", "*.kar"),
    SOUNDS(say("path-questions.sound-files"), "*.sf2", "*.dls"),
    PDF(say("path-questions.pdf-files"), "*.pdf"),
    HTML(say("path-questions.web-pages"), "*.html", "*.htm"),
    CSV(say("path-questions.csv-files"), "*.csv"),
    NAMES(say("path-questions.names"), "*.midnam", "*.xml", "*.csv", "*.txt"),
    SET(say("path-questions.sets"), "*.dibbleset"),
    FOLDER("");

    private final String words;
    private final List<String> endings;

    FileKind(String words, String... endings) {
        this.words = words;
        this.endings = List.of(endings);
    }

    /** Returns the label in a list of kinds. */
    public String words() {
        return words;
    }

    /** Returns the patterns of names of such files, such as {@code *.mid}. */
    public List<String> patterns() {
        return endings;
    }

    /** Returns the usual extension. */
    public String ending() {
        return endings.get(0).substring(1);
    }

    /**
     * Returns true if a file of this name is of this kind.
     *
     * @param name in small letters
     */
    public boolean has(String name) {
        return endings.stream().anyMatch(ending -> name.endsWith(ending.substring(1)));
    }
}
