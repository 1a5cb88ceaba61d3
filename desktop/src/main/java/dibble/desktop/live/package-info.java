/**
 * The live line at the foot of the window, and what is known of what sounds now. Interface thread only.
 */
package dibble.desktop.live;
