/** The decisions of the view of takes, and what is drawn of its notes. */
package dibble.presentation.takes;
