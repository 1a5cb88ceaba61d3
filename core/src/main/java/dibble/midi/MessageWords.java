package dibble.midi;

/** Messages in words. */
public final class MessageWords {
    private MessageWords() {}

    /** A channel message without its channel: <em>note-on C4 60, velocity 96</em>. */
    public static String of(int message, MiddleC middleC) {
        int first = ShortMessage.data1(message);
        int second = ShortMessage.data2(message);
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.NOTE_ON -> "note-on " + NoteNames.nameAndNumber(first, middleC) + ", velocity " + second;
            case ShortMessage.NOTE_OFF ->
                "note-off " + NoteNames.nameAndNumber(first, middleC) + ", velocity " + second;
            case ShortMessage.KEY_PRESSURE ->
                "key pressure " + NoteNames.nameAndNumber(first, middleC) + ", value " + second;
            case ShortMessage.CONTROLLER -> "controller " + first + ", value " + second;
            case ShortMessage.PROGRAM_CHANGE -> "program " + first;
            case ShortMessage.CHANNEL_PRESSURE -> "pressure " + first;
            default -> "pitch bend " + (first | second << 7);
        };
    }
}
