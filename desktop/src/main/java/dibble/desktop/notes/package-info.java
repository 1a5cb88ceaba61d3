/**
 * The note editor below the tracks, on their time scale. Interface thread only, except computations in the background.
 */
package dibble.desktop.notes;
