/** The decisions of the view of channels. */
package dibble.presentation.channels;
