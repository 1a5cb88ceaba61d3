/** The Scenes view: the content of scenes, with the active one shown large. */
package dibble.desktop.scenes;
