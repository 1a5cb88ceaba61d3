/** What only a running program has: named threads for work in the background, and values that are computed there. */
package dibble.system;
