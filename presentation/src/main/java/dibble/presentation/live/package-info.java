/** What was played as rows and sentences, and why something stayed silent. */
package dibble.presentation.live;
