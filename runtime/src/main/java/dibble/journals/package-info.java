/** Journals of what is not saved yet, and what comes back from them after a crash. May import edits, files and disk. */
package dibble.journals;
