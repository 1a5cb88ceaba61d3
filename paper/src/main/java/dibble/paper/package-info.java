/** Sheets as HTML and as PDF, and their pages as pictures and on a printer. */
package dibble.paper;
