/**
 * The document: session, performance state, history. What changes it is in edits, what reads and writes it in files; it
 * imports neither.
 */
package dibble.session;
