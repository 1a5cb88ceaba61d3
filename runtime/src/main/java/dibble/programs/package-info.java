/** Dibble's ports among other applications, with their names and connections. */
package dibble.programs;
