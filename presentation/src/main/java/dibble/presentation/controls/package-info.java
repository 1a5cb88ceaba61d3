/** The decisions of the view of controls. */
package dibble.presentation.controls;
