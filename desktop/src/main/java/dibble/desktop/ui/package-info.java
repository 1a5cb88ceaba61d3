/** The shared parts of views: palette, fonts, frame timer, keyboards, questions in place. Imports no view. */
package dibble.desktop.ui;
