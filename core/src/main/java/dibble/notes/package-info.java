/**
 * Changes of the selected notes of a clip, as functions from a clip to a clip. Values of these classes are immutable; a
 * {@link dibble.notes.Rewrite} is confined to one thread.
 */
package dibble.notes;
