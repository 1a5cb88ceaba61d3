/** Measurements of the engine; in its package, since nobody else may see it. */
package dibble.studio;
