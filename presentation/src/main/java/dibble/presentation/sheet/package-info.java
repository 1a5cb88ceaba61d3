/** The actions of a sheet. */
package dibble.presentation.sheet;
