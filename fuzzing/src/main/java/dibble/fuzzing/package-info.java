/**
 * Gives everything that reads input from outside what nobody should send it: damaged files, and inputs that a search by
 * coverage finds. Nothing of it ships.
 */
package dibble.fuzzing;
