/**
 * Input and output ports as interfaces, with the rings and output queues between them. The only package that may import
 * javax.sound.midi.
 */
package dibble.ports;
