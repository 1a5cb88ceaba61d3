package dibble.studio;

/**
 * A loop that was found while playing: messages to the output return from the input.
 *
 * @param input the name of a source's port
 * @param output the name of an instrument's port, which is cut off now
 */
public record Loop(String input, String output) {}
