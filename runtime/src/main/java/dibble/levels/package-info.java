/**
 * What a mixer is told: which strips there are, and what is played on the instruments. Functions of the session; what
 * makes sound of it is in a module of its own.
 */
package dibble.levels;
