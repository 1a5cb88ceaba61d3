/** The user's data outside of sessions, in the user's folder: settings, and the gear shelf. */
package dibble.user;
