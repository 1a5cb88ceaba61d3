/** The decisions of the view of sounds. */
package dibble.presentation.sounds;
