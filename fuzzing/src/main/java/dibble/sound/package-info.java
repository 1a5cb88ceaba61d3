/** Fuzz targets with access to internals of sound. */
package dibble.sound;
