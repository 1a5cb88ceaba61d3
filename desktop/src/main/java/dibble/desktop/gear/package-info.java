/** The Gear view: sources, instruments with their parts, ports. */
package dibble.desktop.gear;
