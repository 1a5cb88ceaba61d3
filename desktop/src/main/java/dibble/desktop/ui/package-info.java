/**
 * What the views share: palette, fonts, pulse, keyboards, questions in place. Imports no view.
 */
package dibble.desktop.ui;
