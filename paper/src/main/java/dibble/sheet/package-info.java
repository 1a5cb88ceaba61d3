/** A session as a sheet: who plays what, in words that are laid out elsewhere, as rows that come back in, and compared. */
package dibble.sheet;
