/** The pages of the help. */
package dibble.presentation.help;
