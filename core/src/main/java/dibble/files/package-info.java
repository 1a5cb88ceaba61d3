/**
 * Sessions, takes and tracks on disk: the session file, the journals of what is not saved yet, and what comes back from
 * them. May import session and edits.
 */
package dibble.files;
