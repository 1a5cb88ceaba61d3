package dibble.studio;

/**
 * A loop that was found while playing: what goes to the output comes back from the input.
 *
 * @param input the name of a source's port
 * @param output the name of an instrument's port, to which nothing is sent now
 */
public record Loop(String input, String output) {}
