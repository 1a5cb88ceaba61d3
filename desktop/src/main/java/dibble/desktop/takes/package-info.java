/** The Takes view: played events, and the printed tracks. Interface thread only. */
package dibble.desktop.takes;
