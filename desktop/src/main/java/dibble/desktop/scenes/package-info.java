/** Scenes: what holds in which, and the present one shown large. */
package dibble.desktop.scenes;
