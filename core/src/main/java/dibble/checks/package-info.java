/** Checks for settings that would surprise a player: a class for each check, with its fix if there is one. */
package dibble.checks;
