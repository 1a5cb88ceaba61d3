/** The Checks view: settings that would surprise the player, with their place and fix. */
package dibble.desktop.checks;
