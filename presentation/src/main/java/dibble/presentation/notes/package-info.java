/** The decisions, selection and geometry of the note editor. */
package dibble.presentation.notes;
