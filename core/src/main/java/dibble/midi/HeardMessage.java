package dibble.midi;

/**
 * A channel message with what those before it have made of it: a value that several controllers say together.
 *
 * @param message packed
 * @param choice the parameter that is chosen on its channel, as {@link Parameter} has it
 * @param parameter the value 0-16383 that it gives that parameter, or {@link CombinedControllers#NOTHING}
 * @param pair the value 0-16383 that it gives a controller with its fine half, or {@link CombinedControllers#NOTHING}
 */
public record HeardMessage(int message, int choice, int parameter, int pair) {
    /** A message before which nothing came. */
    public static HeardMessage alone(int message) {
        return last(message);
    }

    /**
     * The value of a parameter, whole, by its last message.
     *
     * @param channel 0-15
     * @param number 0-16383
     * @param value 0-16383
     */
    public static HeardMessage parameter(int channel, boolean nrpn, int number, int value) {
        int choice = Parameter.choice(nrpn, number);
        return last(
                ShortMessage.onChannel(Parameter.choosesCoarse(choice), channel),
                ShortMessage.onChannel(Parameter.choosesFine(choice), channel),
                ShortMessage.controller(channel, Parameter.DATA, value >>> 7),
                ShortMessage.controller(channel, Parameter.DATA_FINE, value & 0x7F));
    }

    /**
     * The value of a controller with its fine half, by the latter.
     *
     * @param channel 0-15
     * @param number 0-31
     * @param value 0-16383
     */
    public static HeardMessage pair(int channel, int number, int value) {
        return last(
                ShortMessage.controller(channel, number, value >>> 7),
                ShortMessage.controller(channel, number + CombinedControllers.FINE, value & 0x7F));
    }

    private static HeardMessage last(int... messages) {
        CombinedControllers values = new CombinedControllers();
        values.open(1);
        for (int message : messages) {
            values.take(0, message);
        }
        return values.heard(0, messages[messages.length - 1]);
    }

    /** The same on another channel 0-15. */
    public HeardMessage onChannel(int channel) {
        return new HeardMessage(ShortMessage.onChannel(message, channel), choice, parameter, pair);
    }

    /** Returns true if it is the value of a parameter. */
    public boolean isParameter() {
        return parameter != CombinedControllers.NOTHING;
    }

    /** Returns true if it is the fine half of a controller whose coarse half came before. */
    public boolean isPair() {
        return !isParameter()
                && pair != CombinedControllers.NOTHING
                && ShortMessage.data1(message) >= CombinedControllers.FINE;
    }

    /** The messages that say it whole, on its channel: of a value of several controllers all of them. */
    public int[] whole() {
        int channel = ShortMessage.channel(message);
        if (isParameter()) {
            return new int[] {
                ShortMessage.onChannel(Parameter.choosesCoarse(choice), channel),
                ShortMessage.onChannel(Parameter.choosesFine(choice), channel),
                ShortMessage.controller(channel, Parameter.DATA, parameter >>> 7),
                ShortMessage.controller(channel, Parameter.DATA_FINE, parameter & 0x7F)
            };
        }
        if (isPair()) {
            int number = ShortMessage.data1(message);
            return new int[] {ShortMessage.controller(channel, number - CombinedControllers.FINE, pair >>> 7), message};
        }
        return new int[] {message};
    }
}
