/** The routing sheet as it will be printed, the set-up list, and what differs from another session. */
package dibble.desktop.sheet;
