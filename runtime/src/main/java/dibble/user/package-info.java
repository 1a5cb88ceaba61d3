/**
 * What belongs to the user rather than to a session, in a folder of their own: settings, and the gear shelf.
 */
package dibble.user;
