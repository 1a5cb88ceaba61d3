/**
 * Changes of notes: functions from a clip to a clip, for what is selected of it. Values of these classes belong to no
 * thread; a {@link dibble.notes.Rewrite} belongs to one.
 */
package dibble.notes;
