/** Levels: every sound on its own strip, and the outputs where they come out. */
package dibble.desktop.levels;
