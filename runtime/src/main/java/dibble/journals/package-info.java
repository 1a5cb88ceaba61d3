/** Journals of unsaved work, and its recovery after a crash. May import edits, files and disk. */
package dibble.journals;
