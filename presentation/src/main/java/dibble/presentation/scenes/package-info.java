/** The decisions of the view of scenes. */
package dibble.presentation.scenes;
