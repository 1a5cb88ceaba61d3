/**
 * What would surprise a player, one class a check, each with its mend where there is one.
 */
package dibble.checks;
