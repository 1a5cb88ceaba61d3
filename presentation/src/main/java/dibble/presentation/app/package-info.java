/** The services of the application, and its file workflows: new, open, save, import, export, recovery, sets. */
package dibble.presentation.app;
