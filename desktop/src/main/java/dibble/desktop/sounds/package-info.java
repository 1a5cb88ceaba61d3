/** Sounds: all that a part can have, by bank and name, to be heard and chosen. */
package dibble.desktop.sounds;
