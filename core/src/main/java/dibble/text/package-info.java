/**
 * Texts for users, in bundles: a class with {@code say} for each module. Also the shared output formats CSV and XML,
 * and the version and the shipped components.
 */
package dibble.text;
