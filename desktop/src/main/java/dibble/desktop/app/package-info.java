/**
 * Start, window and wiring of the application. The only package that knows all views.
 */
package dibble.desktop.app;
