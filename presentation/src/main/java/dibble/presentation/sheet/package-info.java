/** What can be done with a sheet. */
package dibble.presentation.sheet;
