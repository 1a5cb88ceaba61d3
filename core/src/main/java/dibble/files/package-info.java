/** Formats: a session, its takes, tracks and names as bytes, and read from bytes again. May import session and edits. */
package dibble.files;
