/**
 * What a player does to a session: functions from a session to the changed one, by what they change. No threads; may
 * import session and what it is made of.
 */
package dibble.edits;
