/** Checks: what would surprise the player, with its place and its mend. */
package dibble.desktop.checks;
