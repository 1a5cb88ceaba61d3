/**
 * Edits of a session, as functions from a session to the changed one, grouped by their object. Has no threads; may
 * import session and its dependencies.
 */
package dibble.edits;
