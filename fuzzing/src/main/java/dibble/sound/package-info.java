/** What needs the insides of sounds. */
package dibble.sound;
