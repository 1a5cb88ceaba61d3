package dibble.files;

import java.util.regex.Pattern;

/** The forms that texts of the format have. */
enum Form {
    ID("[a-z0-9-]{1,200}", "lower-case letters, digits and hyphens, at most 200"),
    SOURCE("[a-z0-9-]+|\\*", "the id of a source, or *"),
    PART("[a-z0-9-]+/[a-z0-9-]+", "instrument/part"),
    TAKE_FILE("takes/[a-z0-9-]+\\.jsonl", "takes/ID.jsonl"),
    TRACK_FILE("tracks/[a-z0-9-]+\\.mid", "tracks/ID.mid"),
    PRINTS_FILE("prints/[a-z0-9-]+\\.mid", "prints/ID.mid");

    private final Pattern pattern;
    private final String words;

    Form(String pattern, String words) {
        this.pattern = Pattern.compile(pattern);
        this.words = words;
    }

    boolean fits(String text) {
        return pattern.matcher(text).matches();
    }

    /** What is expected, in words. */
    String words() {
        return words;
    }
}
