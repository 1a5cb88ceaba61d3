/**
 * The Keys view: sources on one note ruler, zones as bands. Interface thread only.
 */
package dibble.desktop.keys;
