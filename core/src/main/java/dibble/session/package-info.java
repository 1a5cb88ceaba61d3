/**
 * The document and all that reads, writes and edits it: session, performance state, edits, history, file.
 */
package dibble.session;
