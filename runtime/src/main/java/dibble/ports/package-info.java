/**
 * What is plugged in: input and output ports as interfaces, the rings and the outbound lanes between them. The only
 * package that may import javax.sound.midi.
 */
package dibble.ports;
