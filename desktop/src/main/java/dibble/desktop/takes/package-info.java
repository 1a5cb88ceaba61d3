/**
 * The Takes view: what was played, and the tracks printed from it. Interface thread only.
 */
package dibble.desktop.takes;
