/** The presenter of the Takes view, and the geometry of its notes. */
package dibble.presentation.takes;
