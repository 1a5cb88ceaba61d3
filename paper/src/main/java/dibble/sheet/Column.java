package dibble.sheet;

/** The columns of a sheet as rows. Their names in the file do not depend on the language. */
enum Column {
    KIND("kind"),
    SCENE("scene"),
    ID("id"),
    NAME("name"),
    SOURCE("source"),
    CHANNELS("channels"),
    KEYS("keys"),
    VELOCITY("velocity"),
    VELOCITY_TO("velocity to"),
    TRANSPOSE("transpose"),
    INSTRUMENT("instrument"),
    PART("part"),
    TO_CHANNEL("to channel"),
    KEYSWITCH("keyswitch"),
    PASS("pass"),
    WITHOUT("without controllers"),
    NOTE_MAP("note map"),
    OTHER_KEYS("other keys"),
    FOLD("fold"),
    CONTROL("control"),
    WINDOW("window"),
    OUTSIDE("outside"),
    REACHES_ZONES("reaches zones"),
    SENDS("sends"),
    ENABLED("enabled");

    final String head;

    Column(String head) {
        this.head = head;
    }
}
