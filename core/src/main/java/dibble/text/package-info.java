/**
 * Texts for people, in bundles: a class with {@code say} for each module. What is written for other programs is here too,
 * as far as many write it: CSV and XML. And what Dibble says of itself: its version, and the parts that ship with it.
 */
package dibble.text;
