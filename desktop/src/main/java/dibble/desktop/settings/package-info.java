/** The settings of the user. */
package dibble.desktop.settings;
