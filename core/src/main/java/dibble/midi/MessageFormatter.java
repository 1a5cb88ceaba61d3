package dibble.midi;

import static dibble.text.CoreText.say;

/** Messages in words. */
public final class MessageFormatter {
    private MessageFormatter() {}

    /** A message with the value that it says together with those before it: <em>RPN 1, value 8197</em>. */
    public static String of(HeardMessage heard, MiddleC middleC) {
        if (heard.isParameter()) {
            int number = Parameter.number(heard.choice());
            return Parameter.isNrpn(heard.choice())
                    ? say("message-words.nrpn-value", number, heard.parameter())
                    : say("message-words.rpn-value", number, heard.parameter());
        }
        int fine = ShortMessage.data1(heard.message());
        return heard.isPair()
                ? say("message-words.cc-with-its-fine-half", fine - CombinedControllers.FINE, fine, heard.pair())
                : of(heard.message(), middleC);
    }

    /** A channel message without its channel: <em>note-on C4 60, velocity 96</em>. */
    public static String of(int message, MiddleC middleC) {
        int first = ShortMessage.data1(message);
        int second = ShortMessage.data2(message);
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.NOTE_ON ->
                say("message-words.note-on-velocity", NoteNames.nameAndNumber(first, middleC), second);
            case ShortMessage.NOTE_OFF ->
                say("message-words.note-off-velocity", NoteNames.nameAndNumber(first, middleC), second);
            case ShortMessage.KEY_PRESSURE ->
                say("message-words.poly-pressure-value", NoteNames.nameAndNumber(first, middleC), second);
            case ShortMessage.CONTROLLER -> say("message-words.cc-value", first, second);
            case ShortMessage.PROGRAM_CHANGE -> say("message-words.program", first);
            case ShortMessage.CHANNEL_PRESSURE -> say("message-words.channel-pressure", first);
            default -> say("message-words.pitch-bend", first | second << 7);
        };
    }
}
