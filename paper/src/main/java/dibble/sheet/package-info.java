/** A session as a sheet: in words without a layout, as rows that can be imported, and compared. */
package dibble.sheet;
