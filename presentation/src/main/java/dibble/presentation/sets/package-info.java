/** What can be done with a set. */
package dibble.presentation.sets;
