package dibble.files;

import static dibble.text.CoreText.say;

import java.util.regex.Pattern;

/** The forms that texts of the format have. */
public enum Form {
    ID("[a-z0-9-]{1,200}", say("form.lower-case-letters-digits-and")),
    SOURCE("[a-z0-9-]+|\\*", say("form.the-id-of-a-source")),
    PART("[a-z0-9-]+/[a-z0-9-]+", say("form.instrument-part")),
    TAKE_FILE("takes/[a-z0-9-]+\\.jsonl", say("form.takes-id-jsonl")),
    TRACK_FILE("tracks/[a-z0-9-]+\\.mid", say("form.tracks-id-mid")),
    PRINTS_FILE("prints/[a-z0-9-]+\\.mid", say("form.prints-id-mid")),
    SHA_256("[0-9a-f]{64}", say("form.sha-256")),
    PLAYED("[-+@0-9 ]*", say("form.played-runs")),
    EVENTS("[-0-9 ]*", say("form.played-runs"));

    private final Pattern pattern;
    private final String words;

    Form(String pattern, String words) {
        this.pattern = Pattern.compile(pattern);
        this.words = words;
    }

    /** Returns true if a text has this form. */
    public boolean fits(String text) {
        return pattern.matcher(text).matches();
    }

    /** Returns the expected form, in words. */
    String words() {
        return words;
    }
}
