package dibble.routing;

/**
 * The destination of a message.
 *
 * @param port the name of a port
 * @param channel 1-16
 */
public record Destination(String port, int channel) {}
