/** Played events as rows and sentences, and explanations of silence. */
package dibble.presentation.live;
