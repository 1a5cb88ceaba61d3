/** The decisions of the settings. */
package dibble.presentation.settings;
