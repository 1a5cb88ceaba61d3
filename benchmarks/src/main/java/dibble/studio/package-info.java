/** Measurements of the engine, in its package for access. */
package dibble.studio;
