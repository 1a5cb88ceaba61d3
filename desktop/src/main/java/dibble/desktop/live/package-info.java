/** The live line at the foot of the window, and the panels of live events. Interface thread only. */
package dibble.desktop.live;
