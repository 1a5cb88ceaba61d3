/** The decisions of the view of levels. */
package dibble.presentation.levels;
