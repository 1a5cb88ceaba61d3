/** The actions of a set. */
package dibble.presentation.sets;
