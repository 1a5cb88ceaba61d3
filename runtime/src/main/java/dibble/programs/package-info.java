/** Ports of our own among other programs: which there are, what they are called, and whose cables lead to them. */
package dibble.programs;
