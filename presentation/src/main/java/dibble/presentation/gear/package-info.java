/** The decisions of the view of gear. */
package dibble.presentation.gear;
