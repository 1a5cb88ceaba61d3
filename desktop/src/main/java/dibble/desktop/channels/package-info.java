/** Channels: the zones that hold now as ribbons from channels to parts. */
package dibble.desktop.channels;
