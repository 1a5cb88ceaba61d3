/**
 * The notes of tracks, below them on their time scale: seen, corrected, moved and reworked. Interface thread only, but for
 * what is computed aside.
 */
package dibble.desktop.notes;
