/**
 * What sounds: a synthesizer of the JDK for each channel, behind one mixer. The only module that uses the synthesizer's
 * inner interface for rendering. The mixer's thread owns all synthesizers.
 */
package dibble.sound;
